import { simplify } from '../ink/simplify.js';
import { traceRings } from './traceRings.js';

/** A picture of a page: rows of RGBA. */
export interface Raster {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

export interface PourOptions {
  /** Where colour is poured, pixels. */
  x: number;
  y: number;
  /** How far a colour may differ from the one poured on, 0 to 255 per channel. */
  tolerance: number;
  /** Gaps in an outline up to this width are bridged, pixels. */
  gap: number;
}

/** Rings of x, y in pixels, to be filled by the even-odd rule; or why nothing was poured. */
export type Poured = { rings: number[][] } | { failed: 'open' | 'no-room' };

/** How far a traced edge may lie from the pixels' edges. */
const EDGE_TOLERANCE = 0.8;

/**
 * Pours colour into the area round a point: the pixels of its colour that are connected with it.
 * Walls are first made thicker by half the gap that is to be bridged, then the area that was
 * flooded is grown back by as much, and a pixel under the soft edge of its outline. An area that
 * reaches the edge of the picture is open, and nothing is poured. Flood fill by scan lines:
 * Smith, "Tint fill", SIGGRAPH 1979.
 */
export function pour(raster: Raster, { x, y, tolerance, gap }: PourOptions): Poured {
  const { width, height } = raster;
  const free = matching(raster, x, y, tolerance);
  const reach = Math.ceil(gap / 2);
  const roomy = reach === 0 ? free : shrunk(free, width, height, reach);
  const seed = nearestSet(roomy, width, height, x, y, reach + 2);
  if (seed === undefined) return { failed: 'no-room' };
  const flooded = flood(roomy, width, height, seed);
  if (touchesEdge(flooded, width, height)) return { failed: 'open' };
  const bridged = grown(flooded, width, height, reach);
  if (reach > 0) addTips(bridged, { free, outside: without(roomy, flooded), width, height, reach });
  // And a pixel under the soft edge of the outline.
  const area = grown(bridged, width, height, 1);
  const rings = traceRings(area, width, height).map(simplifyRing);
  return { rings: rings.filter((ring) => ring.length >= 6) };
}

/** 1 where the first is and none of the others, four pixels at a time. */
function without(mask: Uint8Array, ...others: Uint8Array[]): Uint8Array {
  const left = new Uint8Array(mask);
  const whole = left.length >> 2;
  const words = new Uint32Array(left.buffer, 0, whole);
  for (const other of others) {
    const taken = new Uint32Array(other.buffer, other.byteOffset, whole);
    for (let i = 0; i < whole; i++) words[i]! &= ~taken[i]!;
    for (let i = 4 * whole; i < left.length; i++) left[i]! &= ~other[i]!;
  }
  return left;
}

/**
 * Adds the tips of an area that are narrower than the gap that is bridged: what is left free beside it and leads nowhere
 * else. What leads on to the room outside is a gap.
 */
function addTips(
  area: Uint8Array,
  {
    free,
    outside,
    width,
    height,
    reach,
  }: Record<'free' | 'outside', Uint8Array> & Record<'width' | 'height' | 'reach', number>,
): void {
  const beyond = grown(outside, width, height, reach);
  const narrow = without(free, area, beyond);
  const seen = new Uint8Array(narrow.length);
  const touches = (mask: Uint8Array, at: number) =>
    mask[at - 1] === 1 || mask[at + 1] === 1 || mask[at - width] === 1 || mask[at + width] === 1;
  const isAtEdge = (at: number) =>
    at % width === 0 || at % width === width - 1 || at < width || at >= free.length - width;
  for (let at = narrow.indexOf(1); at >= 0; at = nextRun(narrow, at)) {
    if (seen[at]) continue;
    const runs = floodInto(seen, narrow, width, height, at);
    const some = (holds: (at: number) => boolean) =>
      runs.some(([from, to]) => {
        for (let i = from; i < to; i++) if (holds(i)) return true;
        return false;
      });
    if (!some((i) => touches(area, i)) || some((i) => isAtEdge(i) || touches(beyond, i))) continue;
    for (const [from, to] of runs) area.fill(1, from, to);
  }
}

/**
 * Where the run of set pixels after the one at a place begins; -1 where there is none. One that goes on in the next row is
 * passed over there: it is at the edge of the picture, where no tip is.
 */
function nextRun(mask: Uint8Array, at: number): number {
  const end = mask.indexOf(0, at);
  return end < 0 ? -1 : mask.indexOf(1, end);
}

/** 1 where a pixel's colour is near that of the given one. */
function matching({ width, height, data }: Raster, x: number, y: number, tolerance: number): Uint8Array {
  const mask = new Uint8Array(width * height);
  const pixels = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const at = Math.floor(y) * width + Math.floor(x);
  const seed = pixels[at]!;
  const [r, g, b] = [data[at * 4]!, data[at * 4 + 1]!, data[at * 4 + 2]!];
  const isNear = (p: number) =>
    Math.abs(data[p]! - r) <= tolerance &&
    Math.abs(data[p + 1]! - g) <= tolerance &&
    Math.abs(data[p + 2]! - b) <= tolerance;
  // Most of a page has exactly the colour that is poured on.
  for (let i = 0; i < mask.length; i++) mask[i] = pixels[i] === seed || isNear(i * 4) ? 1 : 0;
  return mask;
}

/** Where a square of 2·reach + 1 round a pixel is all set; beyond the picture counts as set. */
function shrunk(mask: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  return spread(mask, width, height, reach, 0);
}

/** Where a square of 2·reach + 1 round a pixel has any set. */
function grown(mask: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  return spread(mask, width, height, reach, 1);
}

/** Spreads `value` by `reach` pixels sideways, then up and down. */
function spread(mask: Uint8Array, width: number, height: number, reach: number, value: 0 | 1): Uint8Array {
  return spreadUpAndDown(spreadSideways(mask, width, reach, value), width, height, reach, value);
}

/** Run by run: most of a page is long runs, which the engine finds and fills far faster than a loop. */
function spreadSideways(mask: Uint8Array, width: number, reach: number, value: 0 | 1): Uint8Array {
  const out = new Uint8Array(mask);
  for (let from = mask.indexOf(value); from >= 0;) {
    const row = from - (from % width);
    const found = mask.indexOf(1 - value, from);
    const to = Math.min(row + width, found < 0 ? mask.length : found);
    out.fill(value, Math.max(row, from - reach), Math.min(row + width, to + reach));
    from = mask.indexOf(value, to);
  }
  return out;
}

/**
 * Four pixels at a time, over windows of rows that double: van Herk, "A fast algorithm for local
 * minimum and maximum filters", Pattern Recognition Letters 13 (1992), gives the idea of sharing work
 * between windows.
 */
function spreadUpAndDown(
  mask: Uint8Array,
  width: number,
  height: number,
  reach: number,
  value: 0 | 1,
): Uint8Array {
  const stride = Math.ceil(width / 4) * 4;
  const rows = height + 2 * reach;
  const bytes = new Uint8Array(stride * rows).fill(1 - value);
  for (let y = 0; y < height; y++) bytes.set(mask.subarray(y * width, (y + 1) * width), (y + reach) * stride);
  const words = new Uint32Array(bytes.buffer);
  const wordsPerRow = stride / 4;
  const join = (apart: number) => {
    const shift = apart * wordsPerRow;
    const end = words.length - shift;
    if (value === 1) for (let i = 0; i < end; i++) words[i]! |= words[i + shift]!;
    else for (let i = 0; i < end; i++) words[i]! &= words[i + shift]!;
  };
  const window = 2 * reach + 1;
  let covered = 1;
  for (; covered * 2 <= window; covered *= 2) join(covered);
  if (covered < window) join(window - covered);
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) out.set(bytes.subarray(y * stride, y * stride + width), y * width);
  return out;
}

function nearestSet(
  mask: Uint8Array,
  width: number,
  height: number,
  x: number,
  y: number,
  reach: number,
): number | undefined {
  let best: number | undefined;
  let bestDistance = Infinity;
  const [cx, cy] = [Math.floor(x), Math.floor(y)];
  for (let py = Math.max(0, cy - reach); py <= Math.min(height - 1, cy + reach); py++) {
    for (let px = Math.max(0, cx - reach); px <= Math.min(width - 1, cx + reach); px++) {
      const distance = (px - cx) ** 2 + (py - cy) ** 2;
      if (mask[py * width + px] && distance < bestDistance)
        [best, bestDistance] = [py * width + px, distance];
    }
  }
  return best;
}

/** The pixels of a mask that are connected with one of them. */
function flood(mask: Uint8Array, width: number, height: number, seed: number): Uint8Array {
  const filled = new Uint8Array(mask.length);
  floodInto(filled, mask, width, height, seed);
  return filled;
}

/** Fills them where they were not filled before, and says which. Runs are filled whole, so one of whose pixels is filled is done. */
function floodInto(
  filled: Uint8Array,
  mask: Uint8Array,
  width: number,
  height: number,
  seed: number,
): [from: number, to: number][] {
  const runs: [number, number][] = [];
  const stack = [seed];
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    if (filled[at]) continue;
    const row = at - (at % width);
    const left = Math.max(row, mask.lastIndexOf(0, at) + 1);
    const wall = mask.indexOf(0, at);
    const right = wall < 0 ? row + width : Math.min(row + width, wall);
    filled.fill(1, left, right);
    runs.push([left, right]);
    for (const next of [row - width, row + width]) {
      if (next < 0 || next >= width * height) continue;
      pushRuns(stack, mask, filled, next + left - row, next + right - row);
    }
  }
  return runs;
}

/** One seed for each run of free pixels between two places of a row, the second left out. */
function pushRuns(stack: number[], mask: Uint8Array, filled: Uint8Array, from: number, to: number): void {
  for (let at = mask.indexOf(1, from); at >= 0 && at < to;) {
    if (!filled[at]) stack.push(at);
    const wall = mask.indexOf(0, at);
    if (wall < 0) return;
    at = mask.indexOf(1, wall);
  }
}

/** Whether an area reaches the edge of the picture. */
function touchesEdge(mask: Uint8Array, width: number, height: number): boolean {
  for (let x = 0; x < width; x++) if (mask[x] || mask[(height - 1) * width + x]) return true;
  for (let y = 0; y < height; y++) if (mask[y * width] || mask[y * width + width - 1]) return true;
  return false;
}

function simplifyRing(ring: number[]): number[] {
  const points: number[] = [];
  for (let i = 0; i < ring.length; i += 2) points.push(ring[i]!, ring[i + 1]!, 0, 0);
  points.push(ring[0]!, ring[1]!, 0, 0);
  // A ring has no ends, so it is cut in two halves that have.
  const middle = Math.floor(points.length / 8) * 4;
  const half = (from: number, to: number) => simplify(points.slice(from, to), EDGE_TOLERANCE);
  const simple = [...half(0, middle + 4), ...half(middle, points.length).slice(4)];
  const flat: number[] = [];
  for (let i = 0; i < simple.length - 4; i += 4) flat.push(simple[i]!, simple[i + 1]!);
  return flat;
}
