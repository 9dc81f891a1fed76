import type { Mark } from '../marks/mark.js';
import type { Outline, Point } from '../measure/outline.js';
import { outlineOf } from '../measure/outline.js';
import { inkForm } from './inkForms.js';

export type { Point };
export type Edge = readonly [Point, Point];

/** The line or edge by which others are drawn: of a line or shape, and of ink that is one exactly. */
export function formOf(mark: Mark): Outline | undefined {
  if (mark.kind === 'stroke') return inkForm(mark);
  return mark.kind === 'path' || mark.kind === 'shape' ? outlineOf(mark) : undefined;
}

/** The straight sides of a mark, in their order; none of a curve or of what is no line or shape. */
export function edgesOf(mark: Mark): Edge[] {
  const outline = formOf(mark);
  return outline ? edgesOfForm(outline) : [];
}

/** The straight sides of an outline, in their order. */
export function edgesOfForm(outline: Outline): Edge[] {
  if (outline.kind !== 'corners') return [];
  const { corners, closed } = outline;
  return corners.flatMap((corner, i): Edge[] => {
    const next = corners[i + 1] ?? (closed ? corners[0] : undefined);
    return next && (next[0] !== corner[0] || next[1] !== corner[1]) ? [[corner, next]] : [];
  });
}

/** The corners and ends of a mark's straight sides, each once. */
export function cornersOfMark(mark: Mark): Point[] {
  const outline = formOf(mark);
  return outline?.kind === 'corners' ? [...outline.corners] : [];
}

/** The point at a part of an edge, 0 to 1. */
export function along([a, b]: Edge, part: number): Point {
  return [a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part];
}

/** Where the lines of two edges cross, or undefined where they are parallel; `within` both edges themselves. */
export function crossingOf([a, b]: Edge, [c, d]: Edge, within: boolean): Point | undefined {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const cross = ux * vy - uy * vx;
  if (Math.abs(cross) < 1e-9 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return undefined;
  const t = ((c[0] - a[0]) * vy - (c[1] - a[1]) * vx) / cross;
  const s = ((c[0] - a[0]) * uy - (c[1] - a[1]) * ux) / cross;
  const isIn = (value: number) => value >= -1e-9 && value <= 1 + 1e-9;
  return within && !(isIn(t) && isIn(s)) ? undefined : along([a, b], t);
}

/** The foot of the perpendicular from a point onto an edge's line, and at which part of the edge it lies. */
export function footOf([a, b]: Edge, [x, y]: Point): { foot: Point; part: number } {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const part = ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy);
  return { foot: along([a, b], part), part };
}
