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
  const area = grown(flooded, width, height, reach + 1);
  const rings = traceRings(area, width, height).map(simplifyRing);
  return { rings: rings.filter((ring) => ring.length >= 6) };
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

/** Spreads `value` by `reach` pixels sideways, then up and down; both passes go along the rows. */
function spread(mask: Uint8Array, width: number, height: number, reach: number, value: 0 | 1): Uint8Array {
  const sideways = new Uint8Array(mask);
  for (let row = 0; row < mask.length; row += width) {
    let until = -1;
    for (let ahead = 0; ahead < width + reach; ahead++) {
      if (ahead < width && mask[row + ahead] === value) until = ahead + reach;
      const x = ahead - reach;
      if (x >= 0 && until >= x) sideways[row + x] = value;
    }
  }
  const out = new Uint8Array(sideways);
  const until = new Int32Array(width).fill(-1);
  for (let ahead = 0; ahead < height + reach; ahead++) {
    const from = ahead * width;
    const row = ahead - reach;
    const to = row * width;
    if (ahead < height)
      for (let x = 0; x < width; x++) if (sideways[from + x] === value) until[x] = ahead + reach;
    if (row >= 0) for (let x = 0; x < width; x++) if (until[x]! >= row) out[to + x] = value;
  }
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

function flood(mask: Uint8Array, width: number, height: number, seed: number): Uint8Array {
  const filled = new Uint8Array(mask.length);
  const stack = [seed];
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    if (filled[at]) continue;
    const row = at - (at % width);
    let left = at;
    while (left > row && mask[left - 1] && !filled[left - 1]) left--;
    let right = at;
    while (right < row + width - 1 && mask[right + 1] && !filled[right + 1]) right++;
    filled.fill(1, left, right + 1);
    for (const next of [row - width, row + width]) {
      if (next < 0 || next >= width * height) continue;
      pushRuns(stack, mask, filled, next + left - row, next + right - row);
    }
  }
  return filled;
}

/** One seed for each run of free pixels between two places of a row. */
function pushRuns(stack: number[], mask: Uint8Array, filled: Uint8Array, from: number, to: number): void {
  let inRun = false;
  for (let i = from; i <= to; i++) {
    const isFree = mask[i] === 1 && filled[i] === 0;
    if (isFree && !inRun) stack.push(i);
    inRun = isFree;
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
