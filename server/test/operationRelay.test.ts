import type { Actor, Change, Mark, OperationsMessage } from '@doodla/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { OperationRelay } from '../src/live/operationRelay.js';
import { strokeBy } from './helpers/live.js';

const LOG = 'log';
const TEACHER: Actor = { id: 'ada', role: 'teacher', tables: [] };
const WREN: Actor = { id: 'wren', role: 'student', tables: [] };

let toAll: OperationsMessage[];
let toEach: Map<string, OperationsMessage[]>;
let relay: OperationRelay;
let seq: number;

beforeEach(() => {
  vi.useFakeTimers();
  toAll = [];
  toEach = new Map();
  seq = 0;
  const sockets = new Map(
    [TEACHER, WREN].map((actor) => [
      actor.id,
      {
        data: { open: new Map([[LOG, { actor }]]) },
        emit: (_: string, message: OperationsMessage) =>
          toEach.set(actor.id, [...(toEach.get(actor.id) ?? []), message]),
      },
    ]),
  );
  relay = new OperationRelay({
    local: { to: () => ({ emit: (_: string, message: OperationsMessage) => toAll.push(message) }) },
    sockets: { adapter: { rooms: new Map([[`log ${LOG}`, new Set(sockets.keys())]]) }, sockets },
  } as never);
});
afterEach(() => vi.useRealTimers());

function store(change: Change): void {
  seq += 1;
  const operation = { id: `op-${seq}`, changes: [change] };
  const known = () => ('mark' in change && typeof change.mark === 'object' ? change.mark : undefined);
  relay.tell(LOG, { logged: { seq, author: 'wren', at: 0, operation }, inverse: [], tookMs: 1, known });
}

const write = (set: Partial<Mark> = {}) =>
  store({ do: 'add', mark: { ...strokeBy('wren', 'page'), ...set } as Mark });
const numbers = (messages: OperationsMessage[]) => messages.map(({ logged }) => logged.map((one) => one.seq));

describe('what is stored in a log', () => {
  it('is told at once in a quiet class, and together where much comes at a time', () => {
    write();
    expect(numbers(toAll)).toEqual([[1]]);
    write();
    write();
    write();
    expect(numbers(toAll)).toEqual([[1]]);
    vi.advanceTimersByTime(20);
    expect(numbers(toAll)).toEqual([[1], [2, 3, 4]]);
    vi.advanceTimersByTime(20);
    write();
    expect(numbers(toAll)).toEqual([[1], [2, 3, 4], [5]]);
  });

  it('is told at once and in its order where pages change, as the class may be turned to one', () => {
    write();
    write();
    store({ do: 'patchPage', page: 'page', set: { title: 'Arches' } });
    expect(numbers(toAll)).toEqual([[1], [2, 3]]);
  });

  it('is told before its author gets an answer', async () => {
    write();
    await relay.told(LOG);
    write();
    let isTold = false;
    const told = relay.told(LOG).then(() => (isTold = true));
    await Promise.resolve();
    expect(isTold).toBe(false);
    vi.advanceTimersByTime(20);
    await told;
    expect(numbers(toAll)).toEqual([[1], [2]]);
  });

  it('comes before what is sent after a flush', () => {
    write();
    write();
    relay.flush(LOG);
    expect(numbers(toAll)).toEqual([[1], [2]]);
    relay.flush(LOG);
    relay.flush('another log');
    vi.advanceTimersByTime(100);
    expect(numbers(toAll)).toEqual([[1], [2]]);
  });

  it('goes on where somebody could not be told', () => {
    write();
    toAll.push = () => {
      throw new Error('the line is broken');
    };
    write();
    expect(() => vi.advanceTimersByTime(20)).not.toThrow();
    toAll = [];
    write();
    vi.advanceTimersByTime(20);
    expect(numbers(toAll).flat()).toContain(3);
  });

  it('keeps what only some may see from the others, with its number', () => {
    write();
    write();
    write({ space: 'student:nash' });
    vi.advanceTimersByTime(20);
    expect(numbers(toAll)).toEqual([[1]]);
    expect(numbers(toEach.get('ada')!)).toEqual([[2, 3]]);
    expect(numbers(toEach.get('wren')!)).toEqual([[2, 3]]);
    const changes = (who: string) => toEach.get(who)![0]!.logged.map((one) => one.operation.changes.length);
    expect(changes('ada')).toEqual([1, 1]);
    expect(changes('wren')).toEqual([1, 0]);
  });
});
