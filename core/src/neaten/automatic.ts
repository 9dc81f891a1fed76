import type { Rect } from '../geometry/rect.js';
import { boundsOfFlat } from '../geometry/path.js';
import { STRIDE } from '../ink/points.js';
import { readShapes } from './readShapes.js';
import type { Reading } from './reading.js';

/** Smaller ink may be a letter; page units. */
const LEAST_SIZE = 75;
/** Of what letters look like more often; page units. */
const LEAST_LETTERLIKE = 150;
/** What ink may be off the shape that it becomes unasked, as part of its size. */
const MOST_OFF = 0.022;
/** Most corners of a bent line that is no word in joined writing. */
const MOST_CORNERS = 5;
/** A letter beside is not larger or smaller than by this factor. */
const ALIKE = 2.6;
/** Letters of a row lie no farther apart than this part of their height. */
const MOST_GAP = 0.9;

const LETTERLIKE = new Set<Reading['kind']>(['line', 'polyline', 'arc', 'brace', 'polygon', 'quadrilateral']);

/**
 * What ink that was just drawn means as a shape, the likeliest first; empty where it may be writing. `beside` are the bounds of
 * other ink near it.
 */
export function surelyShape(strokes: readonly (readonly number[])[], beside: readonly Rect[]): Reading[] {
  const bounds = boundsOfFlat(strokes.flat(), STRIDE);
  const size = Math.hypot(bounds.width, bounds.height);
  if (size < LEAST_SIZE || beside.some((other) => isInRow(bounds, other))) return [];
  const readings = readShapes(strokes);
  const [best] = readings;
  if (!best || best.off > MOST_OFF) return [];
  if (LETTERLIKE.has(best.kind) && size < LEAST_LETTERLIKE) return [];
  const corners = best.body.kind === 'path' ? best.body.points.length / 2 : 0;
  if (best.kind === 'polyline' && corners > MOST_CORNERS) return [];
  return readings;
}

/** Whether ink lies beside other ink as letters of a word do. */
function isInRow(a: Rect, b: Rect): boolean {
  const height = Math.max(a.height, b.height);
  const [least, most] = [Math.min(a.height, b.height), height];
  if (most > ALIKE * least) return false;
  const gap = Math.max(a.x - (b.x + b.width), b.x - (a.x + a.width));
  const shared = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return gap < MOST_GAP * height && gap > -0.4 * height && shared > 0.4 * least;
}
