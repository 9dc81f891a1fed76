import { pointSegmentDistanceSquared } from '../geometry/segment.js';
import { STRIDE } from './points.js';

/** Page units of place that a pressure of 1 counts as, so that changes of width are kept too. */
const PRESSURE_WEIGHT = 8;

/**
 * The stroke with fewer points, none of the left-out ones farther than `tolerance` page units from
 * the line drawn: Ramer 1972, Douglas and Peucker 1973; changes of pressure count as distance.
 * First and last point stay.
 */
export function simplify(points: readonly number[], tolerance: number): number[] {
  const count = points.length / STRIDE;
  if (count <= 2) return [...points];
  const keep = new Uint8Array(count);
  keep[0] = keep[count - 1] = 1;
  const stack: [number, number][] = [[0, count - 1]];
  for (let range = stack.pop(); range; range = stack.pop()) {
    const far = farthest(points, range[0], range[1]);
    if (far.distanceSquared <= tolerance * tolerance) continue;
    keep[far.index] = 1;
    stack.push([range[0], far.index], [far.index, range[1]]);
  }
  const kept: number[] = [];
  for (let i = 0; i < count; i++) {
    if (keep[i]) for (let k = 0; k < STRIDE; k++) kept.push(points[i * STRIDE + k]!);
  }
  return kept;
}

function farthest(
  points: readonly number[],
  from: number,
  to: number,
): { index: number; distanceSquared: number } {
  const [ax, ay] = [points[from * STRIDE]!, points[from * STRIDE + 1]!];
  const [bx, by] = [points[to * STRIDE]!, points[to * STRIDE + 1]!];
  const firm = points[from * STRIDE + 2]!;
  const firmer = points[to * STRIDE + 2]! - firm;
  const best = { index: from, distanceSquared: -1 };
  for (let i = from + 1; i < to; i++) {
    const pressure = (points[i * STRIDE + 2]! - firm - ((i - from) / (to - from)) * firmer) * PRESSURE_WEIGHT;
    const d =
      pointSegmentDistanceSquared(points[i * STRIDE]!, points[i * STRIDE + 1]!, ax, ay, bx, by) +
      pressure * pressure;
    if (d > best.distanceSquared) {
      best.distanceSquared = d;
      best.index = i;
    }
  }
  return best;
}
