import { rectFromCorners, rectsTouch, growRect } from '../geometry/rect.js';
import { segmentDistanceSquared } from '../geometry/segment.js';
import { STRIDE } from '../ink/points.js';
import { markBounds } from './bounds.js';
import type { Mark, StrokeMark } from './mark.js';

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
  return mark.kind === 'stroke' ? strokeHit(mark, ax, ay, bx, by, radius) : true;
}

function strokeHit(
  mark: StrokeMark,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  radius: number,
): boolean {
  const reach = (radius + mark.style.width / 2) ** 2;
  const { points } = mark;
  const last = Math.max(STRIDE, points.length - STRIDE);
  for (let i = 0; i < last; i += STRIDE) {
    const next = Math.min(i + STRIDE, points.length - STRIDE);
    const d = segmentDistanceSquared(
      ax,
      ay,
      bx,
      by,
      points[i]!,
      points[i + 1]!,
      points[next]!,
      points[next + 1]!,
    );
    if (d <= reach) return true;
  }
  return false;
}
