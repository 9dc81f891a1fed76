import type { Point, Trace } from './trace.js';

/** A straight line through the middle of the points that it stands for, in a direction of length 1. */
export interface FittedLine {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/**
 * Sums over the beginnings of a trace, by which the straight line that fits any piece of it best, and what the points are
 * off it, take no time: total least squares (Pearson 1901, "On lines and planes of closest fit").
 */
export class LineSums {
  private readonly sx: Float64Array;
  private readonly sy: Float64Array;
  private readonly sxx: Float64Array;
  private readonly syy: Float64Array;
  private readonly sxy: Float64Array;

  constructor(private readonly trace: Pick<Trace, 'x' | 'y'>) {
    const { x, y } = trace;
    this.sx = sumsOf(x, (i) => x[i]!);
    this.sy = sumsOf(x, (i) => y[i]!);
    this.sxx = sumsOf(x, (i) => x[i]! * x[i]!);
    this.syy = sumsOf(x, (i) => y[i]! * y[i]!);
    this.sxy = sumsOf(x, (i) => x[i]! * y[i]!);
  }

  /** Squares of the distances of the points `from` to `to` from their line, added up. */
  off(from: number, to: number): number {
    const n = to - from + 1;
    const x = this.sx[to + 1]! - this.sx[from]!;
    const y = this.sy[to + 1]! - this.sy[from]!;
    const xx = this.sxx[to + 1]! - this.sxx[from]! - (x * x) / n;
    const yy = this.syy[to + 1]! - this.syy[from]! - (y * y) / n;
    const xy = this.sxy[to + 1]! - this.sxy[from]! - (x * y) / n;
    const least = (xx + yy - Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy)) / 2;
    return Math.max(0, least);
  }

  /** The line that fits the points `from` to `to`, in the direction in which they were drawn. */
  line(from: number, to: number): FittedLine {
    const n = to - from + 1;
    const x = (this.sx[to + 1]! - this.sx[from]!) / n;
    const y = (this.sy[to + 1]! - this.sy[from]!) / n;
    const xx = this.sxx[to + 1]! - this.sxx[from]! - x * x * n;
    const yy = this.syy[to + 1]! - this.syy[from]! - y * y * n;
    const xy = this.sxy[to + 1]! - this.sxy[from]! - x * y * n;
    const angle = Math.atan2(2 * xy, xx - yy) / 2;
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
    const { x: px, y: py } = this.trace;
    const forward = dx * (px[to]! - px[from]!) + dy * (py[to]! - py[from]!) >= 0;
    return forward ? { x, y, dx, dy } : { x, y, dx: -dx, dy: -dy };
  }
}

/** At i what comes before i, added up. */
function sumsOf({ length }: Float64Array, value: (i: number) => number): Float64Array {
  const sums = new Float64Array(length + 1);
  for (let i = 0; i < length; i++) sums[i + 1] = sums[i]! + value(i);
  return sums;
}

/** Where two lines cross; undefined where they are almost parallel. */
export function crossing(a: FittedLine, b: FittedLine): Point | undefined {
  const cross = a.dx * b.dy - a.dy * b.dx;
  if (Math.abs(cross) < 0.05) return undefined;
  const t = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / cross;
  return [a.x + a.dx * t, a.y + a.dy * t];
}

/** The point of a line that is nearest to another. */
export function footOn({ x, y, dx, dy }: FittedLine, [px, py]: Point): Point {
  const t = (px - x) * dx + (py - y) * dy;
  return [x + dx * t, y + dy * t];
}
