import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Edge, Point } from '../src/construct/index.js';
import {
  beginAlike,
  cornersOfMark,
  crossingOf,
  dividing,
  edgesOf,
  footOf,
  leading,
  SnapField,
  strings,
  ticks,
} from '../src/construct/index.js';
import { aPath, aShape, aStroke, common } from './helpers/marks.js';

const number = fc.integer({ min: -400, max: 400 });
const point = fc.tuple(number, number) as fc.Arbitrary<Point>;
const edge = fc
  .tuple(point, point)
  .filter(([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 20) as fc.Arbitrary<Edge>;
const far = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

describe('dividing an edge', () => {
  it('makes parts that are all alike, by as many points as are needed', () => {
    fc.assert(
      fc.property(edge, fc.integer({ min: 2, max: 40 }), (line, n) => {
        const places = [line[0], ...dividing(line, n), line[1]];
        expect(places).toHaveLength(n + 1);
        for (let i = 1; i <= n; i++) expect(far(places[i]!, places[i - 1]!)).toBeCloseTo(far(...line) / n, 6);
        for (const [a, b] of ticks(line, n, 10)) {
          expect(far(a, b)).toBeCloseTo(10, 6);
          const across =
            (b[0] - a[0]) * (line[1][0] - line[0][0]) + (b[1] - a[1]) * (line[1][1] - line[0][1]);
          expect(Math.abs(across)).toBeLessThan(1e-6 * far(...line) * 10);
        }
      }),
    );
  });
});

describe('joining equally spaced points of two edges', () => {
  it('touches the parabola that has the edges as tangents (its quadratic Bézier curve, de Casteljau 1959)', () => {
    fc.assert(
      fc.property(point, point, point, fc.integer({ min: 2, max: 24 }), (a, corner, b, n) => {
        fc.pre(far(a, corner) > 30 && far(b, corner) > 30);
        const lines = strings([a, corner], [corner, b], n, false);
        for (const line of lines) {
          // The string from the part t of one to the part t of the other touches the curve at t.
          const t = far(a, line[0]) / far(a, corner);
          const at = (axis: 0 | 1) =>
            (1 - t) ** 2 * a[axis] + 2 * t * (1 - t) * corner[axis] + t * t * b[axis];
          const { foot } = footOf(line, [at(0), at(1)]);
          expect(far(foot, [at(0), at(1)])).toBeLessThan(1e-6);
        }
      }),
    );
  });

  it('knows edges that would be joined round the corner where they begin', () => {
    expect(beginAlike([[0, 0], [100, 0]], [[3, 4], [0, 100]])).toBe(true); // prettier-ignore
    expect(beginAlike([[100, 0], [0, 0]], [[0, 100], [0, 0]])).toBe(true); // prettier-ignore
    expect(beginAlike([[100, 0], [0, 0]], [[0, 0], [0, 100]])).toBe(false); // prettier-ignore
  });

  it('takes the second edge the other way round where that is wanted, and leaves out what has no length', () => {
    const [first, second]: [Edge, Edge] = [[[0, 0], [100, 0]], [[0, 0], [0, 100]]]; // prettier-ignore
    expect(strings(first, second, 2, false)).toEqual([
      [[50, 0], [0, 50]],
      [[100, 0], [0, 100]],
    ]); // prettier-ignore
    expect(strings(first, second, 2, true)).toEqual([
      [[0, 0], [0, 100]],
      [[50, 0], [0, 50]],
      [[100, 0], [0, 0]],
    ]); // prettier-ignore
  });
});

describe('leading corners to a vanishing point', () => {
  it('draws one line from each corner, all of which end there', () => {
    const box = aShape({ form: 'rectangle', x: 0, y: 0, width: 40, height: 20, rotation: 0, flip: false });
    const lines = leading(cornersOfMark(box), [200, 200]);
    expect(lines.map(([from]) => from)).toEqual([[0, 0], [40, 0], [40, 20], [0, 20]]); // prettier-ignore
    expect(lines.every(([, to]) => to[0] === 200 && to[1] === 200)).toBe(true);
    expect(leading([[5, 5]], [5, 5])).toEqual([]);
  });
});

describe('edges', () => {
  it('are those of lines and shapes; ink and curves have none', () => {
    expect(edgesOf(aPath({ course: 'straight', closed: false, points: [0, 0, 9, 0, 9, 9] }))).toHaveLength(2);
    expect(edgesOf(aPath({ course: 'straight', closed: true, points: [0, 0, 9, 0, 9, 9] }))).toHaveLength(3);
    expect(edgesOf(aShape({ form: 'polygon', sides: 6 }))).toHaveLength(6);
    for (const mark of [
      aStroke(),
      aShape({ form: 'ellipse' }),
      aPath({ course: 'quadratic', points: [0, 0, 5, 5, 9, 0] }),
    ])
      expect(edgesOf(mark)).toEqual([]);
  });

  it('cross where both equations say, by Cramer’s rule', () => {
    fc.assert(
      fc.property(edge, edge, (first, second) => {
        const at = crossingOf(first, second, false);
        fc.pre(at !== undefined && Math.hypot(...at) < 1e5);
        for (const [a, b] of [first, second])
          expect(
            Math.abs((b[0] - a[0]) * (at[1] - a[1]) - (b[1] - a[1]) * (at[0] - a[0])) / far(a, b),
          ).toBeLessThan(1e-3);
      }),
    );
    expect(crossingOf([[0, 0], [9, 0]], [[0, 5], [9, 5]], false)).toBeUndefined(); // prettier-ignore
    expect(crossingOf([[0, 0], [9, 0]], [[20, -5], [20, 5]], true)).toBeUndefined(); // prettier-ignore
  });
});

describe('a line that is drawn', () => {
  const right = aPath({ course: 'straight', closed: true, points: [100, 100, 300, 100, 100, 300] });
  const across = aPath({ course: 'straight', closed: false, points: [50, 150, 350, 150] });
  const circle = aShape({
    form: 'ellipse',
    x: 500,
    y: 500,
    width: 100,
    height: 100,
    rotation: 0,
    flip: false,
  });
  const field = new SnapField([right, across, circle]);
  const snap = (place: Point, start?: Point) => field.snap(place, 10, start);

  it('goes to corners, crossings, middles and centres near it, a corner first', () => {
    expect(snap([104, 97])).toEqual({ kind: 'corner', at: [100, 100] });
    expect(snap([97, 154])).toEqual({ kind: 'crossing', at: [100, 150] });
    expect(snap([203, 104])).toEqual({ kind: 'middle', at: [200, 100] });
    expect(snap([546, 553])).toEqual({ kind: 'centre', at: [550, 550] });
    expect(snap([430, 430])).toBeUndefined();
  });

  it('goes to where circuit symbols join, and to no place of another drawing', () => {
    const symbol = (figure: string) => ({
      ...common(),
      ...({ kind: 'plot', x: 600, y: 100, width: 160, height: 100, rotation: 90 } as const),
      recipe: `{"figure":"${figure}","values":{}}`,
      drawing: { width: 160, height: 100, parts: [] },
      style: { opacity: 1 },
    });
    const near = (figure: string) => new SnapField([symbol(figure)]).snap([684, 73], 10);
    expect(near('circuit')).toEqual({ kind: 'corner', at: [expect.closeTo(680), expect.closeTo(70)] });
    expect(near('clock')).toBeUndefined();
  });

  it('meets an edge at a right angle, leaves one at a right angle, halves an angle, runs along an edge', () => {
    expect(snap([264, 96], [260, 40])).toMatchObject({
      kind: 'foot',
      at: [expect.closeTo(260, 6), expect.closeTo(100, 6)],
    });
    expect(snap([144, 20], [140, 100])).toMatchObject({
      kind: 'perpendicular',
      at: [expect.closeTo(140, 6), expect.closeTo(20, 6)],
    });
    const half = snap([152, 148], [100, 100])!;
    expect(half.kind).toBe('bisector');
    expect(half.at[0]).toBeCloseTo(half.at[1], 6);
    const along = snap([460, 245], [600, 100])!;
    expect(along.kind).toBe('parallel');
    expect(along.at[0] + along.at[1]).toBeCloseTo(700, 6);
  });

  it('takes no direction while it is too short to have one', () => {
    expect(snap([612, 104], [600, 100])).toBeUndefined();
  });
});
