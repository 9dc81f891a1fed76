import type { Point } from './trace.js';

/** A direction that is so nearly level or upright becomes exactly so, degrees. */
const NEARLY = 7;

/** How far an angle (radians) is from the nearest multiple of `step` degrees, radians. */
export function offStep(angle: number, step: number): number {
  const unit = (step * Math.PI) / 180;
  return angle - Math.round(angle / unit) * unit;
}

/** The angle (radians), or level or upright where it nearly is. */
export function uprightened(angle: number): number {
  const off = offStep(angle, 90);
  return Math.abs(off) <= (NEARLY * Math.PI) / 180 ? angle - off : angle;
}

/** Points turned round their middle so that the direction of `angle` (radians) becomes level or upright, if it nearly is. */
export function turnedUpright(points: readonly Point[], angle: number): Point[] {
  return turned(points, uprightened(angle) - angle);
}

export function turned(points: readonly Point[], by: number): Point[] {
  if (by === 0) return [...points];
  const [cx, cy] = middleOf(points);
  const [cos, sin] = [Math.cos(by), Math.sin(by)];
  return points.map(([x, y]): Point => [
    cx + (x - cx) * cos - (y - cy) * sin,
    cy + (x - cx) * sin + (y - cy) * cos,
  ]);
}

export function middleOf(points: readonly Point[]): Point {
  let [x, y] = [0, 0];
  for (const point of points) {
    x += point[0] / points.length;
    y += point[1] / points.length;
  }
  return [x, y];
}

/** Corners of a line or polygon whose nearly level and nearly upright sides become exactly so, one after the other. */
export function uprightSides(corners: readonly Point[], closed: boolean): Point[] {
  const count = corners.length;
  const sides = Array.from({ length: closed ? count : count - 1 }, (_, i): [number, number] => [
    i,
    (i + 1) % count,
  ]);
  const axes = sides.map(([i, k]) => {
    const angle = Math.atan2(corners[k]![1] - corners[i]![1], corners[k]![0] - corners[i]![0]);
    if (Math.abs(offStep(angle, 90)) > (NEARLY * Math.PI) / 180) return undefined;
    return Math.abs(offStep(angle, 180)) < Math.PI / 4 ? 1 : 0;
  });
  const result = corners.map((corner): [number, number] => [...corner]);
  for (const axis of [0, 1] as const)
    for (const run of runsAlong(sides, axes, axis, count)) {
      const value = run.reduce((sum, i) => sum + corners[i]![axis], 0) / run.length;
      for (const i of run) result[i]![axis] = value;
    }
  return result;
}

/** Corners that sides of one direction tie together. */
function runsAlong(
  sides: readonly [number, number][],
  axes: readonly (0 | 1 | undefined)[],
  axis: 0 | 1,
  count: number,
): number[][] {
  const run = Array.from({ length: count }, (_, i) => [i]);
  sides.forEach(([i, k], side) => {
    if (axes[side] !== axis || run[i] === run[k]) return;
    const both = [...run[i]!, ...run[k]!];
    for (const corner of both) run[corner] = both;
  });
  return [...new Set(run)].filter(({ length }) => length > 1);
}
