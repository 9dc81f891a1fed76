import { arcThrough } from '../geometry/arc.js';
import type { Outline, Point } from '../measure/outline.js';
import type { Edge } from './edges.js';

/** A circle, or a part of one; angles in radians, clockwise on screen from the right. */
export interface Circle {
  readonly centre: Point;
  readonly radius: number;
  readonly from: number;
  readonly sweep: number;
}

/** Angles and parts that are so little beyond an end are still on it. */
const ROUNDING = 1e-6;
const WHOLE = 2 * Math.PI;

/** The circle of an outline that is one, or part of one. */
export function circleOf(outline: Outline): Circle | undefined {
  if (outline.kind === 'ellipse' && Math.abs(outline.a - outline.b) < 1e-6 * outline.a)
    return { centre: outline.centre, radius: outline.a, from: 0, sweep: WHOLE };
  if (outline.kind !== 'arc') return undefined;
  const [a, b, c] = outline.points;
  const arc = a && b && c && arcThrough(a, b, c);
  if (!arc) return undefined;
  const { centre, radius } = outline;
  const from = Math.atan2(a[1] - centre[1], a[0] - centre[0]);
  return arc.sweep > 0
    ? { centre, radius, from, sweep: arc.sweep }
    : { centre, radius, from: from + arc.sweep, sweep: -arc.sweep };
}

/** Where an edge crosses a circle, within both. */
export function edgeCrossings([a, b]: Edge, circle: Circle): Point[] {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const [fx, fy] = [a[0] - circle.centre[0], a[1] - circle.centre[1]];
  const [p, q, r] = [dx * dx + dy * dy, fx * dx + fy * dy, fx * fx + fy * fy - circle.radius ** 2];
  const root = q * q - p * r;
  if (p === 0 || root < 0) return [];
  return [-Math.sqrt(root), Math.sqrt(root)]
    .map((each) => (each - q) / p)
    .filter((part) => part >= -ROUNDING && part <= 1 + ROUNDING)
    .map((part): Point => [a[0] + part * dx, a[1] + part * dy])
    .filter((point) => isOn(circle, point));
}

/** Where two circles cross, within both. */
export function circleCrossings(one: Circle, other: Circle): Point[] {
  const [dx, dy] = [other.centre[0] - one.centre[0], other.centre[1] - one.centre[1]];
  const apart = Math.hypot(dx, dy);
  if (apart === 0) return [];
  const along = (apart * apart + one.radius ** 2 - other.radius ** 2) / (2 * apart);
  const square = one.radius ** 2 - along * along;
  if (square < 0) return [];
  const [ux, uy, aside] = [dx / apart, dy / apart, Math.sqrt(square)];
  return [-aside, aside]
    .map((side): Point => [one.centre[0] + along * ux - side * uy, one.centre[1] + along * uy + side * ux])
    .filter((point) => isOn(one, point) && isOn(other, point));
}

/** The point of a circle that is nearest to a place. */
export function nearestOn(circle: Circle, [x, y]: Point): Point {
  const { centre, from, sweep } = circle;
  const angle = Math.atan2(y - centre[1], x - centre[0]);
  const past = onward(angle - from);
  if (past <= sweep) return pointAt(circle, angle);
  return pointAt(circle, past - sweep < WHOLE - past ? from + sweep : from);
}

/** The ends of a part of a circle; none of a whole one. */
export function endsOf(circle: Circle): Point[] {
  const { from, sweep } = circle;
  return sweep >= WHOLE - ROUNDING ? [] : [pointAt(circle, from), pointAt(circle, from + sweep)];
}

function pointAt({ centre, radius }: Circle, angle: number): Point {
  return [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle)];
}

/** Arcs that were drawn from a point end there to a few hundredths. */
const END = 0.02;

function isOn({ centre, radius, from, sweep }: Circle, [x, y]: Point): boolean {
  const past = onward(Math.atan2(y - centre[1], x - centre[0]) - from);
  const slack = END / radius + ROUNDING;
  return past <= sweep + slack || past >= WHOLE - slack;
}

function onward(angle: number): number {
  return ((angle % WHOLE) + WHOLE) % WHOLE;
}
