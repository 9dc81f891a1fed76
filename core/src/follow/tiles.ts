import type { Frame } from './frame.js';

/** Side of the squares in which frames are compared, pixels. */
export const TILE = 32;
/** Every so many pixels of a tile are looked at, each way. */
const SAMPLE = 2;
const SAMPLES = (TILE / SAMPLE) ** 2;
/** Mean difference of luma up to which two tiles show the same. */
export const SAME = 2.5;
/** Mean step of luma from pixel to pixel from which a tile has something to be recognised by. */
const ENOUGH = 1.2 * SAMPLES;

export interface Tiles {
  columns: number;
  rows: number;
}

/** Whole tiles of a frame; a rest at the right and lower edge is left out. */
export function tilesOf({ width, height }: Frame): Tiles {
  return { columns: Math.floor(width / TILE), rows: Math.floor(height / TILE) };
}

/**
 * Mean absolute difference of luma between a tile of `frame` and the place in `other` that lies
 * `dx`, `dy` before it; infinite where that is not wholly inside, or where it is above `limit`.
 */
export function tileDifference(
  frame: Frame,
  other: Frame,
  column: number,
  row: number,
  dx: number,
  dy: number,
  limit = Infinity,
): number {
  const { width, height, grey } = frame;
  const [x0, y0] = [column * TILE, row * TILE];
  const [sx, sy] = [x0 - dx, y0 - dy];
  if (sx < 0 || sy < 0 || sx + TILE > width || sy + TILE > height) return Infinity;
  const most = limit * SAMPLES;
  const others = other.grey;
  let sum = 0;
  for (let y = 0; y < TILE; y += SAMPLE) {
    if (sum > most) return Infinity;
    let at = (y0 + y) * width + x0;
    let from = (sy + y) * width + sx;
    for (let x = 0; x < TILE; x += SAMPLE, at += SAMPLE, from += SAMPLE) {
      sum += Math.abs(grey[at]! - others[from]!);
    }
  }
  return sum / SAMPLES;
}

/** Whether a tile has anything by which its place could be told. */
export function isTextured({ width, grey }: Frame, column: number, row: number): boolean {
  const [x0, y0] = [column * TILE, row * TILE];
  let across = 0;
  let down = 0;
  for (let y = 0; y < TILE - SAMPLE; y += SAMPLE) {
    if (across > ENOUGH || down > ENOUGH) return true;
    let at = (y0 + y) * width + x0;
    for (let x = 0; x < TILE - SAMPLE; x += SAMPLE, at += SAMPLE) {
      const here = grey[at]!;
      across += Math.abs(here - grey[at + SAMPLE]!);
      down += Math.abs(here - grey[at + SAMPLE * width]!);
    }
  }
  return across > ENOUGH || down > ENOUGH;
}
