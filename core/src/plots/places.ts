import type { Range } from './curve.js';
import { breakBetween } from './curve.js';
import type { RealFunction } from './functions.js';

export interface Place {
  x: number;
  y: number;
}

const HALVINGS = 60;
/** How often the smallest part of a range is narrowed by the golden section: far below what a number can tell. */
const NARROWINGS = 80;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** A value that is smaller than this part of those round it is 0. */
const NOTHING = 1e-9;

/** Where a function is 0 within a range that is looked at in so many steps: where its sign changes, and where it touches 0. */
export function rootsOf(f: RealFunction, range: Range, steps: number): number[] {
  const step = (range.to - range.from) / steps;
  const found: number[] = [];
  const add = (root: number) => {
    if (!found.some((other) => Math.abs(other - root) < step / 100)) found.push(root);
  };
  for (const [a, b] of neighbours(range, steps)) {
    const [fa, fb] = [f(a), f(b)];
    if (fa === 0 && isAlone(f, a, step)) add(a);
    if (!(fa * fb < 0)) continue;
    const root = signChange(f, a, b);
    // At a pole or a jump the sign changes too.
    if (Math.abs(f(root)) < 1e-6 * (1 + Math.min(Math.abs(fa), Math.abs(fb)))) add(root);
  }
  for (const { x, y, scale } of turnings(f, range, steps)) if (Math.abs(y) < NOTHING * (1 + scale)) add(x);
  return found.sort((a, b) => a - b);
}

/** Where a function is larger, or smaller, than all round it within a range. */
export function extremaOf(f: RealFunction, range: Range, steps: number): Place[] {
  return turnings(f, range, steps).map(({ x, y }) => ({ x, y }));
}

/** Where two functions have the same value within a range. */
export function crossingsOf(f: RealFunction, g: RealFunction, range: Range, steps: number): Place[] {
  return rootsOf((x) => f(x) - g(x), range, steps).map((x) => ({ x, y: f(x) }));
}

/** Whether a 0 stands alone; where a stretch is 0, no place of it is meant. */
function isAlone(f: RealFunction, x: number, step: number): boolean {
  return [-step / 7, step / 7].every((off) => f(x + off) !== 0);
}

function turnings(f: RealFunction, range: Range, steps: number): (Place & { scale: number })[] {
  const step = (range.to - range.from) / steps;
  const found: (Place & { scale: number })[] = [];
  for (const [a, b] of neighbours({ from: range.from, to: range.to - step }, steps - 1)) {
    const [left, middle, right] = [f(a), f(b), f(b + step)];
    if (![left, middle, right].every(Number.isFinite)) continue;
    const isMost = middle > left && middle >= right;
    if (!isMost && !(middle < left && middle <= right)) continue;
    const x = lowest(isMost ? (at) => -f(at) : f, a, b + step);
    const y = f(x);
    const scale = Math.abs(middle - left) + Math.abs(middle - right);
    if (turnsAt(f, x, y, step, isMost, scale)) found.push({ x: rounded(x, step), y, scale });
  }
  return found;
}

/** Whether a function has a turning there: no step, no end of a jump and no pole. */
function turnsAt(
  f: RealFunction,
  x: number,
  y: number,
  step: number,
  isMost: boolean,
  scale: number,
): boolean {
  const isBelow = (other: number) => (isMost ? other < y : other > y);
  if (!Number.isFinite(y) || !isBelow(f(x - step)) || !isBelow(f(x + step))) return false;
  const near = step / 1000;
  return [x - near, x + near].every(
    (other) => Math.abs(f(other) - y) <= scale * 0.05 && !breakBetween(f, [other, f(other)], [x, y], scale),
  );
}

/** The golden section finds a turning only as well as values differ round it; what is a plain number is meant to be one. */
function rounded(x: number, step: number): number {
  const unit = 10 ** Math.floor(Math.log10(step) - 4);
  const plain = Math.round(x / unit) * unit;
  return Math.abs(plain - x) < unit / 10 ? Number(plain.toPrecision(12)) : x;
}

function* neighbours({ from, to }: Range, steps: number): Generator<[number, number]> {
  for (let i = 0; i < steps; i++)
    yield [from + ((to - from) * i) / steps, from + ((to - from) * (i + 1)) / steps];
}

/** Bisection: where the sign changes between two places. */
function signChange(f: RealFunction, a: number, b: number): number {
  const fa = f(a);
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (a + b) / 2;
    const value = f(middle);
    if (value === 0) return middle;
    if (value * fa < 0) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
}

/** Where a function is least between two places (golden section; Kiefer 1953). */
function lowest(f: RealFunction, a: number, b: number): number {
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  for (let i = 0; i < NARROWINGS; i++) {
    if (f(c) < f(d)) b = d;
    else a = c;
    [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  }
  return (a + b) / 2;
}
