import type { Path, PathStep } from '../geometry/path.js';

/** Most curves that are drawn as one; longer runs are hardly ever one arc. */
const LONGEST_RUN = 64;

/**
 * The path with runs of quadratic curves drawn by as few cubic ones as stay within `tolerance` page units of
 * them, for files that ink would make large. Least squares between known tangents (Schneider, "An Algorithm for
 * Automatically Fitting Digitized Curves", Graphics Gems, 1990), each run as long as it fits.
 */
export function fewerCurves(path: Path, tolerance: number): PathStep[] {
  const steps: PathStep[] = [];
  let [x, y] = [0, 0];
  for (let i = 0; i < path.length;) {
    const step = path[i]!;
    if (step[0] !== 'Q') {
      steps.push(step);
      if (step[0] !== 'Z') [x, y] = step.slice(-2) as [number, number];
      i += 1;
      continue;
    }
    const run = new Run(path, i, x, y);
    run.fit(tolerance, steps);
    i += run.count;
    [x, y] = [run.x[2 * run.count]!, run.y[2 * run.count]!];
  }
  return steps;
}

/** Quadratic curves one after the other. Flat numbers, since a page of ink has millions of them. */
class Run {
  readonly count: number;
  /** The start, then the middle and the end of each curve. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** How far along these lie, by the lengths of the chords between them. */
  private readonly along: Float64Array;
  private readonly controlX: Float64Array;
  private readonly controlY: Float64Array;

  constructor(path: Path, from: number, x: number, y: number) {
    let to = from;
    while (path[to]?.[0] === 'Q') to += 1;
    this.count = to - from;
    this.x = new Float64Array(2 * this.count + 1);
    this.y = new Float64Array(2 * this.count + 1);
    this.along = new Float64Array(2 * this.count + 1);
    this.controlX = new Float64Array(this.count);
    this.controlY = new Float64Array(this.count);
    this.x[0] = x;
    this.y[0] = y;
    for (let i = 0; i < this.count; i++) {
      const [, controlX, controlY, endX, endY] = path[from + i] as readonly [
        'Q',
        number,
        number,
        number,
        number,
      ];
      this.controlX[i] = controlX;
      this.controlY[i] = controlY;
      this.put(
        2 * i + 1,
        (this.x[2 * i]! + 2 * controlX + endX) / 4,
        (this.y[2 * i]! + 2 * controlY + endY) / 4,
      );
      this.put(2 * i + 2, endX, endY);
    }
  }

  private put(at: number, x: number, y: number): void {
    this.x[at] = x;
    this.y[at] = y;
    this.along[at] = this.along[at - 1]! + Math.hypot(x - this.x[at - 1]!, y - this.y[at - 1]!);
  }

  /** Adds cubic curves for all of it. */
  fit(tolerance: number, steps: PathStep[]): void {
    for (let from = 0; from < this.count;) {
      const { count, step } = this.longest(from, tolerance);
      steps.push(step);
      from += count;
    }
  }

  /** The most curves from one on that are one cubic: doubled while it fits, then narrowed down. */
  private longest(from: number, tolerance: number): { count: number; step: PathStep } {
    const most = Math.min(LONGEST_RUN, this.count - from);
    let best = { count: 1, step: this.raised(from) };
    let [low, high] = [1, Math.min(2, most)];
    while (low < high) {
      const step = this.cubic(from, from + high, tolerance);
      if (!step) break;
      best = { count: high, step };
      [low, high] = [high, Math.min(2 * high, most)];
    }
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      const step = this.cubic(from, from + middle, tolerance);
      if (step) best = { count: middle, step };
      if (step) low = middle;
      else high = middle;
    }
    return best;
  }

  /** Exactly the same curve as a cubic one. */
  private raised(i: number): PathStep {
    const [cx, cy] = [this.controlX[i]!, this.controlY[i]!];
    const [x0, y0] = [this.x[2 * i]!, this.y[2 * i]!];
    const [x1, y1] = [this.x[2 * i + 2]!, this.y[2 * i + 2]!];
    const share = 2 / 3;
    return [
      'C',
      x0 + share * (cx - x0),
      y0 + share * (cy - y0),
      x1 + share * (cx - x1),
      y1 + share * (cy - y1),
      x1,
      y1,
    ];
  }

  /** One cubic for the curves `from` up to `to`, or undefined where none comes close enough. */
  private cubic(from: number, to: number, tolerance: number): PathStep | undefined {
    const [first, last] = [2 * from, 2 * to];
    const [x0, y0, x3, y3] = [this.x[first]!, this.y[first]!, this.x[last]!, this.y[last]!];
    const out = direction(this.controlX[from]! - x0, this.controlY[from]! - y0);
    const back = direction(this.controlX[to - 1]! - x3, this.controlY[to - 1]! - y3);
    const reach = out && back && this.reach(first, last, out, back);
    if (!reach) return undefined;
    const [x1, y1] = [x0 + out[0] * reach[0], y0 + out[1] * reach[0]];
    const [x2, y2] = [x3 + back[0] * reach[1], y3 + back[1] * reach[1]];
    const start = this.along[first]!;
    const length = this.along[last]! - start;
    for (let i = first + 1; i < last; i++) {
      const t = (this.along[i]! - start) / length;
      const u = 1 - t;
      const [b0, b1, b2, b3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
      const dx = b0 * x0 + b1 * x1 + b2 * x2 + b3 * x3 - this.x[i]!;
      const dy = b0 * y0 + b1 * y1 + b2 * y2 + b3 * y3 - this.y[i]!;
      if (dx * dx + dy * dy > tolerance * tolerance) return undefined;
    }
    return ['C', x1, y1, x2, y2, x3, y3];
  }

  /** How far the control points lie from the ends, along the tangents; undefined where they would turn back. */
  private reach(
    first: number,
    last: number,
    out: readonly [number, number],
    back: readonly [number, number],
  ): [number, number] | undefined {
    const [x0, y0, x3, y3] = [this.x[first]!, this.y[first]!, this.x[last]!, this.y[last]!];
    const start = this.along[first]!;
    const length = this.along[last]! - start;
    let [c00, c01, c11, d0, d1] = [0, 0, 0, 0, 0];
    for (let i = first + 1; i < last; i++) {
      const t = (this.along[i]! - start) / length;
      const u = 1 - t;
      const [b1, b2] = [3 * u * u * t, 3 * u * t * t];
      const near = u * u * u + b1;
      const dx = this.x[i]! - x0 * near - x3 * (1 - near);
      const dy = this.y[i]! - y0 * near - y3 * (1 - near);
      c00 += b1 * b1;
      c01 += b1 * b2;
      c11 += b2 * b2;
      d0 += b1 * (out[0] * dx + out[1] * dy);
      d1 += b2 * (back[0] * dx + back[1] * dy);
    }
    c01 *= out[0] * back[0] + out[1] * back[1];
    const determinant = c00 * c11 - c01 * c01;
    if (!(determinant > 1e-12)) return undefined;
    const reach: [number, number] = [
      (d0 * c11 - d1 * c01) / determinant,
      (c00 * d1 - c01 * d0) / determinant,
    ];
    return reach[0] > 0 && reach[1] > 0 ? reach : undefined;
  }
}

function direction(dx: number, dy: number): readonly [number, number] | undefined {
  const length = Math.hypot(dx, dy);
  return length > 1e-9 ? [dx / length, dy / length] : undefined;
}
