import 'reflect-metadata';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SeatsService } from '../src/sittings/seats.service.js';
import type { Sitting } from '../src/sittings/sitting.entity.js';
import type { Student } from '../src/sittings/student.entity.js';

const sitting = { id: 'sitting', locked: false, nodding: false } as Sitting;

let students: Student[];
let here: Set<string>;
let asks: { id: string; name: string }[];
let seats: SeatsService;

beforeEach(() => {
  vi.useFakeTimers();
  students = [];
  here = new Set();
  asks = [];
  const repository = {
    find: () => Promise.resolve([...students]),
    insert: (student: Student) => (students.push(student), Promise.resolve(student)),
    delete: () => {
      students = students.filter(
        ({ enteredAt, joinedAt }) => enteredAt !== null || Date.now() - joinedAt < 120_000,
      );
      return Promise.resolve();
    },
  };
  const classes = {
    hereIn: () => here,
    setAsks: (id: string, open: typeof asks) => id === 'sitting' && (asks = open),
    announce: () => Promise.resolve(),
  };
  seats = new SeatsService(repository as never, classes as never);
});
afterEach(() => vi.useRealTimers());

async function admit(name: string): Promise<Student> {
  const seat = await seats.join(sitting, { name, device: undefined, listed: [] });
  if ('ask' in seat) throw new Error('asked');
  return seat;
}

async function enter(name: string): Promise<Student> {
  const student = await admit(name);
  student.enteredAt = Date.now();
  here.add(student.id);
  return student;
}

async function ask(name: string): Promise<string> {
  const answer = await seats.join(sitting, { name, device: undefined, listed: [] });
  if (!('ask' in answer)) throw new Error('let in');
  return answer.ask;
}

describe('places in a class', () => {
  it('are kept two minutes for somebody who has not come, and then given anew', async () => {
    const first = await admit('Wren');
    vi.advanceTimersByTime(119_000);
    expect(typeof (await ask('wren'))).toBe('string');
    vi.advanceTimersByTime(2000);
    expect((await admit('Wren')).id).not.toBe(first.id);
  });

  it('are asked for two minutes, then nobody is asked any more', async () => {
    await enter('Wren');
    const secret = await ask('Wren');
    expect(asks.map(({ name }) => name)).toEqual(['Wren']);
    expect(seats.granted(secret)).toBeUndefined();
    await vi.advanceTimersByTimeAsync(121_000);
    expect(asks).toEqual([]);
    expect(() => seats.granted(secret)).toThrow('not let in');
  });

  it('are given once for each nod, to the one who was nodded to', async () => {
    const wren = await enter('Wren');
    const [first, second] = [await ask('Wren'), await ask('Wren')];
    await seats.answer('sitting', asks[0]!.id, true);
    await seats.answer('another class', asks[0]!.id, true);
    expect(asks).toHaveLength(1);
    expect(seats.granted(first)).toBe(wren);
    expect(() => seats.granted(first)).toThrow('not let in');
    expect(seats.granted(second)).toBeUndefined();
  });

  it('are no more than there are', async () => {
    // A class comes in no faster than two a second.
    for (let i = 0; i < 200; i++) {
      await enter(`Student ${i}`);
      vi.advanceTimersByTime(600);
    }
    await expect(admit('One more')).rejects.toThrow('full');
  });

  it('come no faster than a class does', async () => {
    for (let i = 0; i < 80; i++) await admit(`Student ${i}`);
    await expect(admit('One more')).rejects.toThrow('Too many');
  });
});
