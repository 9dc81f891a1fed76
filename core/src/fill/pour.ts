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
  const at = (Math.floor(y) * width + Math.floor(x)) * 4;
  const [r, g, b] = [data[at]!, data[at + 1]!, data[at + 2]!];
  for (let i = 0, p = 0; i < mask.length; i++, p += 4) {
    const near =
      Math.abs(data[p]! - r) <= tolerance &&
      Math.abs(data[p + 1]! - g) <= tolerance &&
      Math.abs(data[p + 2]! - b) <= tolerance;
    mask[i] = near ? 1 : 0;
  }
  return mask;
}

/** Where a square of 2·reach + 1 round a pixel is all set; beyond the picture counts as set. */
function shrunk(mask: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  return boxPass(boxPass(mask, width, height, reach, 1, width, 0), height, width, reach, width, 1, 0);
}

/** Where a square of 2·reach + 1 round a pixel has any set. */
function grown(mask: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  return boxPass(boxPass(mask, width, height, reach, 1, width, 1), height, width, reach, width, 1, 1);
}

/** One direction of a box: spreads `value` by `reach` along lines of `length` pixels a `step` apart. */
function boxPass(
  mask: Uint8Array,
  length: number,
  lines: number,
  reach: number,
  step: number,
  lineStep: number,
  value: 0 | 1,
): Uint8Array {
  const out = new Uint8Array(mask);
  for (let line = 0; line < lines; line++) {
    const start = line * lineStep;
    let until = -1;
    for (let i = -reach; i < length; i++) {
      const ahead = i + reach;
      if (ahead < length && mask[start + ahead * step] === value) until = ahead + reach;
      if (i >= 0 && until >= i) out[start + i * step] = value;
    }
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
