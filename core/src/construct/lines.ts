import type { Edge, Point } from './edges.js';
import { along } from './edges.js';

/** Places that are so near each other are meant to be one, page units. */
const SAME = 12;

/** The points that divide an edge into n equal parts, without its ends. */
export function dividing(edge: Edge, n: number): Point[] {
  return Array.from({ length: n - 1 }, (_, i) => along(edge, (i + 1) / n));
}

/** Short lines across an edge, so long, that divide it into n equal parts. */
export function ticks(edge: Edge, n: number, length: number): Edge[] {
  const [[ax, ay], [bx, by]] = edge;
  const size = Math.hypot(bx - ax, by - ay) || 1;
  const [nx, ny] = [((by - ay) / size) * (length / 2), (-(bx - ax) / size) * (length / 2)];
  return dividing(edge, n).map(([x, y]): Edge => [
    [x - nx, y - ny],
    [x + nx, y + ny],
  ]);
}

/**
 * Lines between equally spaced points of two edges, in order: the first of one to the first of the other, or to the last
 * where the second is taken `turned`. The ends are among them, so there are n + 1 lines but those of no length. Of two
 * sides that meet they touch a parabola.
 */
export function strings(first: Edge, second: Edge, n: number, turned: boolean): Edge[] {
  const other: Edge = turned ? [second[1], second[0]] : second;
  return Array.from({ length: n + 1 }, (_, i): Edge => [along(first, i / n), along(other, i / n)]).filter(
    ([a, b]) => Math.hypot(b[0] - a[0], b[1] - a[1]) > 0.01,
  );
}

/** Whether two edges begin, or end, at the same place: taken as they are, their points would be joined round that place. */
export function beginAlike([a, b]: Edge, [c, d]: Edge): boolean {
  const same = (p: Point, q: Point) => Math.hypot(p[0] - q[0], p[1] - q[1]) < SAME;
  return same(a, c) || same(b, d);
}

/** Lines from corners to one vanishing point. */
export function leading(corners: readonly Point[], to: Point): Edge[] {
  return corners
    .filter(([x, y]) => Math.hypot(x - to[0], y - to[1]) > 0.01)
    .map((corner): Edge => [corner, to]);
}
