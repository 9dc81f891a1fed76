import { arcThrough } from '../geometry/arc.js';
import { applyMatrix } from '../geometry/matrix.js';
import { flattenPath, pointsOf } from '../geometry/path.js';
import { boxMatrix } from '../geometry/turnedBox.js';
import type { MarkOf } from '../marks/mark.js';
import { pathCourse } from '../marks/path/pathGeometry.js';
import { shapeCorners, shapePath } from '../marks/shape/shapeGeometry.js';

export type Point = readonly [number, number];

/** What is measured of a line or shape. */
export type Outline =
  | { readonly kind: 'corners'; readonly corners: readonly Point[]; readonly closed: boolean }
  /** Half axes; a circle where they are alike. */
  | { readonly kind: 'ellipse'; readonly centre: Point; readonly a: number; readonly b: number }
  /** Radians. */
  | {
      readonly kind: 'arc';
      readonly centre: Point;
      readonly radius: number;
      readonly sweep: number;
      readonly points: readonly Point[];
    }
  /** Any other curve, as points on it. */
  | { readonly kind: 'curve'; readonly points: readonly Point[]; readonly closed: boolean };

/** Pieces that a curve is measured by. */
const PIECES = 64;

/** The line or edge of a mark, in page units. */
export function outlineOf(mark: MarkOf<'path' | 'shape'>): Outline {
  return mark.kind === 'path' ? outlineOfPath(mark) : outlineOfShape(mark);
}

function outlineOfPath(mark: MarkOf<'path'>): Outline {
  const points = pointsOf(mark.points);
  if (mark.course === 'straight')
    return { kind: 'corners', corners: points, closed: mark.closed && points.length > 2 };
  const [a, b, c] = points;
  const arc = mark.course === 'arc' && a && b && c ? arcThrough(a, b, c) : undefined;
  if (arc)
    return {
      kind: 'arc',
      centre: [arc.x, arc.y],
      radius: arc.radius,
      sweep: Math.abs(arc.sweep),
      points: points,
    };
  const course = flattenPath(pathCourse(mark), PIECES);
  if (mark.course === 'elbow') return { kind: 'corners', corners: course, closed: false };
  return { kind: 'curve', points: course, closed: false };
}

function outlineOfShape(mark: MarkOf<'shape'>): Outline {
  const matrix = boxMatrix(mark);
  const placed = (point: Point): Point => (matrix ? applyMatrix(matrix, ...point) : point);
  const corners = shapeCorners(mark);
  if (corners) return { kind: 'corners', corners: corners.map(placed), closed: true };
  const { x, y, width, height } = mark;
  if (mark.form === 'ellipse')
    return {
      kind: 'ellipse',
      centre: [x + width / 2, y + height / 2],
      a: Math.max(width, height) / 2,
      b: Math.min(width, height) / 2,
    };
  const points = flattenPath(shapePath(mark), PIECES).map(placed);
  return { kind: 'curve', points, closed: mark.form !== 'bracket' };
}
