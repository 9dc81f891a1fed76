import { FREE, LIVE } from '@doodla/core';
import type { ClassState, Mark } from '@doodla/core';
import { ClassClient, LogClient, MemoryOutbox } from '@doodla/core/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aClassState, aPerson } from '../../core/test/helpers/classes';
import { FakeLine } from '../../core/test/helpers/fakeLine';
import { aPage, aStroke } from '../../core/test/helpers/marks';
import { Copies } from '../src/room/copies';

const people = [aPerson(), aPerson({ id: 'tove', name: 'Tove' }), aPerson({ id: 'odo', name: 'Odo' })];
const START = Date.UTC(2027, 2, 1);

let line: FakeLine;
let target: LogClient;
let classroom: ClassClient;
let copies: Copies;
let seq = 0;

async function begin(set: Partial<ClassState>): Promise<void> {
  const pages = [aPage({ id: 'p1' }), aPage({ id: 'p2' })];
  const actor = { id: 'ada', role: 'teacher', tables: [] };
  line.answers = {
    [LIVE.open]: { actor, seq: 0, pages, written: [], operations: [], undoable: [] },
    [LIVE.enter]: aClassState({ people, now: START, ...set }),
  };
  target = new LogClient({ kind: 'sitting', id: 's1' }, line, {
    situation: () => FREE,
    outboxFor: () => new MemoryOutbox(),
  });
  classroom = new ClassClient('s1', line);
  copies = new Copies({ target, classroom });
  await vi.waitUntil(() => target.status.get().ready && classroom.state.get());
}
const arrives = (set: Partial<Mark>) => {
  const mark = aStroke({ page: 'p1', ...set } as never);
  seq += 1;
  const operation = { id: `op${seq}`, changes: [{ do: 'add', mark }] };
  line.tell(LIVE.operations, { log: 's1', logged: [{ seq, author: mark.author, at: 0, operation }] });
};

beforeEach(() => {
  vi.useFakeTimers({ now: START });
  line = new FakeLine();
  seq = 0;
});
afterEach(() => {
  copies.close();
  target.close();
  classroom.close();
  vi.useRealTimers();
});

describe('the copies of a page', () => {
  it('are one for each student, with what is on it and when it was put there', async () => {
    await begin({ ways: { p1: 'own' } });
    arrives({ id: 'common' });
    arrives({ id: 'b', author: 'wren', space: 'student:wren', order: 'a2' });
    vi.advanceTimersByTime(5000);
    // Its author's clock is wrong by a day.
    arrives({ id: 'a', author: 'wren', space: 'student:wren', order: 'a1', createdAt: START + 86_400_000 });
    arrives({ id: 'elsewhere', author: 'tove', space: 'student:tove', page: 'p2' });
    const [wren, tove] = copies.of('p1');
    expect([wren!.people[0]!.name, wren!.marks.map(({ id }) => id), wren!.writtenAt]).toEqual([
      'Wren',
      ['a', 'b'],
      classroom.now,
    ]);
    expect([tove!.marks, tove!.writtenAt]).toEqual([[], undefined]);
  });

  it('are one for each table', async () => {
    await begin({
      ways: { p1: 'tables' },
      tables: [
        { id: '1', students: ['wren', 'odo'] },
        { id: '2', students: ['tove'] },
      ],
    });
    arrives({ author: 'odo', space: 'table:1' });
    expect(copies.of('p1').map(({ table, people: who, marks }) => [table, who.length, marks.length])).toEqual(
      [
        ['1', 2, 1],
        ['2', 1, 0],
      ],
    );
  });

  it('are the same lists as long as nothing on them is different', async () => {
    await begin({ ways: { p1: 'own' } });
    arrives({ id: 'a', author: 'wren', space: 'student:wren' });
    const before = copies.of('p1');
    arrives({ author: 'tove', space: 'student:tove' });
    const after = copies.of('p1');
    expect(after[0]!.marks).toBe(before[0]!.marks);
    expect(after[1]!.marks).not.toBe(before[1]!.marks);
    seq += 1;
    const operation = { id: 'moved', changes: [{ do: 'patch', mark: 'a', set: { order: 'a9' } }] };
    line.tell(LIVE.operations, { log: 's1', logged: [{ seq, author: 'wren', at: 0, operation }] });
    expect(copies.of('p1')[0]!.marks).not.toBe(before[0]!.marks);
  });
});
