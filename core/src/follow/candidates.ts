import type { Rect } from '../geometry/rect.js';
import type { Frame } from './frame.js';

/** Width of the strips whose rows are looked up, pixels, and of the parts that make a row's signature. */
const STRIP = 64;
const PART = 16;
/** Every so many pixels of a row are looked at. */
const STEP = 4;
/** Rows that occur more often than this in a strip say nothing of how far it moved. */
const MAX_OCCURRENCES = 4;
/** A row with less change than this along it is blank. */
const BLANK = 30;
const BUCKETS = 4096;

/** A direction in which content is scrolled. */
export type Axis = 'x' | 'y';

/**
 * The most likely shifts along an axis within an area, best first. Two methods, since each fails
 * where the other does not: rows that are equal to the bit in both frames vote for how far they have
 * moved (exact scrolls, also of a part of the screen), and profiles of edges are correlated (scaled
 * or compressed pictures). Along x the same is done with columns.
 */
export function likelyShifts(before: Frame, now: Frame, area: Rect, axis: Axis, count: number): number[] {
  const [a, b] = [featuresOf(before, axis), featuresOf(now, axis)];
  const span: Span =
    axis === 'y'
      ? { from: area.y, to: area.y + area.height, left: area.x, right: area.x + area.width }
      : { from: area.x, to: area.x + area.width, left: area.y, right: area.y + area.height };
  const votes = rowVotes(a, b, span);
  const found = best(votes, Math.ceil(count / 2));
  if (isDecided(votes, found, a.height)) return found;
  for (const shift of best(profileCorrelation(edgesOf(a), edgesOf(b), span), count))
    if (!found.includes(shift)) found.push(shift);
  return found.slice(0, count);
}

/** Rows from `from` to `to`, and the part of them from `left` to `right`; the ends are left out. */
interface Span {
  from: number;
  to: number;
  left: number;
  right: number;
}

interface Features {
  height: number;
  strips: number;
  /** A number for each row of each strip that equal rows share; 0 for blank ones. */
  signatures: Int32Array;
  /** How much each row differs from the one above; computed when it is first asked for. */
  edges: Float32Array | undefined;
  frame: Frame;
}

/** So many rows of strips have to agree before the votes are taken for decided, and so many times the next. */
const DECIDED_VOTES = 200;
const DECIDED_TIMES = 4;

function isDecided(votes: Float64Array, [first, second]: readonly number[], height: number): boolean {
  if (first === undefined) return false;
  const most = votes[first + height]!;
  return most >= DECIDED_VOTES && (second === undefined || most >= DECIDED_TIMES * votes[second + height]!);
}

function edgesOf(features: Features): Float32Array {
  features.edges ??= edgeProfile(features.frame);
  return features.edges;
}

/** A frame is compared twice, with the one before and the one after it. */
const known: Record<Axis, WeakMap<Frame, Features>> = { x: new WeakMap(), y: new WeakMap() };

function featuresOf(frame: Frame, axis: Axis): Features {
  let features = known[axis].get(frame);
  if (!features) {
    const upright = axis === 'y' ? frame : transposed(frame);
    const strips = Math.floor(upright.width / STRIP);
    features = {
      height: upright.height,
      strips,
      signatures: signaturesOf(upright, strips),
      edges: undefined,
      frame: upright,
    };
    known[axis].set(frame, features);
  }
  return features;
}

function transposed({ width, height, grey }: Frame): Frame {
  const out = new Uint8Array(grey.length);
  for (let y = 0; y < height; y++)
    for (let x = 0, from = y * width; x < width; x++, from++) out[x * height + y] = grey[from]!;
  return { width: height, height: width, grey: out };
}

/** How many rows, strip by strip, are found again at each shift; index `height` is no shift. */
function rowVotes(a: Features, b: Features, { from, to, left, right }: Span): Float64Array {
  const { height } = a;
  const votes = new Float64Array(2 * height + 1);
  const head = new Int32Array(BUCKETS);
  const next = new Int32Array(height);
  for (let strip = Math.ceil(left / STRIP); strip < a.strips && (strip + 1) * STRIP <= right; strip++) {
    const before = a.signatures.subarray(strip * height, (strip + 1) * height);
    const now = b.signatures.subarray(strip * height, (strip + 1) * height);
    head.fill(-1);
    for (let y = to - 1; y >= from; y--) {
      if (before[y] === 0) continue;
      const bucket = bucketOf(before[y]!);
      next[y] = head[bucket]!;
      head[bucket] = y;
    }
    for (let y = from; y < to; y++) {
      if (now[y] !== 0 && now[y] !== before[y]) vote(votes, before, next, head, now[y]!, y);
    }
  }
  votes[height] = 0;
  return votes;
}

function vote(
  votes: Float64Array,
  before: Int32Array,
  next: Int32Array,
  head: Int32Array,
  signature: number,
  y: number,
): void {
  let occurrences = 0;
  const first = head[bucketOf(signature)]!;
  for (let at = first; at >= 0; at = next[at]!) if (before[at] === signature) occurrences++;
  if (occurrences === 0 || occurrences > MAX_OCCURRENCES) return;
  for (let at = first; at >= 0; at = next[at]!) {
    if (before[at] === signature) votes[y - at + before.length]! += 1 / occurrences;
  }
}

const bucketOf = (signature: number) => (Math.imul(signature, 0x9e3779b1) >>> 20) % BUCKETS;

function signaturesOf({ width, height, grey }: Frame, strips: number): Int32Array {
  const out = new Int32Array(strips * height);
  for (let y = 0; y < height; y++) {
    let at = y * width;
    for (let strip = 0; strip < strips; strip++) {
      let hash = 17;
      let change = 0;
      let last = grey[at]!;
      for (let part = 0; part < STRIP; part += PART) {
        let sum = 0;
        for (let i = 1; i <= PART; i += STEP, at += STEP) {
          const here = grey[at]!;
          // Unlike weights, so that moving something sideways within a part changes the sum.
          sum += here * i;
          change += here > last ? here - last : last - here;
          last = here;
        }
        hash = Math.imul(hash ^ sum, 0x01000193);
      }
      out[strip * height + y] = change < BLANK ? 0 : hash | 1;
    }
  }
  return out;
}

/** Normalised correlation of the edge profiles at each shift; index `height` is no shift. */
function profileCorrelation(a: Float32Array, b: Float32Array, { from, to }: Span): Float64Array {
  const height = a.length;
  const scores = new Float64Array(2 * height + 1);
  const rows = to - from;
  const [p, q] = [aboutMean(a, from, to), aboutMean(b, from, to)];
  const [squaresP, squaresQ] = [runningSquares(p), runningSquares(q)];
  const most = Math.floor(rows * 0.8);
  for (let shift = -most; shift <= most; shift++) {
    if (shift === 0) continue;
    const first = Math.max(0, shift);
    const end = Math.min(rows, rows + shift);
    let product = 0;
    for (let y = first; y < end; y++) product += p[y - shift]! * q[y]!;
    const energy = (squaresP[end - shift]! - squaresP[first - shift]!) * (squaresQ[end]! - squaresQ[first]!);
    if (energy > 0) scores[shift + height] = (product / Math.sqrt(energy)) * Math.sqrt((end - first) / rows);
  }
  return scores;
}

function aboutMean(values: Float32Array, from: number, to: number): Float32Array {
  const part = values.slice(from, to);
  let mean = 0;
  for (const value of part) mean += value / part.length;
  return part.map((value) => value - mean);
}

function runningSquares(values: Float32Array): Float64Array {
  const sums = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sums[i + 1] = sums[i]! + values[i]! ** 2;
  return sums;
}

function edgeProfile({ width, height, grey }: Frame): Float32Array {
  const profile = new Float32Array(height);
  for (let y = 1; y < height; y++) {
    let sum = 0;
    for (let at = y * width; at < (y + 1) * width; at += 4) {
      const difference = grey[at]! - grey[at - width]!;
      sum += difference < 0 ? -difference : difference;
    }
    profile[y] = sum;
  }
  return profile;
}

/** The shifts of the highest scores, no two next to each other. */
function best(scores: Float64Array, count: number): number[] {
  const height = (scores.length - 1) / 2;
  const found: number[] = [];
  const left = Float64Array.from(scores);
  while (found.length < count) {
    let top = 0;
    for (let i = 1; i < left.length; i++) if (left[i]! > left[top]!) top = i;
    if (left[top]! <= 0) break;
    found.push(top - height);
    left.fill(0, Math.max(0, top - 1), top + 2);
  }
  return found;
}
