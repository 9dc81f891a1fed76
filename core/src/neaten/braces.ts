import { pointSegmentDistanceSquared } from '../geometry/segment.js';
import type { Reading } from './reading.js';
import { fitCost, inBox } from './reading.js';
import type { Point, Trace } from './trace.js';

/** A hand that draws so many bends is off them by at least this, as part of the size. */
const TREMOR = 0.011;
/** Pieces of a quarter of a round. */
const QUARTER = 5;

/** How deep a brace is at least and at most, as part of its length. */
const DEPTH = { least: 0.045, most: 0.5 };
/** Part of the length near the tip and the ends where a brace leaves its back. */
const ROUNDED = [0.05, 0.09, 0.14, 0.2];

/** A curly bracket: two ends on one side, a tip in the middle on the other, straight in between. */
export function braceReading(trace: Trace, tremor: number): Reading | undefined {
  const { x, y } = trace;
  const last = x.length - 1;
  const length = Math.hypot(x[last]! - x[0]!, y[last]! - y[0]!);
  if (length < 0.75 * trace.size) return undefined;
  const [dx, dy] = [(x[last]! - x[0]!) / length, (y[last]! - y[0]!) / length];
  const along = Array.from(x, (px, i) => ((px - x[0]!) * dx + (y[i]! - y[0]!) * dy) / length);
  const across = Array.from(x, (px, i) => (px - x[0]!) * -dy + (y[i]! - y[0]!) * dx);
  const side = Math.max(...across) > -Math.min(...across) ? 1 : -1;
  const depth = Math.max(...across.map((value) => side * value));
  const tip = along[across.findIndex((value) => side * value === depth)]!;
  if (depth < DEPTH.least * length || depth > DEPTH.most * length || Math.abs(tip - 0.5) > 0.17)
    return undefined;
  const places = along.map((value, i): Point => [value * length, side * across[i]!]);
  const units = Math.min(
    ...ROUNDED.map((rounded) => meanOff(places, braceLine(length, depth, tip * length, rounded * length))),
  );
  const angle = Math.atan2(dy, dx);
  const [cx, cy] = [
    (x[0]! + x[last]!) / 2 + (-dy * side * depth) / 2,
    (y[0]! + y[last]!) / 2 + (dx * side * depth) / 2,
  ];
  const degrees = (angle * 180) / Math.PI - 90;
  const box = { x: cx - depth / 2, y: cy - length / 2, width: depth, height: length };
  const body = inBox('bracket', box, nearlyUpright(degrees), { flip: side < 0 });
  const off = units / trace.size;
  return { kind: 'brace', body, cost: fitCost(off, Math.max(tremor, TREMOR), 2.5), off };
}

/** A brace as points: quarters of ellipses between straight backs. The ends at 0 and `length`, the tip at `depth`. */
function braceLine(length: number, depth: number, tip: number, rounded: number): Point[] {
  const half = depth / 2;
  const quarter = (x: number, y: number, from: number, sweep: number) =>
    Array.from({ length: QUARTER + 1 }, (_, i): Point => {
      const angle = (from + (sweep * i) / QUARTER) * (Math.PI / 2);
      return [x + rounded * Math.cos(angle), y + half * Math.sin(angle)];
    });
  return [
    ...quarter(rounded, 0, 2, -1),
    ...quarter(tip - rounded, depth, -1, 1),
    ...quarter(tip + rounded, depth, -2, 1),
    ...quarter(length - rounded, 0, 1, -1),
  ];
}

/** Root of the mean square of what points are off a line through others. */
function meanOff(points: readonly Point[], line: readonly Point[]): number {
  let sum = 0;
  for (const [x, y] of points) {
    let least = Infinity;
    for (let i = 1; i < line.length; i++) {
      const [a, b] = [line[i - 1]!, line[i]!];
      least = Math.min(least, pointSegmentDistanceSquared(x, y, a[0], a[1], b[0], b[1]));
    }
    sum += least;
  }
  return Math.sqrt(sum / points.length);
}

function nearlyUpright(degrees: number): number {
  const nearest = Math.round(degrees / 90) * 90;
  const angle = Math.abs(degrees - nearest) < 7 ? nearest : degrees;
  return ((angle + 540) % 360) - 180;
}
