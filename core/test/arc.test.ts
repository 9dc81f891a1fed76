import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arcPath, arcPoint, arcThrough } from '../src/geometry/arc.js';
import { bezierPoint } from '../src/geometry/path.js';

const place = fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 }));

/** Points on the curves of a path. */
function pointsOn(path: ReturnType<typeof arcPath>): [number, number][] {
  let at: [number, number] = [0, 0];
  return path.flatMap((step): [number, number][] => {
    const numbers = step.slice(1) as number[];
    const start = at;
    at = numbers.slice(-2) as [number, number];
    if (step[0] !== 'C') return [at];
    const controls: [number, number][] = [start, [numbers[0]!, numbers[1]!], [numbers[2]!, numbers[3]!], at];
    return Array.from({ length: 12 }, (_, i) => bezierPoint(controls, (i + 1) / 12));
  });
}

describe('the part of a circle through three points', () => {
  it('keeps the same distance from one middle, goes through all three and ends at the last', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, c) => {
        const arc = arcThrough(a, b, c);
        fc.pre(arc !== undefined && arc.radius < 1e5);
        const points = pointsOn(arcPath(a, b, c));
        for (const [x, y] of points)
          expect(Math.abs(Math.hypot(x - arc.x, y - arc.y) - arc.radius)).toBeLessThan(
            0.0003 * arc.radius + 1e-6,
          );
        expect(points[0]).toEqual(a);
        expect(points.at(-1)).toEqual(c);
        // By the angle at the circumference: b is on the drawn side.
        const parts = Array.from({ length: 2001 }, (_, i) => arcPoint(arc, i / 2000));
        const nearest = Math.min(...parts.map(([x, y]) => Math.hypot(x - b[0], y - b[1])));
        expect(nearest).toBeLessThan((Math.abs(arc.sweep) * arc.radius) / 2000 + 1e-6);
      }),
    );
  });

  it('is straight where they lie on a line', () => {
    expect(arcThrough([0, 0], [1, 1], [2, 2])).toBeUndefined();
    expect(arcThrough([0, 0], [0, 0], [2, 2])).toBeUndefined();
    expect(arcPath([0, 0], [1, 1], [2, 2])).toEqual([
      ['M', 0, 0],
      ['L', 1, 1],
      ['L', 2, 2],
    ]);
  });

  it('is the quarter and the half that everybody knows', () => {
    const quarter = arcThrough([1, 0], [Math.SQRT1_2, Math.SQRT1_2], [0, 1])!;
    expect(quarter.radius).toBeCloseTo(1, 12);
    expect(quarter.sweep).toBeCloseTo(Math.PI / 2, 12);
    expect(arcThrough([1, 0], [0, -1], [-1, 0])!.sweep).toBeCloseTo(-Math.PI, 12);
  });
});
