import { insidePolygon } from '../geometry/polygon.js';
import { rectFromCorners, rectsTouch, growRect } from '../geometry/rect.js';
import { segmentDistanceSquared } from '../geometry/segment.js';
import { boxCorners, boxMatrix } from '../geometry/turnedBox.js';
import { STRIDE } from '../ink/points.js';
import { hasBox, markBounds, markBox, quoteRects } from './bounds.js';
import type { Mark } from './mark.js';
import { flattenPath, pathCourse, pointsOf } from './pathGeometry.js';
import { shapePath } from './shapeGeometry.js';
import { mapPath } from '../paint/path.js';

type Point = readonly [number, number];

/** What there is to hit of a mark: lines of some reach, and whether the inside counts too. */
interface Target {
  lines: readonly (readonly Point[])[];
  reach: number;
  solid: boolean;
}

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
  const { lines, reach, solid } = targetOf(mark);
  const limit = (radius + reach) ** 2;
  const inside = solid && lines.filter((line) => insidePolygon(bx, by, line)).length % 2 === 1;
  return inside || lines.some((line) => lineWithin(line, ax, ay, bx, by, limit));
}

/** Points that stand for a mark when one asks whether it lies within an area. */
export function samplePoints(mark: Mark): Point[] {
  return hasBox(mark) ? boxCorners(markBox(mark)) : targetOf(mark).lines.flat();
}

function targetOf(mark: Mark): Target {
  switch (mark.kind) {
    case 'stroke': {
      const line: Point[] = [];
      for (let i = 0; i < mark.points.length; i += STRIDE) line.push([mark.points[i]!, mark.points[i + 1]!]);
      return { lines: [line], reach: mark.style.width / 2, solid: false };
    }
    case 'path': {
      const solid = mark.closed && mark.style.fill !== null;
      return { lines: [flattenPath(pathCourse(mark))], reach: mark.style.width / 2, solid };
    }
    case 'shape': {
      const matrix = boxMatrix(mark);
      const path = shapePath(mark);
      const line = flattenPath(matrix ? mapPath(path, matrix) : path);
      return { lines: [line], reach: mark.style.width / 2, solid: mark.style.fill !== null };
    }
    case 'quote':
      return {
        lines: quoteRects(mark).map((rect) => closed(boxCorners({ ...rect, rotation: 0 }))),
        reach: 0,
        solid: true,
      };
    case 'fill':
      return { lines: mark.rings.map(closedRing), reach: 0, solid: true };
    case 'text':
    case 'stamp':
    case 'note':
    case 'picture':
    case 'patch':
      return { lines: [closed(boxCorners(markBox(mark)))], reach: 0, solid: true };
  }
}

const closed = (points: readonly Point[]): Point[] => [...points, points[0]!];
const closedRing = (ring: readonly number[]): Point[] => closed(pointsOf(ring));

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
