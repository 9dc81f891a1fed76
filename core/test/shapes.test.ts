import { describe, expect, it } from 'vitest';
import type { Mark, Transform } from '../src/index.js';
import {
  alignMoves,
  anchorAt,
  anchorPoint,
  bezierPoint,
  boxCorners,
  distributeMoves,
  flattenPath,
  followAnchors,
  hitBySweep,
  isMark,
  isMarkPatch,
  liesWithin,
  markBounds,
  paintMark,
  patchMark,
  polygonArea,
  rubOut,
  shapeCorners,
  shapePath,
  STRIDE,
  transformPatch,
  withGroups,
} from '../src/index.js';
import { aPath, aShape, aStroke, aText, common } from './helpers/marks.js';

describe('regular polygons', () => {
  // Inner angle of a regular n-gon: (n − 2)·180°/n (Euclid, Elements I.32 and its corollaries).
  it.each([3, 4, 5, 6, 7, 8, 9, 10, 11, 12])('with %i corners have inner angles of (n − 2)·180°/n', (n) => {
    const corners = shapeCorners({ form: 'polygon', sides: n, x: 0, y: 0, width: 100, height: 100 })!;
    corners.forEach(([x, y], i) => {
      const [a, b] = [corners[(i + 1) % n]!, corners[(i + n - 1) % n]!];
      const [ax, ay, bx, by] = [a[0] - x, a[1] - y, b[0] - x, b[1] - y];
      const angle = Math.acos((ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by)));
      expect((angle * 180) / Math.PI).toBeCloseTo(((n - 2) * 180) / n, 6);
    });
  });
});

describe('curves', () => {
  it('run through the points that Bernstein polynomials give (Farin, Curves and Surfaces, §4.1)', () => {
    const [p0, p1, p2, p3] = [
      [0, 0],
      [0, 2],
      [8, 2],
      [4, 0],
    ] as [number, number][];
    // Worked example there: the cubic's point at t = 1/2 is (7/2, 3/2).
    expect(bezierPoint([p0!, p1!, p2!, p3!], 0.5)).toEqual([3.5, 1.5]);
    for (const t of [0, 0.2, 0.7, 1]) {
      const u = 1 - t;
      const weight = [u ** 3, 3 * u * u * t, 3 * u * t * t, t ** 3];
      const [x, y] = bezierPoint([p0!, p1!, p2!, p3!], t);
      expect(x).toBeCloseTo(weight[1]! * 0 + weight[2]! * 8 + weight[3]! * 4, 10);
      expect(y).toBeCloseTo(weight[1]! * 2 + weight[2]! * 2, 10);
    }
  });

  it('draw an ellipse whose area is πab within 0.1 %', () => {
    const outline = flattenPath(
      shapePath({ form: 'ellipse', sides: 3, x: 0, y: 0, width: 200, height: 100 }),
      64,
    );
    expect(Math.abs(polygonArea(outline))).toBeCloseTo(Math.PI * 100 * 50, -2);
  });
});

describe('transforms', () => {
  const marks: Mark[] = [
    aStroke(),
    aText(),
    aShape({ rotation: 30 }),
    aPath(),
    {
      ...common(),
      kind: 'stamp',
      stamp: 'heart',
      label: '',
      flip: false,
      style: { colour: '#d55e00' },
      x: 5,
      y: 5,
      width: 40,
      height: 40,
      rotation: 0,
    },
    {
      ...common(),
      kind: 'note',
      text: 'Think',
      style: { colour: '#f0e442', font: 'andika' },
      x: 5,
      y: 5,
      width: 90,
      height: 90,
      rotation: 0,
    },
    {
      ...common(),
      kind: 'fill',
      rings: [[0, 0, 50, 0, 50, 50, 0, 50]],
      style: { colour: '#56b4e9', opacity: 0.5 },
    },
  ];
  const pairs: [Transform, Transform][] = [
    [
      { kind: 'move', dx: 30, dy: -12 },
      { kind: 'move', dx: -30, dy: 12 },
    ],
    [
      { kind: 'turn', degrees: 40, x: 100, y: 50 },
      { kind: 'turn', degrees: -40, x: 100, y: 50 },
    ],
    [
      { kind: 'resize', fx: 2, fy: 2, x: 0, y: 0 },
      { kind: 'resize', fx: 0.5, fy: 0.5, x: 0, y: 0 },
    ],
    [
      { kind: 'flip', vertical: false, x: 60, y: 0 },
      { kind: 'flip', vertical: false, x: 60, y: 0 },
    ],
    [
      { kind: 'flip', vertical: true, x: 0, y: 60 },
      { kind: 'flip', vertical: true, x: 0, y: 60 },
    ],
  ];
  it.each(pairs)('%o and back leave every kind of mark as it was', (there, back) => {
    for (const mark of marks) {
      const patch = transformPatch(mark, there);
      expect(isMarkPatch(mark.kind, patch)).toBe(true);
      const moved = patchMark(mark, patch);
      expect(isMark(moved)).toBe(true);
      const home = markBounds(patchMark(moved, transformPatch(moved, back)));
      const start = markBounds(mark);
      for (const side of ['x', 'y', 'width', 'height'] as const)
        expect(Math.abs(home[side] - start[side])).toBeLessThan(0.1);
    }
  });

  it('turn a box round the middle of the turn', () => {
    const shape = aShape({ x: 0, y: 0, width: 100, height: 50 });
    const turned = patchMark(shape, transformPatch(shape, { kind: 'turn', degrees: 90, x: 50, y: 25 }));
    const corners = boxCorners(turned as typeof shape);
    expect(corners[0]![0]).toBeCloseTo(75, 5);
    expect(corners[0]![1]).toBeCloseTo(-25, 5);
  });
});

describe('the rubber', () => {
  const line = Array.from({ length: 11 }, (_, i) => [i * 10, 0, i / 10, i * 10]).flat();
  const length = (points: readonly number[]) => {
    let sum = 0;
    for (let i = STRIDE; i < points.length; i += STRIDE)
      sum += Math.hypot(points[i]! - points[i - STRIDE]!, points[i + 1]! - points[i - STRIDE + 1]!);
    return sum;
  };

  it('takes exactly the length that lies under the tip', () => {
    const pieces = rubOut(line, { ax: 50, ay: -40, bx: 50, by: 40, radius: 6 })!;
    expect(pieces).toHaveLength(2);
    expect(length(pieces[0]!) + length(pieces[1]!)).toBeCloseTo(100 - 12, 6);
    expect(pieces[0]!.at(-4)).toBeCloseTo(44);
    expect(pieces[1]![0]).toBeCloseTo(56);
    // Pressure goes on between that of the neighbours.
    expect(pieces[0]!.at(-2)).toBeCloseTo(0.44);
  });

  it('leaves alone what it does not touch, and nothing of what it covers', () => {
    expect(rubOut(line, { ax: 50, ay: 20, bx: 90, by: 20, radius: 6 })).toBeUndefined();
    expect(rubOut(line, { ax: -20, ay: 0, bx: 120, by: 0, radius: 6 })).toEqual([]);
    expect(rubOut([5, 5, 0.5, 0], { ax: 0, ay: 5, bx: 9, by: 5, radius: 2 })).toEqual([]);
  });

  it('makes pieces that are strokes again', () => {
    for (const points of rubOut(line, { ax: 31, ay: 3, bx: 33, by: -3, radius: 4 })!) {
      expect(isMark(aStroke({ points }))).toBe(true);
    }
  });
});

describe('selecting', () => {
  it('takes what lies mainly within the lasso, and groups whole', () => {
    const [inside, outside] = [aShape({ group: 'g' }), aShape({ x: 900, group: 'g' })];
    const lasso: [number, number][] = [
      [50, 50],
      [400, 50],
      [400, 300],
      [50, 300],
    ];
    expect(liesWithin(inside, lasso)).toBe(true);
    expect(liesWithin(outside, lasso)).toBe(false);
    expect(withGroups([inside], [inside, outside])).toEqual([inside, outside]);
  });

  it('hits lines, and insides only where they are filled', () => {
    const hollow = aShape({ style: { ...aShape().style, fill: null } });
    expect(hitBySweep(hollow, 200, 160, 200, 160, 3)).toBe(false);
    expect(hitBySweep(aShape(), 200, 160, 200, 160, 3)).toBe(true);
    expect(hitBySweep(hollow, 100, 160, 100, 160, 3)).toBe(true);
  });

  it('lines up and spreads evenly', () => {
    const shapes = [aShape({ x: 0 }), aShape({ x: 210 }), aShape({ x: 700 })];
    const lefts = alignMoves(shapes, 'left').map(({ dx }, i) => markBounds(shapes[i]!).x + dx);
    expect(new Set(lefts).size).toBe(1);
    const spread = distributeMoves(shapes, 'x').map(({ dx }, i) => shapes[i]!.x + dx);
    expect(spread[1]! - spread[0]!).toBeCloseTo(spread[2]! - spread[1]!);
  });
});

describe('connectors', () => {
  it('stay where they stick when the mark is moved and turned', () => {
    const shape = aShape();
    const anchor = anchorAt(shape, 300, 160)!;
    expect(anchor).toEqual({ mark: shape.id, x: 1, y: 0.5 });
    const moved = patchMark(shape, transformPatch(shape, { kind: 'turn', degrees: 90, x: 200, y: 160 }));
    const [x, y] = anchorPoint(anchor, moved)!;
    expect(x).toBeCloseTo(200);
    expect(y).toBeCloseTo(260);
    const patch = followAnchors(aPath({ to: anchor }), () => moved)!;
    expect(patch.points!.slice(-2)).toEqual([200, 260]);
    expect(followAnchors(aPath(), () => undefined)).toBeUndefined();
  });
});

describe('painting', () => {
  it('draws an arrow with a filled head at its end, a curve with its head along the tangent', () => {
    const heads = paintMark(aPath({ heads: 'both' })).filter((item) => item.kind === 'fill');
    expect(heads).toHaveLength(2);
    const curve = aPath({ course: 'quadratic', points: [0, 0, 100, 0, 100, 100], heads: 'end' });
    const head = paintMark(curve).find((item) => item.kind === 'fill')!;
    const [, [, ax], [, bx]] = head.path as unknown as [unknown, [string, number], [string, number]];
    expect((ax + bx) / 2).toBeCloseTo(100, 0);
  });

  it('marks items of a list, aligns and underlines', () => {
    const style = { ...aText().style, list: 'numbers', align: 'right', underline: true } as const;
    const items = paintMark(aText({ text: 'one\ntwo', style }));
    const texts = items.flatMap((item) => (item.kind === 'text' ? [item.text] : []));
    expect(texts).toEqual(['1.', 'one', '2.', 'two']);
    expect(items.filter((item) => item.kind === 'line')).toHaveLength(2);
  });
});
