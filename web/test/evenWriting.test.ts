import type { Mark, MarkOf } from '@doodla/core';
import { evenOut } from '@doodla/core/neaten';
import { describe, expect, it } from 'vitest';
import { aShape, aStroke } from '../../core/test/helpers/marks';
import { evenWriting, justWritten } from '../src/desk/evenWriting';
import { TestDesk } from './helpers/testDesk';

const evener = { evenOut: (...order: Parameters<typeof evenOut>) => Promise.resolve(evenOut(...order)) };

/** An upright letter whose foot is at a height; `at` is when it was begun, ms. */
const letter = (id: string, x: number, foot: number, at = 0, set: Partial<MarkOf<'stroke'>> = {}) =>
  aStroke({
    ...{ id, author: 'ada', createdAt: at },
    points: Array.from({ length: 12 }, (_, i) => [
      x + Math.sin(i),
      foot - 40 + (40 * i) / 11,
      0.5,
      20 * i,
    ]).flat(),
    ...set,
  });
const foot = (mark: Mark | undefined) =>
  mark?.kind === 'stroke' ? Math.max(...mark.points.filter((_, i) => i % 4 === 1)) : NaN;

describe('evening out writing', () => {
  const written = [
    letter('a', 100, 300),
    letter('b', 130, 309),
    letter('c', 160, 294),
    letter('d', 190, 304),
  ];

  it('is one step, of one’s own ink that is still there', async () => {
    const other = letter('other', 220, 312, 0, { author: 'bo' });
    const desk = new TestDesk([...written, other]);
    const slow = {
      evenOut: (...order: Parameters<typeof evenOut>) => {
        desk.target.perform([{ do: 'remove', mark: 'd' }]);
        return evener.evenOut(...order);
      },
    };
    await evenWriting(desk, [...written, other], slow);
    expect(desk.done).toHaveLength(2);
    const feet = ['a', 'b', 'c'].map((id) => foot(desk.mark(id)));
    expect(Math.max(...feet) - Math.min(...feet)).toBeLessThan(1);
    expect(desk.mark('d')).toBeUndefined();
    expect(desk.mark('other')).toEqual(other);
    desk.target.takeBack('step 2');
    expect(desk.mark('b')).toEqual(written[1]);
  });

  it('says so where nothing is written', async () => {
    const desk = new TestDesk([aShape({ id: 's' })]);
    await evenWriting(desk, [...desk.target.state.marks.values()], evener);
    expect(desk.problems).toHaveLength(1);
    expect(desk.done).toEqual([]);
  });

  it('knows what was just written: own ink, back to where the hand paused', () => {
    const before = letter('before', 10, 100, 0);
    const desk = new TestDesk([
      letter('b', 130, 300, 21_000),
      letter('a', 100, 300, 20_000),
      before,
      letter('other', 100, 500, 20_500, { author: 'bo' }),
      letter('c', 160, 300, 26_000),
    ]);
    expect(justWritten(desk).map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(justWritten(new TestDesk([]))).toEqual([]);
  });

  it('says so where what does it cannot be fetched, and leaves the ink as it is', async () => {
    const desk = new TestDesk([letter('a', 100, 300), letter('b', 130, 309)]);
    const marks = [...desk.target.state.marks.values()];
    await evenWriting(desk, marks, { evenOut: () => Promise.reject(new Error('offline')) });
    expect(desk.problems).toHaveLength(1);
    expect(desk.done).toEqual([]);
  });
});
