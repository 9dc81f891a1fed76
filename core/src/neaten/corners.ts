import type { FittedLine } from './lines.js';
import { crossing, footOn, LineSums } from './lines.js';
import type { Point, Trace } from './trace.js';
import { apart } from './trace.js';

/** A trace as straight pieces. */
export interface Cornered {
  /** Corners in the order in which they were drawn; an open line's ends among them. */
  readonly corners: readonly Point[];
  /** Which of the trace's points end the pieces; those of a closed one are counted from a corner. */
  readonly places: readonly number[];
  /** How much of the turning is at the corners: 0 where it turns evenly, as something round does, 1 where it does at corners only. */
  readonly sharpness: number;
  /** Root of the mean square of what the points are off, as part of the trace's size. */
  readonly off: number;
}

/** Points that the shortest side has at least, of those of a trace. */
const LEAST_SIDE = 4;
/** What a hand is off a straight line at least, as part of the drawing's size. */
const LEAST_TREMOR = 0.0055;
/** Part of a side at either end that may be rounded, and does not count for the side's line. */
const ROUNDED = 0.14;
/** A corner that turns by less is none, degrees. */
const LEAST_TURN = 17;
/** A corner lies at most so far from where the pieces meet, as part of the size. */
const FARTHEST_CORNER = 0.12;

/**
 * The trace as any number of straight pieces up to `most`: for each number the pieces that are off the least, by dynamic
 * programming (Bellman 1961, "On the approximation of curves by line segments using dynamic programming").
 */
export function corneredTraces(trace: Trace, most: number): Cornered[] {
  const started = trace.closed ? startedAt(trace, sharpest(trace)) : trace;
  const sums = new LineSums(started);
  const breaks = bestBreaks(sums, started.x.length, most);
  return breaks.map((places) => corneredAt(started, sums, places));
}

/** Where the trace turns most, over a few points to either side. */
function sharpest({ x, y }: Trace): number {
  const count = x.length - 1;
  const reach = 6;
  let [best, most] = [0, -1];
  for (let i = 0; i < count; i++) {
    const [a, b] = [(i - reach + count) % count, (i + reach) % count];
    const turn = Math.abs(angleBetween(x[i]! - x[a]!, y[i]! - y[a]!, x[b]! - x[i]!, y[b]! - y[i]!));
    if (turn > most) [best, most] = [i, turn];
  }
  return best;
}

function startedAt(trace: Trace, first: number): Trace {
  const count = trace.x.length - 1;
  const turned = (values: Float64Array) =>
    Float64Array.from({ length: count + 1 }, (_, i) => values[(first + i) % count]!);
  return { ...trace, x: turned(trace.x), y: turned(trace.y) };
}

/** For 1, 2, … pieces, where they end. */
function bestBreaks(sums: LineSums, count: number, most: number): number[][] {
  const last = count - 1;
  const off = new Float64Array(count * count);
  for (let j = LEAST_SIDE; j < count; j++)
    for (let i = 0; i <= j - LEAST_SIDE; i++) off[j * count + i] = sums.off(i, j);
  let cost = Float64Array.from({ length: count }, (_, j) => (j >= LEAST_SIDE ? off[j * count]! : Infinity));
  const from: Int16Array[] = [new Int16Array(count)];
  const found: number[][] = [[0, last]];
  for (let pieces = 2; pieces <= most; pieces++) {
    const next = new Float64Array(count).fill(Infinity);
    const came = new Int16Array(count);
    for (let j = pieces * LEAST_SIDE; j < count; j++) {
      let [least, at] = [Infinity, 0];
      for (let i = (pieces - 1) * LEAST_SIDE; i <= j - LEAST_SIDE; i++) {
        const sum = cost[i]! + off[j * count + i]!;
        if (sum < least) {
          least = sum;
          at = i;
        }
      }
      next[j] = least;
      came[j] = at;
    }
    cost = next;
    from.push(came);
    const places = [last];
    for (let k = pieces - 1; k >= 0; k--) places.unshift(from[k]![places[0]!]!);
    found.push(places);
  }
  return found;
}

function corneredAt(trace: Trace, sums: LineSums, places: readonly number[]): Cornered {
  const sides = places.slice(1).map((to, i): FittedLine => {
    const from = places[i]!;
    const spare = Math.floor((to - from) * ROUNDED);
    return sums.line(from + spare, to - spare);
  });
  return {
    corners: cornersOf(trace, sides, places),
    places,
    off: offOf(trace, sides, places),
    sharpness: sharpnessOf(trace, places),
  };
}

function cornersOf(trace: Trace, sides: readonly FittedLine[], places: readonly number[]): Point[] {
  const at = (i: number): Point => [trace.x[places[i]!]!, trace.y[places[i]!]!];
  const meet = (before: FittedLine, after: FittedLine, i: number): Point => {
    const corner = crossing(before, after);
    return corner && apart(corner, at(i)) <= FARTHEST_CORNER * trace.size ? corner : at(i);
  };
  const inner = sides.slice(1).map((side, i) => meet(sides[i]!, side, i + 1));
  if (trace.closed) return sides.length < 2 ? [at(0), at(1)] : [meet(sides.at(-1)!, sides[0]!, 0), ...inner];
  return [footOn(sides[0]!, at(0)), ...inner, footOn(sides.at(-1)!, at(places.length - 1))];
}

/** What the inner points of the sides are off their lines; rounded corners are no fault. */
function offOf(trace: Trace, sides: readonly FittedLine[], places: readonly number[]): number {
  let [sum, count] = [0, 0];
  sides.forEach(({ x, y, dx, dy }, side) => {
    const [from, to] = [places[side]!, places[side + 1]!];
    const spare = Math.floor((to - from) * ROUNDED);
    for (let i = from + spare; i <= to - spare; i++) {
      const off = (trace.x[i]! - x) * dy - (trace.y[i]! - y) * dx;
      sum += off * off;
      count += 1;
    }
  });
  return Math.sqrt(sum / count) / trace.size;
}

/** Points before and after a corner between which its turning is measured, and those by which the directions there are. */
const TURN = { near: 2, far: 5 };

function sharpnessOf({ x, y, closed }: Trace, places: readonly number[]): number {
  if (!closed) return 1;
  const count = x.length - 1;
  const at = (i: number) => (i + count) % count;
  let turned = 0;
  for (const place of places.slice(1)) {
    const [a, b] = [at(place - TURN.far), at(place - TURN.near)];
    const [c, d] = [at(place + TURN.near), at(place + TURN.far)];
    turned += angleBetween(x[b]! - x[a]!, y[b]! - y[a]!, x[d]! - x[c]!, y[d]! - y[c]!);
  }
  const evenly = ((places.length - 1) * (TURN.near + TURN.far)) / count;
  return (Math.abs(turned) / (2 * Math.PI) - evenly) / (1 - evenly);
}

/** Whether any corner hardly turns, so that there are fewer than it says. */
export function hasFlatCorner({ corners }: Cornered, closed: boolean): boolean {
  const count = corners.length;
  return corners.some((corner, i) => {
    if (!closed && (i === 0 || i === count - 1)) return false;
    const [a, b] = [corners[(i - 1 + count) % count]!, corners[(i + 1) % count]!];
    const turn = angleBetween(corner[0] - a[0], corner[1] - a[1], b[0] - corner[0], b[1] - corner[1]);
    return Math.abs(turn) < (LEAST_TURN * Math.PI) / 180;
  });
}

/** What a piece more has to be worth: its tremor is guessed from the finest division. */
export function tremorOf(all: readonly Cornered[]): number {
  return Math.max(LEAST_TREMOR, ...all.slice(-1).map(({ off }) => 1.3 * off));
}

/** Angle from one direction to another, radians, positive clockwise on screen. */
export function angleBetween(ax: number, ay: number, bx: number, by: number): number {
  return Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
}
