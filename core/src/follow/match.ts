import type { Frame } from './frame.js';
import { TILE } from './tiles.js';

/** Where what a frame shows lay in the one before: x' = scale · x + dx, y' = scale · y + dy, pixels. */
export interface Warp {
  scale: number;
  dx: number;
  dy: number;
}

/**
 * Every so many pixels of a tile are looked at. Neither divides the usual distance of lines, and rows that tiles begin
 * at differ, so that thin lines at regular distances do not fall between all samples.
 */
const SAMPLE_X = 5;
const SAMPLE_Y = 3;
const ACROSS = Math.floor(TILE / SAMPLE_X);
const DOWN = Math.floor((TILE - 2) / SAMPLE_Y);
const COUNT = ACROSS * DOWN;
/** Mean square of luma about its mean below which there is nothing to compare. */
const FLAT = 6;

/**
 * How alike a tile of `now` and what a warp brings there from `before` are: normalised cross-correlation of luma
 * (Lewis, "Fast normalized cross-correlation", 1995), −1 to 1. Undefined where the warp reaches outside of `before`
 * or either is flat. Of blurred pictures if `rough`: then a warp that is a pixel off is still seen to be right.
 */
export function likenessUnder(
  before: Frame,
  now: Frame,
  column: number,
  row: number,
  { scale, dx, dy }: Warp,
  rough = false,
): number | undefined {
  const [x0, y0] = [column * TILE + 1, row * TILE + 1];
  const [left, top] = [(x0 - dx) / scale, (y0 - dy) / scale];
  const [stepX, stepY] = [SAMPLE_X / scale, SAMPLE_Y / scale];
  if (!isWithin(before, left, top, left + (ACROSS - 1) * stepX, top + (DOWN - 1) * stepY)) return undefined;
  const sums: Sums = [0, 0, 0, 0, 0];
  for (let j = 0, y = top; j < DOWN; j++, y += stepY) {
    let at = (y0 + j * SAMPLE_Y) * now.width + x0;
    const line = (rough ? Math.round(y) : Math.floor(y)) * before.width;
    const v = y - Math.floor(y);
    for (let i = 0, x = left; i < ACROSS; i++, x += stepX, at += SAMPLE_X) {
      if (rough)
        add(sums, blurred(now.grey, at, now.width), blurred(before.grey, line + Math.round(x), before.width));
      else {
        const whole = x | 0;
        add(sums, now.grey[at]!, between(before.grey, line + whole, before.width, x - whole, v));
      }
    }
  }
  return correlated(sums);
}

/** Whether the samples between two corners, and their neighbours, lie inside of a frame. */
function isWithin(
  { width, height }: Frame,
  left: number,
  top: number,
  right: number,
  bottom: number,
): boolean {
  return left >= 1 && top >= 1 && right < width - 2 && bottom < height - 2;
}

/** Sums of two lots of numbers, of their squares and of their products. */
type Sums = [a: number, b: number, aa: number, bb: number, ab: number];

function add(sums: Sums, a: number, b: number): void {
  sums[0] += a;
  sums[1] += b;
  sums[2] += a * a;
  sums[3] += b * b;
  sums[4] += a * b;
}

function correlated([a, b, aa, bb, ab]: Sums): number | undefined {
  const [varianceA, varianceB] = [aa / COUNT - (a / COUNT) ** 2, bb / COUNT - (b / COUNT) ** 2];
  if (varianceA < FLAT || varianceB < FLAT) return undefined;
  return (ab / COUNT - (a / COUNT) * (b / COUNT)) / Math.sqrt(varianceA * varianceB);
}

/** The mean of a pixel and those round it, nearer ones counting more. */
function blurred(grey: Uint8Array, at: number, width: number): number {
  return (2 * grey[at]! + grey[at - 1]! + grey[at + 1]! + grey[at - width]! + grey[at + width]!) / 6;
}

/**
 * A warp made exact by what is left between the frames in some tiles: one step of Gauss-Newton on the squared
 * differences (Lucas and Kanade, "An iterative image registration technique", 1981; Baker and Matthews, "Lucas-Kanade
 * 20 years on", 2004). The scale is left alone unless `zooms`. Converges from about a pixel away.
 */
export function refined(
  before: Frame,
  now: Frame,
  tiles: readonly number[],
  columns: number,
  { scale, dx, dy }: Warp,
  zooms: boolean,
): Warp {
  const [normal, right] = [new Float64Array(9), new Float64Array(3)];
  const { width } = before;
  const [mostX, mostY] = [before.width - 2, before.height - 2];
  for (const tile of tiles) {
    const [x0, y0] = [(tile % columns) * TILE, Math.floor(tile / columns) * TILE];
    for (let j = 1; j < TILE - 1; j += SAMPLE_Y) {
      const y = (y0 + j - dy) / scale;
      const yi = Math.floor(y);
      if (yi < 1 || yi >= mostY) continue;
      for (let i = 1; i < TILE - 1; i += SAMPLE_X) {
        const x = (x0 + i - dx) / scale;
        const xi = Math.floor(x);
        if (xi < 1 || xi >= mostX) continue;
        const from = yi * width + xi;
        const to = (y0 + j) * now.width + x0 + i;
        // The gradient of the one is that of the other once they lie on each other.
        const gx = (now.grey[to + 1]! - now.grey[to - 1]!) / 2;
        const gy = (now.grey[to + now.width]! - now.grey[to - now.width]!) / 2;
        const rest = now.grey[to]! - between(before.grey, from, width, x - xi, y - yi);
        const gs = zooms ? gx * x + gy * y : 0;
        normal[0]! += gx * gx;
        normal[1]! += gx * gy;
        normal[2]! += gx * gs;
        normal[4]! += gy * gy;
        normal[5]! += gy * gs;
        normal[8]! += gs * gs;
        right[0]! -= gx * rest;
        right[1]! -= gy * rest;
        right[2]! -= gs * rest;
      }
    }
  }
  const step = solve(normal, right, zooms);
  return { scale: scale + step[2], dx: dx + step[0], dy: dy + step[1] };
}

/** Bilinear interpolation. */
function between(grey: Uint8Array, from: number, width: number, u: number, v: number): number {
  const upper = grey[from]! + u * (grey[from + 1]! - grey[from]!);
  const lower = grey[from + width]! + u * (grey[from + width + 1]! - grey[from + width]!);
  return upper + v * (lower - upper);
}

/** Solves the symmetric normal equations by Cramer's rule; no step where they say nothing. */
function solve(n: Float64Array, r: Float64Array, zooms: boolean): [number, number, number] {
  const [a, b, c, d, e, f] = [n[0]!, n[1]!, n[2]!, n[4]!, n[5]!, n[8]!];
  const [p, q, s] = [r[0]!, r[1]!, r[2]!];
  if (!zooms) {
    const det = a * d - b * b;
    return det > 1e-6 * a * d ? [(p * d - q * b) / det, (a * q - b * p) / det, 0] : [0, 0, 0];
  }
  const det = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
  if (!(Math.abs(det) > 1e-12 * a * d * f)) return [0, 0, 0];
  return [
    (p * (d * f - e * e) - b * (q * f - e * s) + c * (q * e - d * s)) / det,
    (a * (q * f - e * s) - p * (b * f - c * e) + c * (b * s - q * c)) / det,
    (a * (d * s - q * e) - b * (b * s - q * c) + p * (b * e - c * d)) / det,
  ];
}
