import { STRIDE } from '../ink/points.js';
import type { MarkOf } from '../marks/mark.js';
import type { Outline, Point } from '../measure/outline.js';
import { fitCircle } from '../neaten/rounds.js';

/** Ink is a line or an arc where no point of it is farther off, page units. */
const EXACT = 0.35;
/** A line or arc is at least so long, page units. */
const LEAST = 6;
/** An arc has at least so many points, and goes round at least so far, radians. */
const LEAST_POINTS = 5;
const LEAST_SWEEP = 0.05;
/** An arc whose ends lie so near each other is a circle, page units. */
const CLOSED = 0.5;

/** The straight line, arc or circle that ink is exactly, such as was drawn with an instrument; undefined for all else. */
export function inkForm(mark: MarkOf<'stroke'>): Outline | undefined {
  const points = placesOf(mark.points);
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 2) return undefined;
  if (apart(first, last) >= LEAST && points.every((point) => offLine(first, last, point) <= EXACT))
    return { kind: 'corners', corners: [first, last], closed: false };
  return points.length < LEAST_POINTS ? undefined : roundForm(points);
}

function roundForm(points: readonly Point[]): Outline | undefined {
  const fitted = fitCircle({
    x: Float64Array.from(points, ([x]) => x),
    y: Float64Array.from(points, ([, y]) => y),
  });
  if (!fitted || fitted.off > EXACT) return undefined;
  const centre: Point = [fitted.x, fitted.y];
  if (points.some((point) => Math.abs(apart(point, centre) - fitted.radius) > EXACT)) return undefined;
  const sweep = sweepOf(points, centre);
  if (Math.abs(sweep) < LEAST_SWEEP || Math.abs(sweep) * fitted.radius < LEAST) return undefined;
  const { radius } = fitted;
  if (apart(points[0]!, points.at(-1)!) < CLOSED && Math.abs(sweep) > Math.PI)
    return { kind: 'ellipse', centre, a: radius, b: radius };
  const middle = points[Math.floor(points.length / 2)]!;
  return {
    kind: 'arc',
    centre,
    radius,
    sweep: Math.abs(sweep),
    points: [points[0]!, middle, points.at(-1)!],
  };
}

/** How far round ink goes about a point, radians. */
function sweepOf(points: readonly Point[], [cx, cy]: Point): number {
  let sweep = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const [ux, uy, vx, vy] = [a[0] - cx, a[1] - cy, b[0] - cx, b[1] - cy];
    sweep += Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
  }
  return sweep;
}

function placesOf(points: readonly number[]): Point[] {
  const places: Point[] = [];
  for (let i = 0; i < points.length; i += STRIDE) places.push([points[i]!, points[i + 1]!]);
  return places;
}

function offLine(a: Point, b: Point, [x, y]: Point): number {
  return Math.abs((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / apart(a, b);
}

function apart(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1]);
}
