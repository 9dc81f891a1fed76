import { randomUUID } from 'node:crypto';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Conversion, Converted } from '../src/documents/conversionQueue.js';
import { ConversionQueue, QueueAwayError } from '../src/documents/conversionQueue.js';
import { freePort, REDIS } from './helpers/processes.js';

const task = (sha256: string, owner = 'ada'): Conversion => ({ sha256, kind: 'docx', owner });
const SOON = { timeout: 90_000, interval: 20 };

describe.skipIf(!REDIS)('documents that wait to be turned into pages', () => {
  const queues: ConversionQueue[] = [];
  afterEach(async () => {
    for (const queue of queues.splice(0)) await queue.close();
  });
  const queueOf = (
    work: (task: Conversion, signal: AbortSignal) => Promise<Converted>,
    namespace: string,
    url = REDIS!,
  ) => {
    const queue = new ConversionQueue({ url, namespace, places: 1, patienceMs: 120_000, work });
    queues.push(queue);
    return queue;
  };

  it('are done by whichever process is free, each once, and who has the fewest goes first', async () => {
    const namespace = randomUUID();
    const done: string[] = [];
    let open: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (open = resolve));
    const work = (by: string) => async (one: Conversion) => {
      if (one.sha256 === 'first') await held;
      done.push(`${one.sha256} by ${by}`);
      return { pdf: `${one.sha256}.pdf` };
    };
    const a = queueOf(work('a'), namespace);
    const first = a.run(task('first'), {});
    await vi.waitUntil(async () => (await a.waiting()) === 0, SOON);
    const many = ['second', 'third', 'fourth'].map((name) => a.run(task(name), {}));
    await vi.waitUntil(async () => (await a.waiting()) === 3, SOON);
    const other = a.run(task('of another', 'bea'), {});
    await vi.waitUntil(async () => (await a.waiting()) === 4, SOON);
    queueOf(work('b'), namespace);
    expect(await Promise.all([...many, other])).toEqual(
      ['second', 'third', 'fourth', 'of another'].map((name) => ({ pdf: `${name}.pdf` })),
    );
    expect(done.every((line) => line.endsWith('by b'))).toBe(true);
    // Of one who has four under way, all but the first wait for one who has none.
    expect(done[0]).toBe('of another by b');
    open();
    expect(await first).toEqual({ pdf: 'first.pdf' });
    expect(new Set(done).size).toBe(5);
  });

  it('are given up when they are cancelled, waiting or begun, at whichever process', async () => {
    const namespace = randomUUID();
    const seen: AbortSignal[] = [];
    queueOf((_, signal) => {
      seen.push(signal);
      return new Promise((_resolve, reject) =>
        signal.addEventListener('abort', () => reject(new Error('given up'))),
      );
    }, namespace);
    await vi.waitUntil(async () => (await queues[0]!.waiting()) === 0, SOON);
    const here = queues[0]!;
    const [begun, waits] = [new AbortController(), new AbortController()];
    const running = here.run(task('begun'), { signal: begun.signal });
    await vi.waitUntil(() => seen.length === 1, SOON);
    const waiting = here.run(task('waits'), { signal: waits.signal });
    await vi.waitUntil(async () => (await here.waiting()) === 1, SOON);
    waits.abort(new Error('no more'));
    await expect(waiting).rejects.toThrow('no more');
    expect(await here.waiting()).toBe(0);
    begun.abort(new Error('no more'));
    await expect(running).rejects.toThrow('no more');
    await vi.waitUntil(() => seen[0]!.aborted, SOON);
  });

  it('are done by each process itself where the queue is away', async () => {
    const nowhere = `redis://127.0.0.1:${await freePort()}`;
    const queue = new ConversionQueue({
      url: nowhere,
      namespace: randomUUID(),
      places: 1,
      patienceMs: 1000,
      work: () => Promise.resolve({ pdf: '' }),
    });
    await expect(queue.run(task('any'), {})).rejects.toThrow(QueueAwayError);
  });
});
