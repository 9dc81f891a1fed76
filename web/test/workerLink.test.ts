import { expose } from 'comlink';
import { describe, expect, it } from 'vitest';
import { WorkerLink } from '../src/desk/workerLink';

const works = { double: (value: number) => 2 * value };

/** A worker that answers from this process, or one that never comes. */
function aWorker(comes: boolean) {
  const { port1, port2 } = new MessageChannel();
  if (comes) expose(works, port2);
  const close = () => {
    port1.close();
    port2.close();
  };
  const worker = Object.assign(port1, { terminate: close }) as unknown as Worker;
  return { worker, fail: () => worker.dispatchEvent(new Event('error')), close };
}

describe('a worker that is asked', () => {
  it('is made once, when it is first asked', async () => {
    let made = 0;
    const { worker, close } = aWorker(true);
    const link = new WorkerLink<typeof works>(() => {
      made += 1;
      return worker;
    });
    expect(made).toBe(0);
    const answers = [1, 2].map((value) => link.ask((remote) => remote.double(value)));
    expect(await Promise.all(answers)).toEqual([2, 4]);
    expect(made).toBe(1);
    close();
  });

  it('fails what was asked where it cannot be fetched, and is made anew by the next asking', async () => {
    const [missing, there] = [aWorker(false), aWorker(true)];
    const workers = [missing.worker, there.worker];
    const link = new WorkerLink<typeof works>(() => workers.shift()!);
    const lost = link.ask((remote) => remote.double(1));
    missing.fail();
    await expect(lost).rejects.toThrow('could not be fetched');
    expect(await link.ask((remote) => remote.double(3))).toBe(6);
    there.close();
  });
});
