import type { Operation } from '@doodla/core';
import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { SoleLeases } from '../src/processes/leases.js';
import { LogsService } from '../src/live/logs.service.js';
import { TokenBucket } from '../src/live/tokenBucket.js';
import { makeJoinCode, normaliseCode } from '../src/sittings/joinCode.js';
import { GroupCommit } from '../src/storage/groupCommit.js';
import type { LogStore } from '../src/storage/logStore.js';
import { packJson, unpackJson } from '../src/storage/packedJson.js';
import { stillUndoable } from '../src/storage/stillUndoable.js';
import { strokeBy } from './helpers/live.js';
import { aStoreOfLogs } from './helpers/logStores.js';

const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 } as const;
const page = (id: string) => ({ id, order: 'a0', title: '', width: 9, height: 9, surface, removed: false });
const addPage = (id: string): Operation => ({
  id: randomUUID(),
  changes: [{ do: 'addPage', page: page(id) }],
});
const add = (id: string, on = 'p1'): Operation => ({
  id: randomUUID(),
  changes: [{ do: 'add', mark: strokeBy('ada', on, { id }) }],
});

describe('logs', () => {
  const services: LogsService[] = [];
  let store: LogStore;
  let close: () => Promise<void>;
  beforeAll(async () => ({ store, close } = await aStoreOfLogs()));
  beforeEach(() => store.remove(['log']));
  afterAll(() => close());
  const over = (one: LogStore) => {
    const logs = new LogsService(one, new SoleLeases());
    services.push(logs);
    return logs;
  };
  afterEach(() => services.splice(0).forEach((logs) => logs.onModuleDestroy()));

  it('heal where memory and database have come apart', async () => {
    const [one, other] = [over(store), over(store)];
    await one.append('log', 'ada', addPage('p1'));
    await other.open('log');
    await one.append('log', 'ada', add('m1'));
    // The other still holds number 2 to be free; it looks again and goes on.
    expect((await other.append('log', 'ada', add('m2'))).seq).toBe(3);
    expect((await other.append('log', 'ada', add('m3'))).seq).toBe(4);
    expect((await (await over(store).open('log')).allMarks()).map(({ id }) => id).sort()).toEqual([
      'm1',
      'm2',
      'm3',
    ]);
  });

  it('stay in memory while somebody has them open, and are whole again after they were put away', async () => {
    const logs = over(store);
    await logs.append('log', 'ada', addPage('p1'));
    const open = await logs.open('log');
    const sweep = async () => {
      (logs as unknown as { closeIdle(now: number): void }).closeIdle(Date.now() + 3_600_000);
      await new Promise((resolve) => setImmediate(resolve));
    };
    logs.holdWhile(() => true);
    await sweep();
    expect(await logs.open('log')).toBe(open);
    logs.holdWhile(() => false);
    const written = logs.append('log', 'ada', addPage('p2'));
    await sweep();
    await written;
    expect(open.closed).toBe(true);
    await logs.append('log', 'ada', add('m1', 'p2'));
    expect([...(await logs.open('log')).pages.keys()]).toEqual(['p1', 'p2']);
  });

  it('take an operation once, and answer with the place that it has', async () => {
    const logs = over(store);
    const operation = addPage('p1');
    const first = await logs.append('log', 'ada', operation);
    await logs.append('log', 'ada', addPage('p2'));
    expect(await logs.append('log', 'ada', operation)).toEqual(first);
  });

  it('keep marks of every size and origin, changed ones and those of large operations', async () => {
    const logs = over(store);
    await logs.append('log', 'ada', addPage('p1'));
    const many: Operation = {
      id: randomUUID(),
      changes: Array.from({ length: 60 }, (_, i) => add(`n${i}`).changes[0]!),
    };
    await logs.append('log', 'ada', many);
    await logs.append('log', 'ada', add('m1'));
    await logs.append('log', 'ada', {
      id: randomUUID(),
      changes: [{ do: 'patch', mark: 'm1', set: { order: 'a7' } }],
    });
    await logs.append('log', 'ada', { id: randomUUID(), changes: [{ do: 'remove', mark: 'n3' }] });
    const marks = await (await over(store).open('log')).marksOn('p1');
    expect(marks.size).toBe(60);
    expect(marks.get('m1')).toMatchObject({ order: 'a7' });
    expect(marks.get('n7')).toEqual((many.changes[7] as { mark: object }).mark);
    await logs.remove(['log']);
    expect(await store.head('log')).toMatchObject({ seq: 0, markCount: 0 });
  });
});

describe('writing together', () => {
  it('keeps what is right when something beside it is wrong', async () => {
    const database = new Database(':memory:');
    database.exec('CREATE TABLE t (id INTEGER PRIMARY KEY)');
    const commits = new GroupCommit(database);
    const insert = (id: number) =>
      commits.run(() => void database.prepare('INSERT INTO t VALUES (?)').run(id));
    const results = await Promise.allSettled([insert(1), insert(1), insert(2)]);
    expect(results.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
    expect(database.prepare('SELECT id FROM t').pluck().all()).toEqual([1, 2]);
    database.close();
    await expect(insert(3)).rejects.toThrow();
  });
});

describe('what is left to undo', () => {
  const own = (id: string, undoes: string | null = null) => ({ id, undoes });
  const ids = (...operations: ReturnType<typeof own>[]) => stillUndoable(operations).map(({ id }) => id);

  it('is everything that was not undone, oldest first', () => {
    expect(ids(own('a'), own('b'), own('c'))).toEqual(['a', 'b', 'c']);
    expect(ids(own('a'), own('b'), own('u', 'b'))).toEqual(['a']);
  });

  it('has a redo in the place of what it brought back', () => {
    expect(ids(own('a'), own('u', 'a'), own('r', 'u'))).toEqual(['r']);
    expect(ids(own('a'), own('u', 'a'), own('r', 'u'), own('v', 'r'))).toEqual([]);
  });

  it('has no undo of something that is too long ago to be looked at', () => {
    expect(ids(own('u', 'long-ago'), own('a'))).toEqual(['a']);
  });
});

describe('packed values', () => {
  it.each([['short'], ['x'.repeat(5000)], ['ü€😀'.repeat(200)]])('come back as they were', (text) => {
    const value = { text, list: [1, null, true] };
    expect(unpackJson(packJson(value))).toEqual(value);
  });

  it('are smaller where there is something to gain', () => {
    expect(packJson('ab'.repeat(1000)).length).toBeLessThan(100);
  });
});

describe('the limit of messages', () => {
  it('lets a burst through and then stops, or lets one wait', async () => {
    const bucket = new TokenBucket(5, 0.001);
    expect(Array.from({ length: 7 }, () => bucket.take())).toEqual([
      true,
      true,
      true,
      true,
      true,
      false,
      false,
    ]);
    vi.useFakeTimers();
    const quick = new TokenBucket(2, 100);
    expect(quick.take(3)).toBe(false);
    const passed = vi.fn();
    void quick.wait(4).then(passed);
    await vi.advanceTimersByTimeAsync(19);
    expect(passed).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(1);
    expect(passed).toHaveBeenCalledOnce();
    expect(quick.take()).toBe(false);
    vi.useRealTimers();
  });
});

describe('join codes', () => {
  it('have six signs, none that is mistaken for another, and are read however they are typed', () => {
    const codes = Array.from({ length: 500 }, makeJoinCode);
    for (const code of codes) expect(code).toMatch(/^[^01258AEIOUBLSZ]{6}$/);
    expect(new Set(codes).size).toBeGreaterThan(490);
    expect(normaliseCode(' cdf-ghj ')).toBe('CDFGHJ');
  });
});
