import { applyMatrix } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import type { TurnedBox } from '../geometry/turnedBox.js';
import { boundsOfPoints, boxCorners, boxMatrix } from '../geometry/turnedBox.js';
import type { Point, Target } from './kind.js';

/** The same points with the first one again at the end. */
export const closed = (points: readonly Point[]): Point[] => [...points, points[0]!];

/** A box that is hit wherever it is touched. */
export function boxTarget(box: TurnedBox): Target {
  return { lines: [closed(boxCorners(box))], reach: 0, solid: true };
}

/** Where something lies that is drawn in an unturned box and turned with it. */
export function turnedReach(box: TurnedBox, reach: Rect): Rect {
  const matrix = boxMatrix(box);
  const corners = boxCorners({ ...reach, rotation: 0 });
  return boundsOfPoints(matrix ? corners.map((corner) => applyMatrix(matrix, ...corner)) : corners);
}
