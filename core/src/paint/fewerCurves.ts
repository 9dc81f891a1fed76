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
    x = curves.at(-2)!;
    y = curves.at(-1)!;
  }
  return steps;
}

/** Reused from one path to the next. */
let run: Run | undefined;

function oneRun(): Run {
  return (run ??= new Run());
}

type Six = [number, number, number, number, number, number];

function six(flat: Float64Array, at: number): Six {
  return [...flat.subarray(at, at + 6)] as Six;
}

/**
 * The same for the smooth ring of an outline's corners (see `outline`), six numbers a cubic curve, without the steps
 * between: a handout has hundreds of thousands of them. It begins at the middle of the first two corners. The numbers are
 * good until the next path is fitted.
 */
export function curvesOfRing(ring: readonly (readonly number[])[], tolerance: number): Float64Array {
  const run = oneRun();
  run.ring(ring);
  return run.fit(tolerance);
}

/**
 * Quadratic curves one after the other. Flat numbers, and none taken out of arrays by pattern, which takes a third longer:
 * a page of ink has millions of them.
 */
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
  /** The cubic curves so far. */
  private curves = new Float64Array(512);
  private length = 0;

  begin(x: number, y: number): void {
    this.count = 0;
    this.x[0] = x;
    this.y[0] = y;
  }

  curve(controlX: number, controlY: number, x: number, y: number): void {
    if (2 * this.count + 2 >= this.x.length) this.grow();
    const { x: xs, y: ys, along } = this;
    const at = 2 * this.count;
    const x0 = xs[at]!;
    const y0 = ys[at]!;
    const middleX = (x0 + 2 * controlX + x) / 4;
    const middleY = (y0 + 2 * controlY + y) / 4;
    const half = along[at]! + length(middleX - x0, middleY - y0);
    this.controlX[this.count] = controlX;
    this.controlY[this.count] = controlY;
    xs[at + 1] = middleX;
    ys[at + 1] = middleY;
    along[at + 1] = half;
    xs[at + 2] = x;
    ys[at + 2] = y;
    along[at + 2] = half + length(x - middleX, y - middleY);
    this.count += 1;
  }

  /** All of a ring, from the middle of its first two corners round to there. */
  ring(corners: readonly (readonly number[])[]): void {
    const count = corners.length;
    let [x, y] = corners[0] as [number, number];
    let [nextX, nextY] = corners[1] as [number, number];
    this.begin((x + nextX) / 2, (y + nextY) / 2);
    for (let i = 1; i <= count; i++) {
      const next = corners[i + 1 < count ? i + 1 : i + 1 - count]!;
      x = nextX;
      y = nextY;
      nextX = next[0]!;
      nextY = next[1]!;
      this.curve(x, y, (x + nextX) / 2, (y + nextY) / 2);
    }
  }

  private grow(): void {
    this.x = twice(this.x);
    this.y = twice(this.y);
    this.along = twice(this.along);
    this.controlX = twice(this.controlX);
    this.controlY = twice(this.controlY);
  }

  /** Cubic curves for all of it, two control points and the end of each. */
  fit(tolerance: number): Float64Array {
    this.length = 0;
    let count = FIRST_GUESS;
    for (let from = 0; from < this.count; from += count) {
      count = this.longest(from, Math.min(count, this.count - from), tolerance);
      const end = 2 * (from + count);
      this.add(this.x[end]!, this.y[end]!);
    }
    return this.curves.subarray(0, this.length);
  }

  private add(x: number, y: number): void {
    if (this.length + 2 > this.curves.length) this.curves = twice(this.curves);
    this.curves[this.length++] = x;
    this.curves[this.length++] = y;
  }

  /**
   * Adds the control points of one cubic for as many curves from one on as it fits, and says how many: from a guess on by
   * growing steps until there is one that fits and one that does not, then narrowed down.
   */
  private longest(from: number, guess: number, tolerance: number): number {
    const most = Math.min(LONGEST_RUN, this.count - from);
    let fits = 1;
    let fails = most + 1;
    let tried = Math.min(most, Math.max(2, guess));
    let step = 1;
    let x1 = 0;
    let y1 = 0;
    let x2 = 0;
    let y2 = 0;
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
    if (fits === 1) this.raised(from);
    else {
      this.add(x1, y1);
      this.add(x2, y2);
    }
    return fits;
  }

  /** Exactly the same curve as a cubic one. */
  private raised(i: number): void {
    const { x, y } = this;
    const [cx, cy] = [this.controlX[i]!, this.controlY[i]!];
    const share = 2 / 3;
    for (const end of [2 * i, 2 * i + 2])
      this.add(x[end]! + share * (cx - x[end]!), y[end]! + share * (cy - y[end]!));
  }

  /** Whether one cubic for the curves `from` up to `to` comes close enough; its control points are in `found` then. */
  private cubic(from: number, to: number, tolerance: number): boolean {
    const { x, y, along, found } = this;
    const first = 2 * from;
    const last = 2 * to;
    if (!this.reach(from, to)) return false;
    const x0 = x[first]!;
    const y0 = y[first]!;
    // The curve as a polynomial of t, which takes a third of the multiplications that its control points do.
    const cx = 3 * (found[0]! - x0);
    const cy = 3 * (found[1]! - y0);
    const bx = 3 * (found[2]! - x0) - 2 * cx;
    const by = 3 * (found[3]! - y0) - 2 * cy;
    const ax = x[last]! - x0 - cx - bx;
    const ay = y[last]! - y0 - cy - by;
    const start = along[first]!;
    const perLength = 1 / (along[last]! - start);
    const most = tolerance * tolerance;
    for (let i = first + 1; i < last; i++) {
      const t = (along[i]! - start) * perLength;
      const dx = ((ax * t + bx) * t + cx) * t + x0 - x[i]!;
      const dy = ((ay * t + by) * t + cy) * t + y0 - y[i]!;
      if (dx * dx + dy * dy > most) return false;
    }
    return true;
  }

  /** Finds how far the control points lie from the ends, along the tangents; false where they would turn back. */
  private reach(from: number, to: number): boolean {
    const { x, y, along, found } = this;
    const first = 2 * from;
    const last = 2 * to;
    const x0 = x[first]!;
    const y0 = y[first]!;
    const x3 = x[last]!;
    const y3 = y[last]!;
    let outX = this.controlX[from]! - x0;
    let outY = this.controlY[from]! - y0;
    let backX = this.controlX[to - 1]! - x3;
    let backY = this.controlY[to - 1]! - y3;
    const outLength = length(outX, outY);
    const backLength = length(backX, backY);
    if (outLength < 1e-9 || backLength < 1e-9) return false;
    outX /= outLength;
    outY /= outLength;
    backX /= backLength;
    backY /= backLength;
    const start = along[first]!;
    const perLength = 1 / (along[last]! - start);
    // Of more than two curves the ends say enough: their middles are looked at afterwards.
    const step = to - from > 2 ? 2 : 1;
    let c00 = 0;
    let c01 = 0;
    let c11 = 0;
    let d0 = 0;
    let d1 = 0;
    for (let i = first + step; i < last; i += step) {
      const t = (along[i]! - start) * perLength;
      const u = 1 - t;
      const b1 = 3 * t * u * u;
      const b2 = 3 * t * t * u;
      const far = t * t * (3 - 2 * t);
      const dx = x[i]! - x0 - (x3 - x0) * far;
      const dy = y[i]! - y0 - (y3 - y0) * far;
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

const length = (x: number, y: number) => Math.sqrt(x * x + y * y);

function twice(numbers: Float64Array): Float64Array<ArrayBuffer> {
  const larger = new Float64Array(2 * numbers.length);
  larger.set(numbers);
  return larger;
}
