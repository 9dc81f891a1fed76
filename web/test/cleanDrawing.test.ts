import type { MarkOf } from '@doodla/core';
import type { LineDrawing } from '@doodla/core/drawings';
import { boundsOf } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { aShape, aStroke } from '../../core/test/helpers/marks';
import type { DrawingFinder } from '../src/desk/cleanDrawing';
import { asDrawn, offerDrawings, takeDrawing } from '../src/desk/cleanDrawing';
import type { DrawingName } from '../src/desk/lineDrawings';
import { drawingsNamed } from '../src/desk/lineDrawings';
import type { DrawingOffer } from '../src/desk/shapeOffer';
import { TestDesk } from './helpers/testDesk';

const style = { nature: 'highlighter', colour: '#0072b2', width: 6, opacity: 0.5 } as const;
const ink = [
  aStroke({ id: 'a', space: 'table:2', style, points: [100, 100, 0.5, 0, 200, 120, 0.5, 20] }),
  aStroke({ id: 'b', points: [100, 150, 0.5, 0, 200, 200, 0.5, 20] }),
];
const tent: LineDrawing = {
  id: 'tent',
  lines: [
    { closed: true, points: [0, 100, 50, 0, 100, 100] },
    { closed: false, points: [50, 0, 50, 100] },
  ],
};
const pole: LineDrawing = { id: 'pole', lines: [{ closed: false, points: [0, 0, 0, 100] }] };
const finds: DrawingFinder = () => Promise.resolve([tent, pole]);
const offerOf = (desk: TestDesk) => desk.shapeOffer.get() as DrawingOffer;
const marksOn = (desk: TestDesk) => [...desk.target.state.marks.values()];

describe('clean drawings for what was drawn roughly', () => {
  it('are offered in their order, and nothing is changed by that', async () => {
    const desk = new TestDesk([...ink, aShape({ id: 'other' })]);
    await offerDrawings(desk, [...ink, aShape({ id: 'other' })], finds);
    expect(offerOf(desk)).toMatchObject({ ink, drawings: [tent, pole] });
    expect(desk.done).toEqual([]);
  });

  it('take the place, size and colour of the ink in one step, as a group with a name, and give way to another', async () => {
    const desk = new TestDesk(ink);
    await offerDrawings(desk, ink, finds);
    takeDrawing(desk, offerOf(desk), tent, 'Tent');
    expect(desk.done).toHaveLength(1);
    const [outline, line] = marksOn(desk) as [MarkOf<'path'>, MarkOf<'stroke'>];
    expect(outline).toMatchObject({
      kind: 'path',
      closed: true,
      space: 'table:2',
      alt: 'Tent',
      locked: false,
    });
    expect(line).toMatchObject({ kind: 'stroke', space: 'table:2', alt: null, group: outline.group });
    expect(line.style).toEqual({ ...style, nature: 'pen' });
    expect(outline.group).not.toBeNull();
    expect(outline.order < line.order).toBe(true);
    const bounds = boundsOf([outline, line])!;
    expect(bounds.x + bounds.width / 2).toBeCloseTo(150, -1);
    expect(bounds.y + bounds.height / 2).toBeCloseTo(150, -1);
    expect(bounds.width).toBeGreaterThan(100);
    expect(bounds.width).toBeLessThan(125);

    takeDrawing(desk, offerOf(desk), pole, 'Pole');
    expect(marksOn(desk)).toMatchObject([{ kind: 'stroke', alt: 'Pole', group: null }]);
    expect(offerOf(desk).taken).toMatchObject({ drawing: 'pole' });
    asDrawn(desk, offerOf(desk));
    expect(ink.map(({ id }) => desk.mark(id))).toEqual(ink);
    expect(marksOn(desk)).toHaveLength(2);
    expect(desk.shapeOffer.get()).toBeUndefined();
  });

  it('leave the ink where they may not take its place', async () => {
    const desk = new TestDesk(ink);
    await offerDrawings(desk, ink, finds);
    desk.refuses = true;
    takeDrawing(desk, offerOf(desk), tent, 'Tent');
    expect(marksOn(desk)).toEqual(ink);
    expect(offerOf(desk).taken).toBeUndefined();
  });

  it('are not offered for ink that is gone, and what cannot be is said', async () => {
    const desk = new TestDesk([ink[0]!]);
    await offerDrawings(desk, ink, finds);
    expect(desk.shapeOffer.get()).toBeUndefined();
    await offerDrawings(desk, ink, () => Promise.resolve([]));
    await offerDrawings(desk, ink, () => Promise.reject(new Error('offline')));
    expect(desk.problems).toEqual([
      expect.stringContaining('nothing in this that could be a drawing'),
      expect.stringContaining('could not be fetched'),
    ]);
  });
});

describe('drawings by word', () => {
  const names: readonly DrawingName[] = [
    ['bike', 'bicycle', 'wheel ride'],
    ['ship-wheel', 'ship wheel', 'steer'],
    ['tent', 'tent', 'camp'],
  ];

  it('are those of all words, best names first, and all of them without one', () => {
    expect(drawingsNamed(names, 'wheel').map(([id]) => id)).toEqual(['ship-wheel', 'bike']);
    expect(drawingsNamed(names, 'wheel ride').map(([id]) => id)).toEqual(['bike']);
    expect(drawingsNamed(names, ' ')).toEqual(names);
    expect(drawingsNamed(names, 'zebra')).toEqual([]);
  });
});
