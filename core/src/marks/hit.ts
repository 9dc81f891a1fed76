import { insidePolygon } from '../geometry/polygon.js';
import { growRect, rectFromCorners, rectsTouch } from '../geometry/rect.js';
import { segmentDistanceSquared } from '../geometry/segment.js';
import { boxCorners } from '../geometry/turnedBox.js';
import { markBounds, markBox } from './bounds.js';
import type { Point } from './kind.js';
import type { Mark } from './mark.js';
import { hasBox, kindOf } from './mark.js';

/** Whether a mark is touched by a round tip of `radius` page units moved from a to b. */
export function hitBySweep(
  mark: Mark,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  radius: number,
): boolean {
  if (!rectsTouch(markBounds(mark), growRect(rectFromCorners(ax, ay, bx, by), radius))) return false;
  const { lines, reach, solid } = kindOf(mark).target(mark);
  const limit = (radius + reach) ** 2;
  const inside = solid && lines.filter((line) => insidePolygon(bx, by, line)).length % 2 === 1;
  return inside || lines.some((line) => lineWithin(line, ax, ay, bx, by, limit));
}

/** Points that stand for a mark when one asks whether it lies within an area. */
export function samplePoints(mark: Mark): Point[] {
  return hasBox(mark) ? boxCorners(markBox(mark)) : kindOf(mark).target(mark).lines.flat();
}

function lineWithin(
  line: readonly Point[],
  ax: number,
  ay: number,
  bx: number,
  by: number,
  limit: number,
): boolean {
  for (let i = 0; i < Math.max(1, line.length - 1); i++) {
    const [cx, cy] = line[i]!;
    const [dx, dy] = line[Math.min(i + 1, line.length - 1)]!;
    if (segmentDistanceSquared(ax, ay, bx, by, cx, cy, dx, dy) <= limit) return true;
  }
  return false;
}
