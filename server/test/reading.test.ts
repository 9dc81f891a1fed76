import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { FairTurns } from '../src/reading/fairTurns.js';
import { LimitedProcess } from '../src/reading/limitedProcess.js';
import { ReaderPool } from '../src/reading/readerPool.js';

const folder = mkdtempSync(join(tmpdir(), 'doodla-reading-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** A script for a process whose tasks are done by `body`, an async function of `task` and `ask`. */
function script(name: string, body: string): URL {
  const served = new URL('../dist/reading/serveTasks.js', import.meta.url).href;
  const file = join(folder, `${name}.mjs`);
  writeFileSync(
    file,
    `import { serveTasks } from '${served}';
     serveTasks({ failureOf: String, run: async (task, ask) => { ${body} } });`,
  );
  return pathToFileURL(file);
}

const LIMITS = { timeMs: 50_000, memoryMb: 300 };

describe('a process within limits', () => {
  it('is ended when it takes too long, and the next task goes on', async () => {
    const file = script('slow', "if (task === 'slow') for (;;); return task;");
    const reader = new LimitedProcess<string, string>(file, { ...LIMITS, timeMs: 2_000 });
    await expect(reader.run('slow')).rejects.toMatchObject({ why: 'slow' });
    expect(await reader.run('quick')).toBe('quick');
    reader.stop();
  });

  it('may take its time to start: the limit is that of the task', async () => {
    const file = script('heavy', 'return task;');
    writeFileSync(
      file,
      `for (const end = Date.now() + 1500; Date.now() < end; );\n${readFileSync(file, 'utf8')}`,
    );
    const reader = new LimitedProcess<string, string>(file, { ...LIMITS, timeMs: 1_000 });
    expect(await reader.run('first')).toBe('first');
    reader.stop();
  });

  it.each([
    ['crashes', 'process.exit(1)'],
    ['fills its heap', 'const all = []; for (;;) all.push(new Array(100000).fill(task))'],
    // What lies outside the heap has no limit of its own.
    ['fills memory beside its heap', 'const all = []; for (;;) all.push(Buffer.alloc(10e6, 1))'],
  ])('is ended when it %s', async (name, body) => {
    const reader = new LimitedProcess<string, string>(script(name.replaceAll(' ', '-'), body), LIMITS);
    await expect(reader.run('x')).rejects.toMatchObject({ why: 'crashed' });
    reader.stop();
  });

  it('gets answers to what it asks, and is ended when nobody waits any more', async () => {
    const file = script('asks', "if (task === 'wait') await new Promise(() => {}); return ask(7);");
    const reader = new LimitedProcess<string, number, number>(file, LIMITS);
    expect(await reader.run('ask', { onNote: (note) => note * 6 })).toBe(42);
    const abort = new AbortController();
    const waiting = reader.run('wait', { signal: abort.signal });
    abort.abort(new Error('gone'));
    await expect(waiting).rejects.toThrow('gone');
    reader.stop();
  });

  it('knows nothing of what the server was told', async () => {
    vi.stubEnv('DOODLA_SECRET', 'chalk');
    const file = script('env', 'return Object.keys(process.env);');
    const reader = new LimitedProcess<string, string[]>(file, LIMITS);
    expect(await reader.run('names')).not.toContain('DOODLA_SECRET');
    vi.unstubAllEnvs();
    reader.stop();
  });

  it('ends with whoever started it, however busy it is', async () => {
    const file = script('busy', 'await ask(process.pid); for (;;);');
    const reader = new URL('../dist/reading/limitedProcess.js', import.meta.url).href;
    const starter = `
      import { LimitedProcess } from '${reader}';
      new LimitedProcess(new URL('${file.href}'), { timeMs: 60000, memoryMb: 300 })
        .run('x', { onNote: (pid) => { console.log(pid); process.kill(process.pid, 'SIGKILL'); } });`;
    let pid = 0;
    try {
      const stdio = ['ignore', 'pipe', 'ignore'] as const;
      execFileSync(process.execPath, ['--input-type=module', '-e', starter], { stdio: [...stdio] });
    } catch (killed) {
      // It kills itself; what it said before that is what counts.
      pid = Number((killed as { stdout: Buffer }).stdout.toString());
    }
    expect(pid).toBeGreaterThan(0);
    await expect.poll(() => runs(pid)).toBe(false);
  });
});

function runs(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch {
    // There is no such process any more.
    return false;
  }
}

describe('several readers', () => {
  it('read one person’s file while another’s takes long, and say who waits', async () => {
    const file = script('pool', 'if (task.wait) await ask(task.name); return task.name;');
    const pool = new ReaderPool<{ name: string; wait?: boolean }, string, string>(file, LIMITS, 3);
    let goOn = () => {};
    const going = new Promise<void>((resolve) => (goOn = resolve));
    const heavy = pool.run({ name: 'heavy', wait: true }, { owner: 'ada', onNote: () => going });
    const waits: number[] = [];
    const second = pool.run({ name: 'second' }, { owner: 'ada', onWaiting: (before) => waits.push(before) });
    expect(await pool.run({ name: 'small' }, { owner: 'bo' })).toBe('small');
    expect(waits).toEqual([1]);
    goOn();
    expect(await heavy).toBe('heavy');
    expect(await second).toBe('second');
    expect(waits).toEqual([1, 0]);
    pool.stop();
  });
});

describe('turns', () => {
  it('are nobody’s alone, and come to everybody in whatever order they are asked for', async () => {
    const asks = fc.array(fc.record({ owner: fc.constantFrom('ada', 'bo', 'cy'), ticks: fc.nat(3) }), {
      minLength: 1,
      maxLength: 20,
    });
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 7 }), asks, async (places, wanted) => {
        const turns = new FairTurns(places);
        const running: string[] = [];
        const most = Math.max(1, Math.floor(places / 3));
        const works = wanted.map(({ owner, ticks }) =>
          turns.run({ owner }, async () => {
            running.push(owner);
            expect(running.length).toBeLessThanOrEqual(places);
            expect(running.filter((one) => one === owner).length).toBeLessThanOrEqual(most);
            for (let i = 0; i < ticks; i++) await Promise.resolve();
            running.splice(running.indexOf(owner), 1);
            return owner;
          }),
        );
        expect(await Promise.all(works)).toEqual(wanted.map(({ owner }) => owner));
      }),
    );
  });

  it('are given up while one waits', async () => {
    const turns = new FairTurns(1);
    let end = () => {};
    const first = turns.run({ owner: 'ada' }, () => new Promise<void>((resolve) => (end = resolve)));
    const abort = new AbortController();
    const second = turns.run({ owner: 'bo', signal: abort.signal }, () => Promise.resolve('never'));
    const third = turns.run({ owner: 'cy' }, () => Promise.resolve('third'));
    abort.abort(new Error('gone'));
    await expect(second).rejects.toThrow('gone');
    end();
    await first;
    expect(await third).toBe('third');
  });

  it('go to whoever has the fewest', async () => {
    const turns = new FairTurns(6);
    const order: string[] = [];
    const ends: (() => void)[] = [];
    const hold = (owner: string) =>
      turns.run({ owner }, () => {
        order.push(owner);
        return new Promise<void>((resolve) => ends.push(resolve));
      });
    const all = ['ada', 'ada', 'bo', 'bo', 'cy', 'di', 'cy', 'ed'].map(hold);
    await expect.poll(() => order).toEqual(['ada', 'ada', 'bo', 'bo', 'cy', 'di']);
    ends.shift()!();
    await expect.poll(() => order.at(-1)).toBe('ed');
    while (ends.length > 0 || order.length < all.length) {
      ends.shift()?.();
      await Promise.resolve();
    }
    await Promise.all(all);
  });
});
