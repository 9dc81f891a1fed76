import type { Actor, Mark, MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { aShape, aStroke, aText, LINE_STYLE } from '../../core/test/helpers/marks';
import { placeMarks } from '../src/shelf/placeMarks';
import { Selection } from '../src/desk/selection';
import { TestDesk } from './helpers/testDesk';

const TEACHER: Actor = { id: 'teacher', role: 'teacher', tables: [] };

/** Three boxes in a row, lowest first. */
const boxes = () =>
  ['a', 'b', 'c'].map((id, i) =>
    aShape({ id, order: `a${i}`, x: 100 + 220 * i, y: 100 + 30 * i, width: 100 }),
  );

function selecting(marks: readonly Mark[], ids: readonly string[], actor?: Actor) {
  const desk = new TestDesk(marks, actor);
  const selection = new Selection(desk);
  selection.select(ids);
  return { desk, selection };
}

const pile = (desk: TestDesk) => desk.targetMarks.all().map(({ id }) => id);

describe('what is selected', () => {
  it('is moved, resized and turned as one step; what may not be touched stays', () => {
    const marks = [...boxes(), aShape({ id: 'other', author: 'bo' }), aShape({ id: 'shut', locked: true })];
    const { desk, selection } = selecting(marks, ['a', 'b', 'other', 'shut']);
    selection.apply({ kind: 'move', dx: 5, dy: -5 });
    expect(desk.done).toEqual([
      [
        { do: 'patch', mark: 'a', set: { x: 105, y: 95 } },
        { do: 'patch', mark: 'b', set: { x: 325, y: 125 } },
      ],
    ]);
  });

  it('may be what is locked, for a teacher, who can unlock it', () => {
    const { desk, selection } = selecting([aShape({ id: 'shut', locked: true })], [], TEACHER);
    selection.selectAll();
    selection.apply({ kind: 'move', dx: 5, dy: 5 });
    expect(desk.done).toEqual([]);
    selection.setLocked(false);
    selection.apply({ kind: 'move', dx: 5, dy: 5 });
    expect(desk.mark('shut')).toMatchObject({ locked: false, x: 105 });
  });

  it('takes lines along that stick to it', () => {
    const line: MarkOf<'path'> = {
      ...aStroke({ id: 'line' }),
      kind: 'path',
      course: 'straight',
      points: [200, 160, 320, 190],
      closed: false,
      heads: 'end',
      from: { mark: 'a', x: 1, y: 0.5 },
      to: { mark: 'b', x: 0, y: 0.5 },
      style: LINE_STYLE,
    };
    const { desk, selection } = selecting([...boxes(), line], ['a']);
    selection.apply({ kind: 'move', dx: 0, dy: 50 });
    expect(desk.done).toHaveLength(1);
    const { points } = desk.mark('line') as MarkOf<'path'>;
    expect(points.slice(0, 2)).toEqual([200, 210]);
    expect(points.slice(2)).toEqual([320, 190]);
  });

  it('is copied with ids, groups and an author of its own, and the copies are selected', () => {
    const [first, second] = boxes();
    const grouped = [
      { ...first!, group: 'g', author: 'bo' },
      { ...second!, group: 'g', author: 'bo' },
    ];
    const { desk, selection } = selecting(grouped, ['a', 'b']);
    selection.duplicate();
    const copies = selection.marks();
    expect(copies).toHaveLength(2);
    expect(copies.map(({ author }) => author)).toEqual(['ada', 'ada']);
    expect(copies[0]!.group).not.toBe('g');
    expect(copies[0]!.group).toBe(copies[1]!.group);
    expect(new Set(pile(desk)).size).toBe(4);
    expect(copies[0]).toMatchObject({ x: 124, y: 124 });
  });

  it('stays selected where pens went down before it could be taken away', () => {
    const { desk, selection } = selecting(boxes(), ['a']);
    desk.refuses = true;
    selection.remove();
    expect([...selection.ids.get()]).toEqual(['a']);
    desk.refuses = false;
    selection.remove();
    expect(selection.ids.get().size).toBe(0);
    expect(pile(desk)).toEqual(['b', 'c']);
  });

  it.each([
    ['front', ['b', 'c', 'a']],
    ['up', ['b', 'a', 'c']],
    ['down', ['a', 'b', 'c']],
  ] as const)('goes %s in the pile', (to, order) => {
    const { desk, selection } = selecting(boxes(), ['a']);
    selection.reorder(to);
    expect(pile(desk)).toEqual(order);
  });

  it('is lined up, given the same gaps, and repeated in a row and a ring', () => {
    const { desk, selection } = selecting(boxes(), ['a', 'b', 'c']);
    selection.align('top');
    const tops = () => selection.marks().map((mark) => markBounds(mark).y);
    expect(new Set(tops()).size).toBe(1);
    selection.nudge(0, 40);
    selection.distribute('x');
    const lefts = selection.marks().map((mark) => markBounds(mark).x);
    expect(lefts[1]! - lefts[0]!).toBeCloseTo(lefts[2]! - lefts[1]!, 1);
    selection.select(['a']);
    selection.repeatInRow(4);
    expect(pile(desk)).toHaveLength(6);
    selection.select(['a']);
    selection.repeatInRing(5);
    expect(pile(desk)).toHaveLength(10);
  });

  it('is pasted aside on its own page, and not where the clipboard holds something else', () => {
    const { desk, selection } = selecting([aText({ id: 'a', text: 'beam' })], ['a']);
    selection.copy();
    expect(selection.paste('a headline')).toBe(false);
    expect(selection.paste('beam')).toBe(true);
    expect(selection.marks()).toMatchObject([{ text: 'beam', x: 74, y: 84 }]);
    desk.pageId.set('another');
    expect(selection.paste('')).toBe(true);
    expect(selection.marks()).toMatchObject([{ x: 50, y: 60 }]);
  });

  it('is what was put there from elsewhere, about a point and no larger than the page', () => {
    const { desk, selection } = selecting([], []);
    const { page } = desk;
    const placing = { page, selection, extentOf: () => ({ x: 0, y: 0, ...page }) };
    const from = [
      aShape({ id: 'a', author: 'bo', x: 0, y: 0, width: 100, height: 100 }),
      aShape({ id: 'b', author: 'bo', x: 1500, y: 0, width: 100, height: 100 }),
    ];
    expect(placeMarks(placing, from, { x: 400, y: 300 })).toBe(true);
    expect(desk.done).toHaveLength(1);
    const [left, right] = selection.marks();
    expect(left).toMatchObject({ author: 'ada', kind: 'shape' });
    // Half as large; the width of its line stays as it is.
    expect(left).toMatchObject({ height: expect.closeTo(50, 0) as number });
    expect(right!.id).not.toBe('b');
    const bounds = selection.bounds()!;
    expect(bounds.width).toBeLessThan(800 + 2 * LINE_STYLE.width);
    expect(bounds.x + bounds.width / 2).toBeCloseTo(400, 1);
    expect(placeMarks(placing, [], { x: 0, y: 0 })).toBe(false);
    desk.refuses = true;
    expect(placeMarks(placing, from, { x: 0, y: 0 })).toBe(false);
  });

  it('takes on a style as far as it has such a thing; letters no longer differ in it', () => {
    const parts = [
      { from: 0, to: 2, bold: true },
      { from: 2, to: 4, colour: '#d55e00', scale: 2 },
    ];
    const marks = [aText({ id: 't', text: 'beam', parts }), aShape({ id: 's' }), aStroke({ id: 'i' })];
    const { desk, selection } = selecting(marks, ['t', 's', 'i']);
    selection.restyle({ bold: true });
    expect(desk.done).toEqual([
      [
        {
          do: 'patch',
          mark: 't',
          set: { style: { bold: true }, parts: [{ from: 2, to: 4, colour: '#d55e00', scale: 2 }] },
        },
      ],
    ]);
    selection.recolour('#009e73');
    expect(desk.mark('t')).toMatchObject({
      style: { colour: '#009e73' },
      parts: [{ from: 2, to: 4, scale: 2 }],
    });
    expect(desk.mark('s')).toMatchObject({ style: { line: '#009e73', fill: LINE_STYLE.fill } });
    expect(desk.mark('i')).toMatchObject({ style: { colour: '#009e73' } });
  });

  it('goes on to the next mark, round and round', () => {
    const { selection } = selecting(boxes(), []);
    const chosen = () => [...selection.ids.get()].join();
    const steps = [1, 1, 1, 1, -1].map((by) => (selection.step(by as 1 | -1), chosen()));
    expect(steps).toEqual(['a', 'b', 'c', 'a', 'c']);
  });
});
