import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { DataSource } from 'typeorm';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { ElsewhereError } from '../src/processes/leases.js';
import { GONE_MS, SharedLeases } from '../src/processes/sharedLeases.js';
import { STEP } from '../src/processes/step.js';
import { postgresOptions } from '../src/storage/dataSource.js';
import { LeaseTable } from '../src/storage/leaseTable.js';
import { FencedError } from '../src/storage/logDatabase.js';
import { LogStore } from '../src/storage/logStore.js';
import { PostgresLogDatabase } from '../src/storage/postgresLogDatabase.js';
import { TABLES } from '../src/subjects.js';
import { queried } from './helpers/processes.js';
import { databaseFor, dropDatabaseOf, POSTGRES } from './helpers/testDatabase.js';

const SOON = { timeout: 90_000, interval: 20 };

describe.skipIf(!POSTGRES)('what a process has in hand', () => {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-leases-'));
  let url: string;
  const ends: (() => Promise<unknown>)[] = [];
  beforeAll(async () => {
    url = (await databaseFor(folder))!;
    await (await new DataSource(postgresOptions(url, TABLES)).initialize()).destroy();
  });
  afterEach(async () => {
    for (const end of ends.splice(0)) await end();
  });
  afterAll(async () => {
    await dropDatabaseOf(folder);
    rmSync(folder, { recursive: true });
  });

  async function aProcess(): Promise<SharedLeases> {
    const leases = new SharedLeases(new LeaseTable(url, GONE_MS));
    // Nobody is there: whoever asks it to hand something over is not answered.
    await leases.begin('http://127.0.0.1:9');
    leases.useWhile(() => true);
    ends.push(() => leases.end());
    return leases;
  }
  const silence = (process: SharedLeases) =>
    queried(url, 'UPDATE process SET renewed_at = renewed_at - 10000 WHERE id = $1', [process.id]);

  it('is nobody else’s until it is handed over, with a higher number then', async () => {
    const [one, other] = [await aProcess(), await aProcess()];
    expect(await one.take('a')).toBe(1);
    expect(await one.take('a')).toBe(1);
    await expect(other.take('a')).rejects.toThrow(ElsewhereError);
    const told: string[] = [];
    one.onLeaving((lesson) => Promise.resolve(void told.push(`leaving ${lesson}`)));
    one.onLeft((lesson) => told.push(`left ${lesson}`));
    await one.handOver('a');
    expect(told).toEqual(['leaving a', 'left a']);
    expect(one.isHeld('a')).toBe(false);
    expect(await other.take('a')).toBe(2);
  });

  it('is handed over to who waits for it, though others ask in the same moment', async () => {
    const [one, other, third] = [await aProcess(), await aProcess(), await aProcess()];
    await one.take('e');
    // Whoever was connected comes back the moment it is gone.
    one.onLeft(() => void third.take('e').catch(() => undefined));
    await one.handOver('e', other.id);
    await expect(third.take('e')).rejects.toThrow(ElsewhereError);
    expect(await other.take('e')).toBe(2);
  });

  it('is not drawn back to whoever was sent away, as long as it is needed where it went', async () => {
    const alone = new SharedLeases(new LeaseTable(url, GONE_MS));
    await alone.begin('http://127.0.0.1:9');
    ends.push(() => alone.end());
    expect(alone.isInUse('f')).toBe(false);
    await alone.takeOver('f');
    expect(alone.isInUse('f')).toBe(true);
  });

  it('stays with who cannot be reached, but is heard to be there', async () => {
    const [one, other] = [await aProcess(), await aProcess()];
    await one.take('g');
    // The line between the two is cut; the database hears both.
    await expect(other.placeOf('g', true)).rejects.toThrow(ElsewhereError);
    expect(one.isHeld('g')).toBe(true);
    await silence(one);
    expect(await other.placeOf('g', true)).toBeUndefined();
    expect(other.isHeld('g')).toBe(true);
  });

  it('is nothing that is not there, whoever asks for it', async () => {
    const one = await aProcess();
    expect(await one.placeOf('never made', true, true)).toBeUndefined();
    expect(one.isHeld('never made')).toBe(false);
    expect(await queried(url, 'SELECT 1 FROM lease WHERE lesson = $1', ['never made'])).toEqual([]);
    expect(one.isOwn('guessed')).toBe(false);
  });

  it('is taken by others when nothing is heard of it, and it learns that', async () => {
    const [one, other] = [await aProcess(), await aProcess()];
    await one.take('b');
    const lost = new Promise((resolve) => one.onLeft(resolve));
    await silence(one);
    expect(await other.take('b')).toBe(2);
    expect(await lost).toBe('b');
    expect(one.isHeld('b')).toBe(false);
    expect(other.isHeld('b')).toBe(true);
  });

  it('is not told for certain by a process that could not say that it is there', async () => {
    const one = await aProcess();
    await one.take('c');
    const now = vi.spyOn(performance, 'now');
    now.mockReturnValue(performance.now() + GONE_MS + 1);
    expect(one.isHeld('c')).toBe(false);
    now.mockRestore();
    await vi.waitUntil(() => one.isHeld('c'), SOON);
  });

  it('stays with one at a time, whatever happens in which order, and numbers only rise', async () => {
    const processes = [await aProcess(), await aProcess(), await aProcess()];
    const step = fc.record({
      who: fc.nat(processes.length - 1),
      does: fc.constantFrom('take', 'hand over', 'fall silent'),
    });
    let n = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 12 }), async (steps) => {
        const lesson = `lesson ${(n += 1)}`;
        let before = { holder: null as string | null, fence: 0 };
        for (const { who, does } of steps) {
          const process = processes[who]!;
          if (does === 'hand over') await process.handOver(lesson);
          else if (does === 'fall silent') await silence(process);
          else await process.take(lesson).catch(() => undefined);
          const [now = before] = await queried<typeof before>(
            url,
            'SELECT holder, fence FROM lease WHERE lesson = $1',
            [lesson],
          );
          if (now.holder !== null && now.holder !== before.holder)
            expect(now.fence).toBeGreaterThan(before.fence);
          else expect(now.fence).toBeGreaterThanOrEqual(before.fence);
          // Whoever else believes to have it has a lower number, and stores nothing by it.
          for (const { id, ...each } of processes.map((one) => ({ id: one.id, fence: one.fenceOf(lesson) })))
            if (id !== now.holder && each.fence !== undefined)
              expect(each.fence).toBeLessThan(now.fence + (now.holder === null ? 1 : 0));
          before = now;
        }
      }),
      { numRuns: 15 },
    );
  });

  it('cannot be written by who had it before', async () => {
    const database = new PostgresLogDatabase(url);
    ends.push(() => database.onApplicationShutdown());
    const store = new LogStore(database);
    const append = (seq: number, fence: number) =>
      store.append(
        'fenced',
        {
          logged: { seq, author: 'ada', at: 1, operation: { id: `o${seq}-${fence}`, changes: [] } },
          inverse: [],
          pages: [],
          marks: new Map(),
          markCountChange: 0,
          touchedPages: new Map(),
        },
        fence,
      );
    await append(1, 3);
    await append(2, 3);
    await store.fence('fenced', 4);
    await expect(append(3, 3)).rejects.toThrow(FencedError);
    await append(3, 4);
    await expect(append(4, 3)).rejects.toThrow(FencedError);
    await expect(store.fence('fenced', 3)).rejects.toThrow(FencedError);
    expect((await store.head('fenced')).seq).toBe(3);
  });

  it('is nothing beside a process of a far version', async () => {
    const one = await aProcess();
    await queried(
      url,
      `INSERT INTO process SELECT 'far', 'http://far', 'secret', $1, renewed_at FROM process WHERE id = $2`,
      [STEP + 2, one.id],
    );
    await expect(aProcess()).rejects.toThrow(/step/);
    await queried(url, `DELETE FROM process WHERE id = 'far'`, []);
  });
});
