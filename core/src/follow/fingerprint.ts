import type { Frame } from './frame.js';

/** Cells across and down in which a view is recognised. */
export const CELLS = { columns: 10, rows: 8 };
/** Each cell is looked at as so many means of luma across and down. */
const ACROSS = 9;
const DOWN = 8;
/** A mean has to be darker than its neighbour by this to count; flat ground has no order. */
const STEP = 2;
/** A cell whose means differ less than this is blank. */
const BLANK_RANGE = 6;
/** Bits in which two cells that show the same may differ. */
const SAME_BITS = 5;
/** Mean luma by which blank ground of one view may differ. */
const SAME_GROUND = 24;
/** Share of the cells with something in them that have to be the same. */
const SAME_SHARE = 0.82;
/** A view with fewer cells of anything in them than this is too empty to be recognised. */
const LEAST_CELLS = 4;

/** A perceptual hash of a view, cell by cell. */
export interface Fingerprint {
  width: number;
  height: number;
  /** Two 32-bit halves for each cell. */
  bits: Uint32Array;
  /** Mean luma of each cell. */
  means: Uint8Array;
  /** Whether there is anything in a cell. */
  filled: Uint8Array;
}

/**
 * A difference hash (each mean of luma against its right neighbour; Krawetz, "Kind of like that",
 * 2013) of each cell of a grid. One hash for a whole screen cannot tell pages of text apart; a
 * grid can, and a clock or a caret spoils one cell only.
 */
export function fingerprintOf({ width, height, grey }: Frame): Fingerprint {
  const { columns, rows } = CELLS;
  const [wide, high] = [columns * ACROSS, rows * DOWN];
  const means = boxMeans(grey, width, height, wide, high);
  const count = columns * rows;
  const print: Fingerprint = {
    width,
    height,
    bits: new Uint32Array(count * 2),
    means: new Uint8Array(count),
    filled: new Uint8Array(count),
  };
  for (let cell = 0; cell < count; cell++) {
    const [cx, cy] = [(cell % columns) * ACROSS, Math.floor(cell / columns) * DOWN];
    let [low, high2, sum, bit] = [255, 0, 0, 0];
    for (let y = 0; y < DOWN; y++) {
      const row = (cy + y) * wide + cx;
      for (let x = 0; x < ACROSS; x++) {
        const mean = means[row + x]!;
        low = Math.min(low, mean);
        high2 = Math.max(high2, mean);
        sum += mean;
        if (x === ACROSS - 1) continue;
        if (mean + STEP < means[row + x + 1]!) print.bits[cell * 2 + (bit >> 5)]! |= 1 << (bit & 31);
        bit += 1;
      }
    }
    print.means[cell] = sum / (ACROSS * DOWN);
    print.filled[cell] = high2 - low >= BLANK_RANGE ? 1 : 0;
  }
  return print;
}

/** Means of luma over a grid of boxes, of every fourth pixel. */
function boxMeans(grey: Uint8Array, width: number, height: number, wide: number, high: number): Float32Array {
  const sums = new Float32Array(wide * high);
  const counts = new Uint32Array(wide * high);
  const boxOf = Uint16Array.from({ length: width }, (_, x) => Math.floor((x * wide) / width));
  for (let y = 0; y < height; y += 2) {
    const row = Math.floor((y * high) / height) * wide;
    const at = y * width;
    for (let x = (y >> 1) & 1; x < width; x += 2) {
      const box = row + boxOf[x]!;
      sums[box]! += grey[at + x]!;
      counts[box]! += 1;
    }
  }
  for (let i = 0; i < sums.length; i++) sums[i]! /= Math.max(1, counts[i]!);
  return sums;
}

/**
 * How alike two views are, 0 to 1: the share of the cells with something in them that show the
 * same; cells that `restless` marks are left out. 0 where the sizes differ or there is too little to see.
 */
export function likeness(a: Fingerprint, b: Fingerprint, restless?: Uint8Array): number {
  if (a.width !== b.width || a.height !== b.height) return 0;
  let [same, all] = [0, 0];
  for (let cell = 0; cell < a.filled.length; cell++) {
    if (restless?.[cell]) continue;
    const blank = !a.filled[cell] && !b.filled[cell];
    const isSame = isSameCell(a, b, cell);
    if (blank && isSame) continue;
    all += 1;
    if (isSame) same += 1;
  }
  return all < LEAST_CELLS ? 0 : same / all;
}

/** Whether a cell shows the same in two fingerprints of one size. */
export function isSameCell(a: Fingerprint, b: Fingerprint, cell: number): boolean {
  if (a.filled[cell] !== b.filled[cell]) return false;
  // Blank ground of another colour is another view.
  if (!a.filled[cell]) return Math.abs(a.means[cell]! - b.means[cell]!) <= SAME_GROUND;
  return bitsApart(a, b, cell) <= SAME_BITS;
}

/** Whether two fingerprints are of the same view. */
export function isSameView(a: Fingerprint, b: Fingerprint, restless?: Uint8Array): boolean {
  return likeness(a, b, restless) >= SAME_SHARE;
}

function bitsApart(a: Fingerprint, b: Fingerprint, cell: number): number {
  return (
    bitCount(a.bits[cell * 2]! ^ b.bits[cell * 2]!) + bitCount(a.bits[cell * 2 + 1]! ^ b.bits[cell * 2 + 1]!)
  );
}

/** Set bits of a 32-bit number (Warren, Hacker's Delight, §5-1). */
function bitCount(value: number): number {
  let n = value - ((value >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return Math.imul((n + (n >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}
