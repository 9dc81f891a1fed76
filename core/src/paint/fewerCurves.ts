import type { Path, PathStep } from '../geometry/path.js';

/** Most curves that are drawn as one; longer runs are hardly ever one arc. */
const LONGEST_RUN = 64;
/** How many curves the first one drawn is tried for; the others begin with what the one before stood for. */
const FIRST_GUESS = 4;

/**
 * The path with runs of quadratic curves drawn by as few cubic ones as stay within `tolerance` page units of
 * them, for files that ink would make large. Least squares between known tangents (Schneider, "An Algorithm for
 * Automatically Fitting Digitized Curves", Graphics Gems, 1990), each run as long as it fits.
 */
export function fewerCurves(path: Path, tolerance: number): PathStep[] {
  const steps: PathStep[] = [];
  const run = oneRun();
  let [x, y] = [0, 0];
  for (let i = 0; i < path.length;) {
    const step = path[i]!;
    if (step[0] !== 'Q') {
      steps.push(step);
      if (step[0] !== 'Z') [x, y] = step.slice(-2) as [number, number];
      i += 1;
      continue;
    }
    run.begin(x, y);
    for (; path[i]?.[0] === 'Q'; i++) run.curve(...(path[i]!.slice(1) as [number, number, number, number]));
    const curves = run.fit(tolerance);
    for (let at = 0; at < curves.length; at += 6) steps.push(['C', ...six(curves, at)]);
    [x, y] = curves.slice(-2) as [number, number];
  }
  return steps;
}

/** Reused from one path to the next. */
let run: Run | undefined;

function oneRun(): Run {
  return (run ??= new Run());
}

function six(flat: readonly number[], at: number): [number, number, number, number, number, number] {
  return flat.slice(at, at + 6) as [number, number, number, number, number, number];
}

/**
 * The same for the smooth ring of an outline's corners (see `outline`), six numbers a cubic curve, without the steps
 * between: a handout has hundreds of thousands of them. It begins at the middle of the first two corners.
 */
export function curvesOfRing(ring: readonly (readonly number[])[], tolerance: number): number[] {
  const run = oneRun();
  const count = ring.length;
  let [x, y] = ring[0] as [number, number];
  let [nextX, nextY] = ring[1] as [number, number];
  run.begin((x + nextX) / 2, (y + nextY) / 2);
  for (let i = 1; i <= count; i++) {
    [x, y] = [nextX, nextY];
    const next = ring[(i + 1) % count]!;
    nextX = next[0]!;
    nextY = next[1]!;
    run.curve(x, y, (x + nextX) / 2, (y + nextY) / 2);
  }
  return run.fit(tolerance);
}

/** Quadratic curves one after the other. Flat numbers, since a page of ink has millions of them. */
class Run {
  private count = 0;
  /** The start, then the middle and the end of each curve. */
  private x = new Float64Array(512);
  private y = new Float64Array(512);
  /** How far along these lie, by the lengths of the chords between them. */
  private along = new Float64Array(512);
  /** The control point of each curve. */
  private controlX = new Float64Array(256);
  private controlY = new Float64Array(256);
  /** What `cubic` found last. */
  private readonly found = new Float64Array(4);

  begin(x: number, y: number): void {
    this.count = 0;
    this.x[0] = x;
    this.y[0] = y;
  }

  curve(controlX: number, controlY: number, x: number, y: number): void {
    const at = 2 * this.count;
    if (at + 2 >= this.x.length) this.grow();
    this.controlX[this.count] = controlX;
    this.controlY[this.count] = controlY;
    this.put(at + 1, (this.x[at]! + 2 * controlX + x) / 4, (this.y[at]! + 2 * controlY + y) / 4);
    this.put(at + 2, x, y);
    this.count += 1;
  }

  private put(at: number, x: number, y: number): void {
    const [dx, dy] = [x - this.x[at - 1]!, y - this.y[at - 1]!];
    this.x[at] = x;
    this.y[at] = y;
    this.along[at] = this.along[at - 1]! + Math.sqrt(dx * dx + dy * dy);
  }

  private grow(): void {
    this.x = twice(this.x);
    this.y = twice(this.y);
    this.along = twice(this.along);
    this.controlX = twice(this.controlX);
    this.controlY = twice(this.controlY);
  }

  /** Cubic curves for all of it, two control points and the end of each. */
  fit(tolerance: number): number[] {
    const curves: number[] = [];
    let count = FIRST_GUESS;
    for (let from = 0; from < this.count; from += count) {
      count = this.longest(from, Math.min(count, this.count - from), tolerance, curves);
      const end = 2 * (from + count);
      curves.push(this.x[end]!, this.y[end]!);
    }
    return curves;
  }

  /**
   * Adds the control points of one cubic for as many curves from one on as it fits, and says how many: from a guess on by
   * growing steps until there is one that fits and one that does not, then narrowed down.
   */
  private longest(from: number, guess: number, tolerance: number, curves: number[]): number {
    const most = Math.min(LONGEST_RUN, this.count - from);
    let [fits, fails, tried, step] = [1, most + 1, Math.min(most, Math.max(2, guess)), 1];
    let [x1, y1, x2, y2] = [0, 0, 0, 0];
    while (fails - fits > 1) {
      if (this.cubic(from, from + tried, tolerance)) {
        fits = tried;
        x1 = this.found[0]!;
        y1 = this.found[1]!;
        x2 = this.found[2]!;
        y2 = this.found[3]!;
        tried = fails > most ? Math.min(most, fits + step) : (fits + fails) >> 1;
      } else {
        fails = tried;
        tried = fits === 1 ? Math.max(2, fails - step) : (fits + fails) >> 1;
      }
      step *= 2;
    }
    if (fits > 1) curves.push(x1, y1, x2, y2);
    else this.raised(from, curves);
    return fits;
  }

  /** Exactly the same curve as a cubic one. */
  private raised(i: number, curves: number[]): void {
    const [cx, cy] = [this.controlX[i]!, this.controlY[i]!];
    const [x0, y0] = [this.x[2 * i]!, this.y[2 * i]!];
    const [x1, y1] = [this.x[2 * i + 2]!, this.y[2 * i + 2]!];
    const share = 2 / 3;
    curves.push(
      x0 + share * (cx - x0),
      y0 + share * (cy - y0),
      x1 + share * (cx - x1),
      y1 + share * (cy - y1),
    );
  }

  /** Whether one cubic for the curves `from` up to `to` comes close enough; its control points are in `found` then. */
  private cubic(from: number, to: number, tolerance: number): boolean {
    const { x, y, along, found } = this;
    const [first, last] = [2 * from, 2 * to];
    if (!this.reach(from, to)) return false;
    const [x0, y0, x3, y3] = [x[first]!, y[first]!, x[last]!, y[last]!];
    const [x1, y1, x2, y2] = [found[0]!, found[1]!, found[2]!, found[3]!];
    const start = along[first]!;
    const length = along[last]! - start;
    const most = tolerance * tolerance;
    for (let i = first + 1; i < last; i++) {
      const t = (along[i]! - start) / length;
      const u = 1 - t;
      const b0 = u * u * u;
      const b1 = 3 * u * u * t;
      const b2 = 3 * u * t * t;
      const b3 = t * t * t;
      const dx = b0 * x0 + b1 * x1 + b2 * x2 + b3 * x3 - x[i]!;
      const dy = b0 * y0 + b1 * y1 + b2 * y2 + b3 * y3 - y[i]!;
      if (dx * dx + dy * dy > most) return false;
    }
    return true;
  }

  /** Finds how far the control points lie from the ends, along the tangents; false where they would turn back. */
  private reach(from: number, to: number): boolean {
    const { x, y, along, found } = this;
    const [first, last] = [2 * from, 2 * to];
    const [x0, y0, x3, y3] = [x[first]!, y[first]!, x[last]!, y[last]!];
    let [outX, outY] = [this.controlX[from]! - x0, this.controlY[from]! - y0];
    let [backX, backY] = [this.controlX[to - 1]! - x3, this.controlY[to - 1]! - y3];
    const [outLength, backLength] = [
      Math.sqrt(outX * outX + outY * outY),
      Math.sqrt(backX * backX + backY * backY),
    ];
    if (outLength < 1e-9 || backLength < 1e-9) return false;
    outX /= outLength;
    outY /= outLength;
    backX /= backLength;
    backY /= backLength;
    const start = along[first]!;
    const length = along[last]! - start;
    let [c00, c01, c11, d0, d1] = [0, 0, 0, 0, 0];
    for (let i = first + 1; i < last; i++) {
      const t = (along[i]! - start) / length;
      const u = 1 - t;
      const b1 = 3 * u * u * t;
      const b2 = 3 * u * t * t;
      const near = u * u * u + b1;
      const dx = x[i]! - x0 * near - x3 * (1 - near);
      const dy = y[i]! - y0 * near - y3 * (1 - near);
      c00 += b1 * b1;
      c01 += b1 * b2;
      c11 += b2 * b2;
      d0 += b1 * (outX * dx + outY * dy);
      d1 += b2 * (backX * dx + backY * dy);
    }
    c01 *= outX * backX + outY * backY;
    const determinant = c00 * c11 - c01 * c01;
    if (!(determinant > 1e-12)) return false;
    const out = (d0 * c11 - d1 * c01) / determinant;
    const back = (c00 * d1 - c01 * d0) / determinant;
    if (!(out > 0 && back > 0)) return false;
    found[0] = x0 + outX * out;
    found[1] = y0 + outY * out;
    found[2] = x3 + backX * back;
    found[3] = y3 + backY * back;
    return true;
  }
}

function twice(numbers: Float64Array): Float64Array<ArrayBuffer> {
  const larger = new Float64Array(2 * numbers.length);
  larger.set(numbers);
  return larger;
}
