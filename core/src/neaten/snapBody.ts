import type { Mark } from '../marks/mark.js';
import { withCorners } from '../marks/path/corners.js';
import type { NeatBody, ShapeKind } from './reading.js';
import { round } from './reading.js';
import type { Point } from './trace.js';
import { apart } from './trace.js';

/** Corners that lie so near a corner that is there are meant to meet it; page units. */
const REACH = 14;

/** What stays what it is, whichever of its corners is moved. */
const FREE = new Set<ShapeKind>(['line', 'polyline', 'arrow', 'triangle', 'quadrilateral', 'polygon']);

/** Corners and ends of lines and shapes that others can meet. */
export function cornersOn(marks: readonly Mark[]): Point[] {
  return marks.flatMap((mark): Point[] => {
    const path = withCorners(mark, () => '');
    if (!path || path.course === 'quadratic' || path.course === 'cubic') return [];
    return Array.from({ length: path.points.length / 2 }, (_, i) => [
      path.points[2 * i]!,
      path.points[2 * i + 1]!,
    ]);
  });
}

/**
 * A shape brought to the corners that it nearly meets: corners of free shapes each on its own, others as they are, by the
 * corner that is nearest.
 */
export function snapBody(kind: ShapeKind, body: NeatBody, there: readonly Point[]): NeatBody {
  if (body.kind !== 'path' || there.length === 0) return body;
  const corners = Array.from({ length: body.points.length / 2 }, (_, i): Point => [
    body.points[2 * i]!,
    body.points[2 * i + 1]!,
  ]);
  const reach = Math.min(REACH, shortestSide(corners) / 3);
  const targets = corners.map((corner) => nearest(corner, there, reach));
  if (FREE.has(kind)) return { ...body, points: corners.flatMap((corner, i) => [...(targets[i] ?? corner)]) };
  const moves = corners.flatMap((corner, i) => {
    const target = targets[i];
    return target ? [{ dx: target[0] - corner[0], dy: target[1] - corner[1] }] : [];
  });
  const least = moves.sort((a, b) => Math.hypot(a.dx, a.dy) - Math.hypot(b.dx, b.dy))[0];
  if (!least) return body;
  return { ...body, points: corners.flatMap(([x, y]) => [round(x + least.dx), round(y + least.dy)]) };
}

function nearest(corner: Point, there: readonly Point[], reach: number): Point | undefined {
  let best: Point | undefined;
  for (const other of there) if (apart(corner, other) <= (best ? apart(corner, best) : reach)) best = other;
  return best;
}

function shortestSide(corners: readonly Point[]): number {
  return Math.min(...corners.slice(1).map((corner, i) => apart(corner, corners[i]!)));
}
