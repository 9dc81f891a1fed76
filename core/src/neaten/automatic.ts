import type { Rect } from '../geometry/rect.js';
import { boundsOfFlat } from '../geometry/path.js';
import { STRIDE } from '../ink/points.js';
import { readShapes } from './readShapes.js';
import type { Reading } from './reading.js';

/** Smaller ink may be a letter; page units. */
const LEAST_SIZE = 75;
/** What letters look like more often has to be so many times as large. */
const LETTERLIKE_SIZE = 2;
/** What ink may be off the shape that it becomes unasked, as part of its size. */
const MOST_OFF = 0.022;
/** Most corners of a bent line that is no word in joined writing. */
const MOST_CORNERS = 5;
/** Letters are hardly ever taller; page units. */
const TALLEST = 150;
/** A letter beside is not larger or smaller than by this factor. */
const ALIKE = 2.6;
/** Letters of a row lie no farther apart than this part of their height. */
const MOST_GAP = 0.9;

const LETTERLIKE = new Set<Reading['kind']>(['line', 'polyline', 'arc', 'brace', 'polygon', 'quadrilateral']);

/** How easily ink is taken for writing. */
export interface Caution {
  /** What is smaller is left alone, page units. */
  least?: number;
  /** So many pieces of ink beside it make it a part of a row. */
  row?: number;
}

/**
 * What ink that was just drawn means as a shape, the likeliest first; empty where it may be writing. `beside` are the bounds of
 * other ink near it.
 */
export function surelyShape(
  strokes: readonly (readonly number[])[],
  beside: readonly Rect[],
  { least = LEAST_SIZE, row = 1 }: Caution = {},
): Reading[] {
  const bounds = boundsOfFlat(strokes.flat(), STRIDE);
  const size = Math.hypot(bounds.width, bounds.height);
  if (size < least || beside.filter((other) => isInRow(bounds, other)).length >= row) return [];
  const readings = readShapes(strokes);
  const [best] = readings;
  if (!best || best.off > MOST_OFF) return [];
  if (LETTERLIKE.has(best.kind) && size < LETTERLIKE_SIZE * least) return [];
  const corners = best.body.kind === 'path' ? best.body.points.length / 2 : 0;
  if (best.kind === 'polyline' && corners > MOST_CORNERS) return [];
  return readings;
}

/** Whether ink lies beside other ink as letters of a word do. */
function isInRow(a: Rect, b: Rect): boolean {
  const [least, height] = [Math.min(a.height, b.height), Math.max(a.height, b.height)];
  if (height > ALIKE * least || height > TALLEST) return false;
  const gap = Math.max(a.x - (b.x + b.width), b.x - (a.x + a.width));
  const shared = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return gap < MOST_GAP * height && gap > -0.4 * height && shared > 0.4 * least;
}
