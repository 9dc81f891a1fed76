import type { Point, Trace } from './trace.js';

export interface FittedCircle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  /** Root of the mean square of what the points are off, page units. */
  readonly off: number;
}

export interface FittedEllipse {
  readonly x: number;
  readonly y: number;
  /** Half axes, the larger first. */
  readonly a: number;
  readonly b: number;
  /** Turn of the larger axis, radians clockwise on screen. */
  readonly turn: number;
  readonly off: number;
}

type Places = Pick<Trace, 'x' | 'y'>;

const ROUNDS = 12;

/**
 * The circle that is nearest to the points (geometric fit: Gander, Golub, Strebel, "Least-squares fitting of circles and
 * ellipses", BIT 34, 1994), from the algebraic one (Kåsa 1976). Undefined where they lie on a line.
 */
export function fitCircle({ x, y }: Places): FittedCircle | undefined {
  const n = x.length;
  const [mx, my] = [mean(x), mean(y)];
  let [uu, vv, uv, ru, rv] = [0, 0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [u, v] = [x[i]! - mx, y[i]! - my];
    const r = u * u + v * v;
    uu += u * u;
    vv += v * v;
    uv += u * v;
    ru += r * u;
    rv += r * v;
  }
  const start = solve(
    [
      [2 * uu, 2 * uv],
      [2 * uv, 2 * vv],
    ],
    [ru, rv],
  );
  if (!start) return undefined;
  let [cx, cy] = [start[0]! + mx, start[1]! + my];
  for (let round = 0; round < ROUNDS; round++) {
    const step = circleStep(x, y, cx, cy);
    if (!step) break;
    cx += step.dx;
    cy += step.dy;
    if (Math.hypot(step.dx, step.dy) < 1e-9 * (1 + step.radius)) break;
  }
  const radius = meanDistance(x, y, cx, cy);
  if (!Number.isFinite(radius)) return undefined;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += (Math.hypot(x[i]! - cx, y[i]! - cy) - radius) ** 2;
  return { x: cx, y: cy, radius, off: Math.sqrt(sum / n) };
}

/** One step of Gauss and Newton; the radius that goes with a middle is the mean distance from it. */
function circleStep(x: Float64Array, y: Float64Array, cx: number, cy: number) {
  const n = x.length;
  const radius = meanDistance(x, y, cx, cy);
  let [ux, uy] = [0, 0];
  const units: Point[] = [];
  for (let i = 0; i < n; i++) {
    const distance = Math.hypot(x[i]! - cx, y[i]! - cy) || 1e-12;
    const unit: Point = [(x[i]! - cx) / distance, (y[i]! - cy) / distance];
    units.push(unit);
    ux += unit[0] / n;
    uy += unit[1] / n;
  }
  let [a, b, c, d, e] = [0, 0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [jx, jy] = [ux - units[i]![0], uy - units[i]![1]];
    const off = Math.hypot(x[i]! - cx, y[i]! - cy) - radius;
    a += jx * jx;
    b += jx * jy;
    c += jy * jy;
    d -= jx * off;
    e -= jy * off;
  }
  const step = solve(
    [
      [a, b],
      [b, c],
    ],
    [d, e],
  );
  return step && { dx: step[0]!, dy: step[1]!, radius };
}

function meanDistance(x: Float64Array, y: Float64Array, cx: number, cy: number): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += Math.hypot(x[i]! - cx, y[i]! - cy);
  return sum / x.length;
}

/**
 * The ellipse that is nearest to the points (geometric fit as in Gander, Golub and Strebel, steps damped as by Levenberg
 * 1944), from the one with the same spread. Undefined where they lie on a line.
 */
export function fitEllipse({ x, y }: Places): FittedEllipse | undefined {
  const start = spreadEllipse(x, y);
  if (!start) return undefined;
  let best: number[] = start;
  let damping = 1e-3;
  for (let round = 0; round < 3 * ROUNDS && damping < 1e6; round++) {
    const { normal, right, sum } = ellipseStep(x, y, best);
    const step = solve(
      normal.map((row, i) => row.map((value, k) => (i === k ? value * (1 + damping) : value))),
      right,
    );
    if (!step) break;
    const next: number[] = best.map((value, i) => value + step[i]!);
    if (next[2]! > 0 && next[3]! > 0 && offEllipse(x, y, next) < sum) {
      const gain = sum - offEllipse(x, y, next);
      best = next;
      damping /= 10;
      if (gain < 1e-12 * (sum + 1e-12)) break;
    } else damping *= 10;
  }
  const [cx, cy, a, b, turn] = best as [number, number, number, number, number];
  const off = Math.sqrt(offEllipse(x, y, best) / x.length);
  return a >= b
    ? { x: cx, y: cy, a, b, turn, off }
    : { x: cx, y: cy, a: b, b: a, turn: turn + Math.PI / 2, off };
}

/** Middle, half axes and turn of the ellipse whose rim has the spread of the points. */
function spreadEllipse(x: Float64Array, y: Float64Array): number[] | undefined {
  const n = x.length;
  const [mx, my] = [mean(x), mean(y)];
  let [xx, yy, xy] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    xx += (x[i]! - mx) ** 2 / n;
    yy += (y[i]! - my) ** 2 / n;
    xy += ((x[i]! - mx) * (y[i]! - my)) / n;
  }
  const root = Math.hypot(xx - yy, 2 * xy);
  const [large, small] = [(xx + yy + root) / 2, (xx + yy - root) / 2];
  if (!(small > 1e-9 * large)) return undefined;
  return [mx, my, Math.sqrt(2 * large), Math.sqrt(2 * small), Math.atan2(2 * xy, xx - yy) / 2];
}

function offEllipse(x: Float64Array, y: Float64Array, ellipse: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += nearestOnEllipse(ellipse, x[i]!, y[i]!).off ** 2;
  return sum;
}

/** Normal equations of one step: how each point's distance changes with the five numbers of the ellipse. */
function ellipseStep(x: Float64Array, y: Float64Array, ellipse: readonly number[]) {
  const [, , a, b, turn] = ellipse as [number, number, number, number, number];
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const normal = Array.from({ length: 5 }, () => [0, 0, 0, 0, 0]);
  const right = [0, 0, 0, 0, 0];
  let sum = 0;
  for (let i = 0; i < x.length; i++) {
    const { off, c, s } = nearestOnEllipse(ellipse, x[i]!, y[i]!);
    sum += off * off;
    const length = Math.hypot(b * c, a * s) || 1e-12;
    const [nu, nv] = [(b * c) / length, (a * s) / length];
    const [nx, ny] = [nu * cos - nv * sin, nu * sin + nv * cos];
    const byTurn = nv * a * c - nu * b * s;
    const rate = [-nx, -ny, -nu * c, -nv * s, -byTurn];
    for (let p = 0; p < 5; p++) {
      right[p]! -= rate[p]! * off;
      for (let q = 0; q < 5; q++) normal[p]![q]! += rate[p]! * rate[q]!;
    }
  }
  return { normal, right, sum };
}

/** The nearest place of an ellipse's rim, as cosine and sine of its angle, and how far outside the point lies. */
function nearestOnEllipse(ellipse: readonly number[], px: number, py: number) {
  const [cx, cy, a, b, turn] = ellipse as [number, number, number, number, number];
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const u = (px - cx) * cos + (py - cy) * sin;
  const v = (py - cy) * cos - (px - cx) * sin;
  let angle = Math.atan2(a * v, b * u);
  for (let round = 0; round < 6; round++) {
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const first = (b * b - a * a) * s * c + a * u * s - b * v * c;
    const second = (b * b - a * a) * (c * c - s * s) + a * u * c + b * v * s;
    const step = first / second;
    if (!Number.isFinite(step) || Math.abs(step) < 1e-10) break;
    angle -= Math.max(-0.5, Math.min(0.5, step));
  }
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const distance = Math.hypot(u - a * c, v - b * s);
  const outside = (u / a) ** 2 + (v / b) ** 2 >= 1;
  return { off: outside ? distance : -distance, c, s };
}

function mean(values: Float64Array): number {
  let sum = 0;
  for (const value of values) sum += value;
  return sum / values.length;
}

/** Linear equations by Gauss with the largest pivot; undefined where they have no one answer. */
export function solve(
  matrix: readonly (readonly number[])[],
  right: readonly number[],
): number[] | undefined {
  const rows = matrix.map((row, i) => [...row, right[i]!]);
  const n = rows.length;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(rows[i]![k]!) > Math.abs(rows[pivot]![k]!)) pivot = i;
    [rows[k], rows[pivot]] = [rows[pivot]!, rows[k]!];
    const head = rows[k]![k]!;
    if (Math.abs(head) < 1e-12) return undefined;
    for (let i = k + 1; i < n; i++) {
      const factor = rows[i]![k]! / head;
      for (let j = k; j <= n; j++) rows[i]![j]! -= factor * rows[k]![j]!;
    }
  }
  const answer = Array.from({ length: n }, () => 0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = rows[k]![n]!;
    for (let j = k + 1; j < n; j++) sum -= rows[k]![j]! * answer[j]!;
    answer[k] = sum / rows[k]![k]!;
  }
  return answer;
}
