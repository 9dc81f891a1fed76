import fc from 'fast-check';
import { getStroke } from 'perfect-freehand';
import { describe, expect, it } from 'vitest';
import { flattenPath, outline, outlineCorners, pointSegmentDistanceSquared, STRIDE } from '../src/index.js';
import type { Path } from '../src/index.js';

type Point = readonly [number, number];

const WIDTH = 6;
/** How far apart the edges may lie, page units. */
const NEAR = 0.25;
const pen = { nature: 'pen', width: WIDTH } as const;

/** The outline that perfect-freehand draws with its own round ends, smoothed as `outline` does. */
function itsOwn(points: readonly number[]): Point[] {
  const input = Array.from({ length: points.length / STRIDE }, (_, i) =>
    points.slice(i * STRIDE, i * STRIDE + 3),
  );
  const ring = getStroke(input, {
    ...{ size: WIDTH, thinning: 0.5, smoothing: 0.5, streamline: 0, simulatePressure: false, last: true },
  }) as unknown as Point[];
  const at = (i: number) => ring[i % ring.length]!;
  const middle = (i: number) => [(at(i)[0] + at(i + 1)[0]) / 2, (at(i)[1] + at(i + 1)[1]) / 2] as const;
  const path: Path = [
    ['M', ...middle(0)],
    ...ring.map((_, i) => ['Q', ...at(i + 1), ...middle(i + 1)] as const),
  ];
  return flattenPath(path, 6);
}

/** How often a closed line goes round a point: the nonzero rule of ISO 32000-1 §8.5.3.3.2. */
function windings([x, y]: Point, line: readonly Point[]): number {
  let count = 0;
  for (const [i, [ax, ay]] of line.entries()) {
    const [bx, by] = line[(i + 1) % line.length]!;
    const side = (bx - ax) * (y - ay) - (x - ax) * (by - ay);
    if (ay <= y && by > y && side > 0) count += 1;
    if (ay > y && by <= y && side < 0) count -= 1;
  }
  return count;
}

function isNear([x, y]: Point, line: readonly Point[], reach: number): boolean {
  return line.some(([ax, ay], i) => {
    const [bx, by] = line[(i + 1) % line.length]!;
    return pointSegmentDistanceSquared(x, y, ax, ay, bx, by) < reach * reach;
  });
}

const step = fc.double({ min: -14, max: 14, noNaN: true });
const hand = fc
  .array(fc.tuple(step, step, fc.double({ min: 0.1, max: 1, noNaN: true })), { minLength: 3, maxLength: 20 })
  .map((steps) => {
    let [x, y] = [60, 60];
    return steps.flatMap(([dx, dy, pressure], i) => [(x += dx), (y += dy), pressure, i * 16]);
  });

describe('the round ends of ink', () => {
  it('cover what those of perfect-freehand cover', () => {
    fc.assert(
      fc.property(hand, (points) => {
        const [ours, its] = [flattenPath(outline({ points, style: pen }), 6), itsOwn(points)];
        for (const i of [0, points.length - STRIDE]) {
          const [x, y] = [points[i]!, points[i + 1]!];
          for (let angle = 0; angle < 6.2; angle += 0.4) {
            for (const radius of [1, 2, 3, 4]) {
              const at = [x + radius * Math.cos(angle), y + radius * Math.sin(angle)] as const;
              if (isNear(at, ours, NEAR) || isNear(at, its, NEAR)) continue;
              expect(windings(at, ours) !== 0).toBe(windings(at, its) !== 0);
            }
          }
        }
      }),
      { numRuns: 80 },
    );
  });

  it('have fewer corners than its own', () => {
    const points = Array.from({ length: 12 }, (_, i) => [i * 5, 40, 0.5, i * 16]).flat();
    const input = Array.from({ length: 12 }, (_, i) => points.slice(i * STRIDE, i * STRIDE + 3));
    const its = getStroke(input, {
      size: WIDTH,
      thinning: 0.5,
      streamline: 0,
      simulatePressure: false,
      last: true,
    });
    // Its first end has 13 of them and its last one 29 (version 1.2), here they have 9 and 8.
    expect(outlineCorners({ points, style: pen })).toHaveLength(its.length - 13 - 29 + 17);
  });

  it('are not mistaken where a stroke ends on a corner of its own side', () => {
    // Its side has corners 4 apart at 2 above and below it; the end lies on them, in the middle between two.
    for (const endY of [38, 42]) {
      const line = Array.from({ length: 12 }, (_, i) => [30 + 4 * i, 40]);
      const back = [
        [74, 80],
        [52, 80],
        [52, 60],
        [52, endY],
      ];
      const points = [...line, ...back].flatMap(([x, y], i) => [x!, y!, 0.5, i * 16]);
      const ours = flattenPath(outline({ points, style: { nature: 'pen', width: 4 } }), 6);
      for (const [x] of line.slice(1)) expect(windings([x!, 40.3], ours)).not.toBe(0);
      expect(windings([63, 80.3], ours)).not.toBe(0);
      expect(windings([63, 60], ours)).toBe(0);
      for (const x of [46, 58]) for (const y of [31, 35, 45]) expect(windings([x, y], ours)).toBe(0);
    }
  });

  it('are the ends of a dot as well', () => {
    const [ours, its] = [outline({ points: [9, 9, 0.5, 0], style: pen }), itsOwn([9, 9, 0.5, 0])];
    const line = flattenPath(ours, 6);
    for (const point of line) expect(isNear(point, its, NEAR)).toBe(true);
    expect(line.length).toBeGreaterThan(100);
  });
});
