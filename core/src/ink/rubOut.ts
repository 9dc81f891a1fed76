import { STRIDE } from './points.js';

/** A round tip moved along a straight line, page units. */
export interface Sweep {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  radius: number;
}

type Interval = [from: number, to: number];

/**
 * What is left of a stroke's points where a tip has gone over them: pieces that are strokes again,
 * cut where the tip's edge crosses, with pressure and time between those of the neighbours.
 * Undefined where the tip touches nothing.
 */
export function rubOut(points: readonly number[], sweep: Sweep): number[][] | undefined {
  const count = points.length / STRIDE;
  if (count === 1) return insideTip(points[0]!, points[1]!, sweep) ? [] : undefined;
  const pieces: number[][] = [];
  let piece: number[] = [];
  let touched = false;
  const cut = () => {
    if (piece.length > STRIDE) pieces.push(piece);
    piece = [];
  };
  for (let i = 0; i + 1 < count; i++) {
    const gone = goneOf(points, i, sweep);
    if (!gone) {
      if (piece.length === 0) piece.push(...pointAt(points, i, 0));
      piece.push(...pointAt(points, i, 1));
      continue;
    }
    touched = true;
    if (gone[0] > 0) {
      if (piece.length === 0) piece.push(...pointAt(points, i, 0));
      piece.push(...pointAt(points, i, gone[0]));
    }
    cut();
    if (gone[1] < 1) piece.push(...pointAt(points, i, gone[1]), ...pointAt(points, i, 1));
  }
  cut();
  return touched ? pieces : undefined;
}

/** The part of segment i that lies under the tip, as 0 to 1 along it. */
function goneOf(points: readonly number[], i: number, sweep: Sweep): Interval | undefined {
  const [px, py] = [points[i * STRIDE]!, points[i * STRIDE + 1]!];
  const [qx, qy] = [points[(i + 1) * STRIDE]!, points[(i + 1) * STRIDE + 1]!];
  const parts = [
    circleInterval(px, py, qx, qy, sweep.ax, sweep.ay, sweep.radius),
    circleInterval(px, py, qx, qy, sweep.bx, sweep.by, sweep.radius),
    bandInterval(px, py, qx, qy, sweep),
  ].filter((part) => part !== undefined);
  if (parts.length === 0) return undefined;
  // The swept area is convex, so a straight line lies in it in one piece.
  const from = Math.max(0, Math.min(...parts.map(([t]) => t)));
  const to = Math.min(1, Math.max(...parts.map(([, t]) => t)));
  return from < to ? [from, to] : undefined;
}

/** Where the line p–q lies within a circle: the roots of a quadratic equation. */
function circleInterval(
  px: number,
  py: number,
  qx: number,
  qy: number,
  cx: number,
  cy: number,
  r: number,
): Interval | undefined {
  const [dx, dy, ex, ey] = [qx - px, qy - py, px - cx, py - cy];
  const a = dx * dx + dy * dy;
  const b = ex * dx + ey * dy;
  const c = ex * ex + ey * ey - r * r;
  if (a === 0) return c <= 0 ? [0, 1] : undefined;
  const root = b * b - a * c;
  if (root < 0) return undefined;
  return overlap([(-b - Math.sqrt(root)) / a, (-b + Math.sqrt(root)) / a], [0, 1]);
}

/** Where the line p–q lies within the rectangle that the tip's width draws between a and b. */
function bandInterval(
  px: number,
  py: number,
  qx: number,
  qy: number,
  { ax, ay, bx, by, radius }: Sweep,
): Interval | undefined {
  const length = Math.hypot(bx - ax, by - ay);
  if (length === 0) return undefined;
  const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
  const along = within((px - ax) * ux + (py - ay) * uy, (qx - ax) * ux + (qy - ay) * uy, 0, length);
  const across = within((py - ay) * ux - (px - ax) * uy, (qy - ay) * ux - (qx - ax) * uy, -radius, radius);
  return along && across && overlap(along, across);
}

/** Where a value that runs from `start` to `end` lies between two limits. */
function within(start: number, end: number, low: number, high: number): Interval | undefined {
  if (start === end) return start >= low && start <= high ? [0, 1] : undefined;
  const [t0, t1] = [(low - start) / (end - start), (high - start) / (end - start)];
  return overlap([Math.min(t0, t1), Math.max(t0, t1)], [0, 1]);
}

function overlap(a: Interval, b: Interval): Interval | undefined {
  const from = Math.max(a[0], b[0]);
  const to = Math.min(a[1], b[1]);
  return from <= to ? [from, to] : undefined;
}

function pointAt(points: readonly number[], i: number, t: number): number[] {
  const at = i * STRIDE;
  if (t === 0) return points.slice(at, at + STRIDE);
  if (t === 1) return points.slice(at + STRIDE, at + 2 * STRIDE);
  return [0, 1, 2, 3].map((k) => {
    const value = points[at + k]! + (points[at + STRIDE + k]! - points[at + k]!) * t;
    return k === 3 ? Math.round(value) : Math.round(value * 1000) / 1000;
  });
}

function insideTip(x: number, y: number, sweep: Sweep): boolean {
  return (
    circleInterval(x, y, x, y, sweep.ax, sweep.ay, sweep.radius) !== undefined ||
    circleInterval(x, y, x, y, sweep.bx, sweep.by, sweep.radius) !== undefined ||
    bandInterval(x, y, x, y, sweep) !== undefined
  );
}
