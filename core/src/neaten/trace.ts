import { STRIDE } from '../ink/points.js';

export type Point = readonly [number, number];

/** A drawn line as evenly spaced points, which do not tell how fast the hand went. */
export interface Trace {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Whether the last point leads back to the first. */
  readonly closed: boolean;
  /** Diagonal of its bounds, page units. */
  readonly size: number;
  readonly length: number;
  /** Distance of the drawn ends of a closed line, as part of its length. */
  readonly gap: number;
}

/** Points of a trace; for a closed one the first comes again at the end. */
export const TRACE_POINTS = 129;

/** Ends that lie apart by no more than this part of the length may be meant to meet. */
const MOST_GAP = 0.16;
/** How much of a line's ends may lie beyond the place where they meet. */
const MOST_TAIL = 0.09;
/** Strokes whose ends lie apart by no more than this part of the drawing's size go on from one to the next. */
const MOST_STEP = 0.22;

/** The places of a stroke, each once. */
export function pointsOfStroke(flat: readonly number[]): Point[] {
  const points: Point[] = [];
  for (let i = 0; i + 1 < flat.length; i += STRIDE) {
    const [x, y] = [flat[i]!, flat[i + 1]!];
    const last = points.at(-1);
    if (!last || last[0] !== x || last[1] !== y) points.push([x, y]);
  }
  return points;
}

/** Diagonal of the bounds of some lines. */
export function sizeOf(lines: readonly (readonly Point[])[]): number {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const line of lines)
    for (const [x, y] of line) {
      x0 = Math.min(x0, x);
      x1 = Math.max(x1, x);
      y0 = Math.min(y0, y);
      y1 = Math.max(y1, y);
    }
  return x1 < x0 ? 0 : Math.hypot(x1 - x0, y1 - y0);
}

/** Strokes as one line, each turned round as need be so that it goes on where the one before ends; undefined where one does not. */
export function joined(strokes: readonly (readonly Point[])[]): Point[] | undefined {
  const most = MOST_STEP * sizeOf(strokes);
  const rest = [...strokes];
  let line = [...(rest.shift() ?? [])];
  while (rest.length > 0) {
    const next = nearestEnd(line, rest);
    if (next.distance > most) return undefined;
    const [stroke] = rest.splice(next.index, 1) as [Point[]];
    const piece = next.reversed ? stroke.toReversed() : stroke;
    line = next.before ? [...piece.toReversed(), ...line] : [...line, ...piece];
  }
  return line;
}

interface NearestEnd {
  index: number;
  distance: number;
  /** Whether the stroke's last point is the near one. */
  reversed: boolean;
  /** Whether it lies at the start of the line. */
  before: boolean;
}

function nearestEnd(line: readonly Point[], strokes: readonly (readonly Point[])[]): NearestEnd {
  let best: NearestEnd = { index: 0, distance: Infinity, reversed: false, before: false };
  strokes.forEach((stroke, index) => {
    for (const before of [false, true])
      for (const reversed of [false, true]) {
        const distance = apart(before ? line[0]! : line.at(-1)!, reversed ? stroke.at(-1)! : stroke[0]!);
        if (distance < best.distance) best = { index, distance, reversed, before };
      }
  });
  return best;
}

/** The line as it was drawn from end to end. */
export function openTrace(line: readonly Point[]): Trace {
  return { ...evenly(line), closed: false, size: sizeOf([line]), gap: 0 };
}

/** The line with its ends brought together, without what lies beyond where they meet; undefined where they are far apart. */
export function closedTrace(line: readonly Point[]): Trace | undefined {
  const whole = evenly(line);
  const [from, to] = meeting(whole);
  const cut: Point[] = [];
  for (let i = from; i <= to; i++) cut.push([whole.x[i]!, whole.y[i]!]);
  const drawn = (whole.length * (to - from)) / (TRACE_POINTS - 1);
  const gap = apart(cut[0]!, cut.at(-1)!) / (drawn || 1);
  if (gap > MOST_GAP || cut.length < TRACE_POINTS / 2) return undefined;
  return { ...evenly([...cut, cut[0]!]), closed: true, size: sizeOf([cut]), gap };
}

/** The points near either end that lie closest together, as little as possible cut off. */
function meeting({ x, y, length }: Pick<Trace, 'x' | 'y' | 'length'>): [number, number] {
  const tail = Math.floor(TRACE_POINTS * MOST_TAIL);
  const last = TRACE_POINTS - 1;
  const spacing = length / last;
  let best: [number, number] = [0, last];
  let least = Infinity;
  for (let i = 0; i <= tail; i++)
    for (let j = last; j >= last - tail; j--) {
      const distance = Math.hypot(x[i]! - x[j]!, y[i]! - y[j]!) + 0.15 * spacing * (i + last - j);
      if (distance < least) [least, best] = [distance, [i, j]];
    }
  return best;
}

function evenly(line: readonly Point[]): Pick<Trace, 'x' | 'y' | 'length'> {
  const along = [0];
  for (let i = 1; i < line.length; i++) along.push(along[i - 1]! + apart(line[i - 1]!, line[i]!));
  const length = along.at(-1) ?? 0;
  const [x, y] = [new Float64Array(TRACE_POINTS), new Float64Array(TRACE_POINTS)];
  let at = 1;
  for (let i = 0; i < TRACE_POINTS; i++) {
    const place = (length * i) / (TRACE_POINTS - 1);
    while (at < line.length - 1 && along[at]! < place) at += 1;
    const [a, b] = [line[at - 1]!, line[Math.min(at, line.length - 1)]!];
    const step = (along[at] ?? 0) - along[at - 1]!;
    const t = step > 0 ? Math.min(1, Math.max(0, (place - along[at - 1]!) / step)) : 0;
    x[i] = a[0] + (b[0] - a[0]) * t;
    y[i] = a[1] + (b[1] - a[1]) * t;
  }
  return { x, y, length };
}

export function apart(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1]);
}
