import { simplify } from '../ink/simplify.js';
import type { RealFunction } from './functions.js';

export interface Range {
  from: number;
  to: number;
}

export interface Window {
  x: Range;
  y: Range;
}

/** A flat list of x, y. */
type Piece = number[];
type Point = readonly [number, number];

/** A change between neighbours that is larger than this part of the window's height is looked at for a jump. */
const STEEP = 1 / 40;
const HALVINGS = 40;

/**
 * A curve within a window as pieces of lines, flat x, y; it is looked at in so many steps across. Poles, jumps and places without a
 * value part it.
 */
export function curveOf(f: RealFunction, { x, y }: Window, steps: number): Piece[] {
  const high = y.to - y.from;
  const pieces: Piece[] = [];
  let piece: Piece = [];
  const part = () => {
    pieces.push(piece);
    piece = [];
  };
  let [px, py] = [x.from, f(x.from)];
  if (Number.isFinite(py)) piece.push(px, py);
  for (let i = 1; i <= steps; i++) {
    const nx = x.from + ((x.to - x.from) * i) / steps;
    const ny = f(nx);
    const [was, is] = [Number.isFinite(py), Number.isFinite(ny)];
    if (was !== is) {
      const edge = edgeOf(f, px, nx);
      piece.push(edge, f(edge));
      if (was) part();
    } else if (was && isOutside(f, px, py, nx, ny, y)) part();
    else if (was) {
      const gap = breakBetween(f, [px, py], [nx, ny], high);
      if (gap) {
        piece.push(...gap.before);
        part();
        piece.push(...gap.after);
      }
    }
    if (is) piece.push(nx, ny);
    [px, py] = [nx, ny];
  }
  part();
  return pieces.flatMap((each) => clipped(each, y)).filter((each) => each.length >= 4);
}

/** Whether two neighbours lie beyond the window and so does what is between them. */
function isOutside(f: RealFunction, ax: number, ay: number, bx: number, by: number, y: Range): boolean {
  const isBeyond = (value: number) => !(value >= y.from && value <= y.to);
  return isBeyond(ay) && isBeyond(by) && isBeyond(f((ax + bx) / 2)) && ay > y.to !== by > y.to;
}

/**
 * Where a function jumps or has a pole between two neighbours: what stands there on both sides. The change gets no smaller there when
 * the half with the larger change is halved again and again; undefined where it does.
 */
export function breakBetween(
  f: RealFunction,
  [ax, ay]: Point,
  [bx, by]: Point,
  high: number,
): { before: Point; after: Point } | undefined {
  const middle = f((ax + bx) / 2);
  const whole = Math.max(Math.abs(by - ay), Math.abs(middle - ay), Math.abs(by - middle));
  if (whole <= high * STEEP) return undefined;
  for (let i = 0; i < HALVINGS; i++) {
    const mx = (ax + bx) / 2;
    const my = f(mx);
    if (!Number.isFinite(my)) break;
    if (Math.abs(my - ay) > Math.abs(by - my)) [bx, by] = [mx, my];
    else [ax, ay] = [mx, my];
    if (Math.abs(by - ay) < Math.min(whole / 8, high / 400)) return undefined;
  }
  return { before: [ax, ay], after: [bx, by] };
}

/** The last place with a value between one that has one and one that has none. */
function edgeOf(f: RealFunction, a: number, b: number): number {
  let [good, bad] = Number.isFinite(f(a)) ? [a, b] : [b, a];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (good + bad) / 2;
    if (Number.isFinite(f(middle))) good = middle;
    else bad = middle;
  }
  return good;
}

/** What lies within a range of heights of a line (Liang and Barsky 1984, for the two edges that a graph can cross). */
function clipped(piece: Piece, { from, to }: Range): Piece[] {
  const out: Piece[] = [];
  let current: Piece = [];
  for (let i = 0; i + 3 < piece.length; i += 2) {
    const [ax, ay, bx, by] = piece.slice(i, i + 4) as [number, number, number, number];
    const cut = (at: number) => (ay === by ? 0 : (at - ay) / (by - ay));
    const [low, high] = ay <= by ? [cut(from), cut(to)] : [cut(to), cut(from)];
    const isFlat = ay === by;
    const [enter, leave] = isFlat
      ? [0, ay >= from && ay <= to ? 1 : -1]
      : [Math.max(0, low), Math.min(1, high)];
    if (enter > leave) continue;
    const at = (part: number) => (part === 1 ? [bx, by] : [ax + (bx - ax) * part, ay + (by - ay) * part]);
    const [x, y] = at(enter) as [number, number];
    if (current.at(-2) !== x || current.at(-1) !== y) {
      out.push(current);
      current = [x, y];
    }
    if (leave > enter) current.push(...at(leave));
  }
  return [...out, current];
}

/** As few points as show the same line, none farther from it than `tolerance`. */
export function thinned(piece: readonly number[], tolerance: number): number[] {
  const withPressure: number[] = [];
  for (let i = 0; i < piece.length; i += 2) withPressure.push(piece[i]!, piece[i + 1]!, 0, 0);
  return simplify(withPressure, tolerance).filter((_, i) => i % 4 < 2);
}
