import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Path } from '../src/index.js';
import { curvesOfRing, fewerCurves, outline, outlineCorners } from '../src/index.js';

type Point = [number, number];

/** Points of a path, `count` for each curve, by the curves' definitions (SVG 2 §9.3.6 and §9.3.7). */
function pointsOf(path: Path, count: number): Point[] {
  const points: Point[] = [];
  let [x, y] = [0, 0];
  for (const [letter, ...n] of path) {
    const ends = [[x, y], ...chunks(n)] as Point[];
    for (let i = 1; i <= count && ends.length > 2; i++) points.push(casteljau(ends, i / count));
    if (letter === 'M' || letter === 'L') points.push(ends[1]!);
    if (letter !== 'Z') [x, y] = ends.at(-1)!;
  }
  return points;
}

function chunks(flat: readonly number[]): Point[] {
  return Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i]!, flat[2 * i + 1]!]);
}

/** De Casteljau's algorithm. */
function casteljau(points: readonly Point[], t: number): Point {
  if (points.length === 1) return points[0]!;
  const next = points
    .slice(1)
    .map(([x, y], i): Point => [points[i]![0] * (1 - t) + x * t, points[i]![1] * (1 - t) + y * t]);
  return casteljau(next, t);
}

/** How far the farthest of some points lies from a line through others. */
function farthest(points: readonly Point[], line: readonly Point[]): number {
  return Math.max(
    ...points.map((point) => Math.min(...line.slice(1).map((b, i) => distance(point, line[i]!, b)))),
  );
}

function distance([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}

const hand = fc
  .array(fc.tuple(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true })), {
    minLength: 3,
    maxLength: 40,
  })
  .map((steps) => {
    let [x, y] = [100, 100];
    return steps.flatMap(([dx, dy], i) => [(x += dx), (y += dy), 0.3 + 0.4 * Math.abs(Math.sin(i)), i * 16]);
  });

describe('fewer curves', () => {
  it('lie within the tolerance of those they stand for, whatever a hand draws', () => {
    fc.assert(
      fc.property(hand, (points) => {
        const path = outline({ points, style: { nature: 'pen', width: 4 } });
        const fewer = fewerCurves(path, 0.03);
        const [before, after] = [pointsOf(path, 8), pointsOf(fewer, 24)];
        expect(farthest(before, after)).toBeLessThan(0.08);
        expect(farthest(after, before)).toBeLessThan(0.08);
        expect(fewer.length).toBeLessThanOrEqual(path.length);
      }),
      { numRuns: 60 },
    );
  });

  it('are a third or less of what a hand’s stroke has', () => {
    const points = Array.from({ length: 60 }, (_, i) => [
      i * 2,
      20 * Math.sin(i / 9),
      0.5 + 0.2 * Math.sin(i / 7),
      i * 16,
    ]).flat();
    const path = outline({ points, style: { nature: 'pen', width: 4 } });
    expect(fewerCurves(path, 0.03).length).toBeLessThan(path.length / 3);
  });

  it('is the very same curve where there is one alone, raised in degree', () => {
    const fewer = fewerCurves(
      [
        ['M', 1, 2],
        ['Q', 5, 9, 11, 3],
      ],
      0.03,
    );
    expect(fewer.map(([letter]) => letter)).toEqual(['M', 'C']);
    const one = pointsOf(
      [
        ['M', 1, 2],
        ['Q', 5, 9, 11, 3],
      ],
      10,
    );
    pointsOf(fewer, 10).forEach(([x, y], i) => {
      expect(x).toBeCloseTo(one[i]![0], 10);
      expect(y).toBeCloseTo(one[i]![1], 10);
    });
  });

  it('are the same for the ring of the corners as for the path of it', () => {
    fc.assert(
      fc.property(hand, (points) => {
        const ink = { points, style: { nature: 'pen', width: 4 } } as const;
        const ring = outlineCorners(ink);
        fc.pre(ring.length >= 3);
        const curves = fewerCurves(outline(ink), 0.08).filter(([letter]) => letter === 'C');
        expect([...curvesOfRing(ring, 0.08)]).toEqual(curves.flatMap(([, ...numbers]) => numbers));
      }),
      { numRuns: 40 },
    );
  });

  it('leaves lines, cubic curves and ends of outlines as they are', () => {
    const path: Path = [['M', 0, 0], ['L', 9, 0], ['C', 1, 2, 3, 4, 5, 6], ['Z'], ['M', 3, 3], ['L', 4, 4]];
    expect(fewerCurves(path, 0.5)).toEqual(path);
  });

  it('keeps corners and a run that goes nowhere', () => {
    const path: Path = [
      ['M', 0, 0],
      ['Q', 10, 0, 20, 0],
      ['Q', 20, 10, 20, 20],
      ['Q', 20, 20, 20, 20],
      ['Z'],
    ];
    const corner = pointsOf(fewerCurves(path, 0.03), 20);
    expect(farthest([[20, 0]], corner)).toBeLessThan(0.03);
  });
});
