import { describe, expect, it } from 'vitest';
import { pourChanges } from '../src/fill/pourChanges.js';
import type { Change, FillMark, Mark, ShapeMark } from '../src/index.js';
import { applyChanges, emptyState } from '../src/index.js';
import { common, LINE_STYLE, aStroke } from './helpers/marks.js';

const square = (x: number, y: number, side: number) => [x, y, x + side, y, x + side, y + side, x, y + side];

function aFill(rings: number[][], set: Partial<FillMark> = {}): FillMark {
  return { ...common(), kind: 'fill', rings, style: { colour: '#56b4e9', opacity: 0.55 }, ...set };
}

function aShape(set: Partial<ShapeMark> = {}): ShapeMark {
  return {
    ...common(),
    kind: 'shape',
    form: 'rectangle',
    sides: 5,
    x: 100,
    y: 100,
    width: 100,
    height: 100,
    rotation: 0,
    flip: false,
    style: { ...LINE_STYLE, fill: null },
    ...set,
  };
}

const aPicture = (set: Partial<Mark> = {}): Mark =>
  ({
    ...common(),
    kind: 'picture',
    material: 'm',
    x: 0,
    y: 0,
    width: 500,
    height: 500,
    rotation: 0,
    flip: false,
    crop: { x: 0, y: 0, width: 1, height: 1 },
    style: { opacity: 1 },
    ...set,
  }) as Mark;

const pour = (
  rings: number[][],
  at: [number, number],
  marks: Mark[],
  may: (mark: Mark) => boolean = () => true,
) => pourChanges(aFill(rings, { style: { colour: '#009e73', opacity: 0.55 } }), at, marks, may);

const kinds = (changes: Change[]) => changes.map((change) => change.do);

describe('pouring colour', () => {
  it('gives a shape that is poured full its filling, which goes where it goes', () => {
    const shape = aShape();
    expect(pour([square(101, 101, 98)], [150, 150], [shape])).toEqual([
      { do: 'patch', mark: shape.id, set: { style: { fill: '#009e73' } } },
    ]);
    const turned = aShape({ rotation: 45 });
    expect(kinds(pour([[150, 80, 220, 150, 150, 220, 80, 150]], [150, 90], [turned]))).toEqual(['patch']);
  });

  it('fills the part of a shape that a line cuts off, over the shape’s own filling', () => {
    const shape = aShape({ order: 'a1', style: LINE_STYLE });
    const line = aStroke({ order: 'a2' });
    const [change] = pour([[101, 101, 150, 101, 150, 199, 101, 199]], [120, 150], [shape, line]);
    expect(change).toMatchObject({ do: 'add', mark: { kind: 'fill' } });
    const { order } = (change as { mark: Mark }).mark;
    expect('a1' < order && order < 'a2').toBe(true);
  });

  it('lies over a picture that it is poured on, and under all else', () => {
    const picture = aPicture({ order: 'a1' });
    const ink = [aStroke({ order: 'a0' }), aStroke({ order: 'a2' })];
    const order = (marks: Mark[]) =>
      (pour([square(10, 10, 50)], [20, 20], marks)[0] as { mark: Mark }).mark.order;
    expect(order([ink[0]!, picture, ink[1]!]) > 'a1').toBe(true);
    expect(order([ink[0]!, picture, ink[1]!]) < 'a2').toBe(true);
    expect(order(ink) < 'a0').toBe(true);
  });

  it('takes the place of what was poured there before, also by the filling of a shape', () => {
    const before = aFill([square(10, 10, 50)]);
    const again = pour([square(10, 10, 50)], [20, 20], [before]);
    expect(kinds(again)).toEqual(['remove', 'add']);
    const shape = aShape();
    expect(kinds(pour([square(101, 101, 98)], [150, 150], [aFill([square(101, 101, 98)]), shape]))).toEqual([
      'remove',
      'patch',
    ]);
  });

  it('cuts its part out of a larger one that was poured before', () => {
    const before = aFill([square(0, 0, 100)]);
    const state = emptyState();
    state.marks.set(before.id, before);
    applyChanges(state, pour([square(0, 0, 40)], [20, 20], [before]));
    const [old, made] = [...state.marks.values()] as FillMark[];
    expect(old!.rings).toEqual([square(0, 0, 100), square(0, 0, 40)]);
    expect(made).toMatchObject({ rings: [square(0, 0, 40)] });
    // Poured once more where it was cut out, the larger is left alone.
    expect(kinds(pour([square(0, 0, 40)], [20, 20], [old!, made!]))).toEqual(['remove', 'add']);
  });

  it('leaves alone what is not one’s own', () => {
    const [shape, before] = [aShape(), aFill([square(101, 101, 98)])];
    expect(kinds(pour([square(101, 101, 98)], [150, 150], [before, shape], () => false))).toEqual(['add']);
  });

  it('leaves a hole where there is one, and counts it', () => {
    const shape = aShape();
    const ring = pour([square(101, 101, 98), square(110, 110, 80)], [105, 150], [shape]);
    expect(kinds(ring)).toEqual(['add']);
  });
});
