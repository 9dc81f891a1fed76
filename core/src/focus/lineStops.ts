import type { Frame } from '../follow/frame.js';

/** Differs by more than this from the row's ground: something is written there. */
const INK = 28;
/** Part of a row that has to be written on to count, so that a speck or a thin rule at the side does not. */
const LEAST_PART = 0.004;
/** Rows of nothing between two lines, at least; part of the height. */
const LEAST_GAP = 0.004;

/**
 * Where a sheet that is drawn back step by step can stop: the middles of the gaps between lines of content,
 * from the top down, each 0 to 1 of the height; the last is 1. Found by the row profile of what differs from
 * the ground, as is usual for finding lines of text (Likforman-Sulem, Zahour, Taconet, "Text line segmentation
 * of historical documents: a survey", 2007, §3.1, projection-based methods).
 */
export function lineStops(picture: Frame): number[] {
  const { width, height } = picture;
  const ground = groundOf(picture);
  const rows = Array.from({ length: height }, (_, y) => inkIn(picture, y, ground) > width * LEAST_PART);
  const least = Math.max(1, Math.round(height * LEAST_GAP));
  const stops: number[] = [];
  let gapFrom = -1;
  let seen = false;
  for (let y = 0; y <= height; y++) {
    const written = y < height && rows[y]!;
    if (!written && gapFrom < 0) gapFrom = y;
    if (!written || gapFrom < 0) continue;
    if (seen && y - gapFrom >= least) stops.push((gapFrom + y) / 2 / height);
    seen = true;
    gapFrom = -1;
  }
  return [...stops, 1];
}

/** The most frequent grey, which is the paper's. */
function groundOf({ grey }: Frame): number {
  const counts = new Uint32Array(256);
  for (const value of grey) counts[value]!++;
  return counts.indexOf(Math.max(...counts));
}

function inkIn({ grey, width }: Frame, y: number, ground: number): number {
  let count = 0;
  for (let i = y * width; i < (y + 1) * width; i++) if (Math.abs(grey[i]! - ground) > INK) count++;
  return count;
}
