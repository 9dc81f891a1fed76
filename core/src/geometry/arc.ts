import type { Path, PathStep } from './path.js';

type Point = readonly [number, number];

/** Part of a circle. Angles in radians, clockwise on screen from the right. */
export interface Arc {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly from: number;
  /** How far round, negative against the clock. */
  readonly sweep: number;
}

/** The part of a circle from a through b to c; undefined where they lie on a line. */
export function arcThrough(a: Point, b: Point, c: Point): Arc | undefined {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  const cross = 2 * (ux * vy - uy * vx);
  const scale = Math.hypot(ux, uy) * Math.hypot(vx, vy);
  if (Math.abs(cross) < 1e-6 * scale || scale === 0) return undefined;
  const [u, v] = [ux * ux + uy * uy, vx * vx + vy * vy];
  const [dx, dy] = [(vy * u - uy * v) / cross, (ux * v - vx * u) / cross];
  const [x, y] = [a[0] + dx, a[1] + dy];
  const from = Math.atan2(a[1] - y, a[0] - x);
  const whole = 2 * Math.PI;
  const onward = (((Math.atan2(c[1] - y, c[0] - x) - from) % whole) + whole) % whole;
  return { x, y, radius: Math.hypot(dx, dy), from, sweep: cross > 0 ? onward : onward - whole };
}

export function arcPoint({ x, y, radius, from, sweep }: Arc, part: number): [number, number] {
  const angle = from + part * sweep;
  return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
}

/**
 * The part of a circle from a through b to c by cubic curves of at most a quarter, 0.03 % of the radius off it: control
 * points at 4/3·tan(sweep/4) (Goldapp 1991, "Approximation of circular arcs by cubic polynomials"). Straight where they lie
 * on a line.
 */
export function arcPath(a: Point, b: Point, c: Point): Path {
  const arc = arcThrough(a, b, c);
  if (!arc)
    return [
      ['M', ...a],
      ['L', ...b],
      ['L', ...c],
    ];
  const pieces = Math.max(1, Math.ceil(Math.abs(arc.sweep) / (Math.PI / 2) - 1e-9));
  const step = arc.sweep / pieces;
  const reach = (4 / 3) * Math.tan(step / 4) * arc.radius;
  const steps = Array.from({ length: pieces }, (_, i): PathStep => {
    const [start, end] = [arc.from + i * step, arc.from + (i + 1) * step];
    const [x0, y0] = arcPoint(arc, i / pieces);
    const [x1, y1] = i === pieces - 1 ? c : arcPoint(arc, (i + 1) / pieces);
    return [
      'C',
      x0 - reach * Math.sin(start),
      y0 + reach * Math.cos(start),
      x1 + reach * Math.sin(end),
      y1 - reach * Math.cos(end),
      x1,
      y1,
    ];
  });
  return [['M', ...a], ...steps];
}
