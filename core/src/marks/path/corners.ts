import { applyMatrix } from '../../geometry/matrix.js';
import { boxMatrix } from '../../geometry/turnedBox.js';
import type { Change } from '../../ops/operation.js';
import type { Point } from '../kind.js';
import type { Mark } from '../mark.js';
import { shapeCorners } from '../shape/shapeGeometry.js';
import type { PathMark } from './pathMark.js';

/** Degrees within which a corner snaps to a right angle. */
const SNAP_DEGREES = 4;

/**
 * A mark as a path whose corners can be moved; a shape with corners becomes a polygon with a new id. Undefined for what
 * has no corners.
 */
export function withCorners(mark: Mark, newId: () => string): PathMark | undefined {
  if (mark.kind === 'path') return mark;
  if (mark.kind !== 'shape') return undefined;
  const corners = shapeCorners(mark);
  if (!corners) return undefined;
  const matrix = boxMatrix(mark);
  const points = corners.flatMap((corner) => (matrix ? applyMatrix(matrix, ...corner) : corner));
  const { page, author, space, order, locked, group, alt, createdAt, style, pane, measures } = mark;
  const common = { id: newId(), page, author, space, order, locked, group, alt, createdAt, style };
  return {
    ...common,
    ...(pane !== undefined && { pane }),
    ...(measures && { measures }),
    kind: 'path',
    course: 'straight',
    points,
    closed: true,
    heads: 'none',
    from: null,
    to: null,
  };
}

/** Where the corners are when one is put elsewhere; in a triangle, a nearly right angle there becomes exactly right. */
export function movedCorner(points: readonly Point[], i: number, to: Point): Point[] {
  return points.map((point, k) => (k === i ? rightAngle(points, i, to) : point));
}

/** A corner that is nearly at a right angle between its neighbours is put exactly there (Thales). */
function rightAngle(points: readonly Point[], i: number, to: Point): Point {
  if (points.length !== 3) return to;
  const [a, b] = [points[(i + 1) % 3]!, points[(i + 2) % 3]!];
  const [mx, my] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const radius = Math.hypot(a[0] - mx, a[1] - my);
  const distance = Math.hypot(to[0] - mx, to[1] - my);
  const angle = Math.atan2(a[1] - to[1], a[0] - to[0]) - Math.atan2(b[1] - to[1], b[0] - to[0]);
  if (distance === 0 || Math.abs(Math.cos(angle)) > Math.sin((SNAP_DEGREES * Math.PI) / 180)) return to;
  return [mx + ((to[0] - mx) * radius) / distance, my + ((to[1] - my) * radius) / distance];
}

/** The path with other corners, which no longer sticks to anything. */
export function pathThrough(path: PathMark, corners: readonly Point[]): PathMark {
  const points = corners.flat().map((value) => Math.round(value * 100) / 100);
  return { ...path, points, from: null, to: null };
}

/** What puts a path in the place of the mark that it was: a path keeps its id; a shape makes way for its polygon. */
export function cornerChanges(mark: Mark, path: PathMark): Change[] {
  if (mark.kind === 'path')
    return [{ do: 'patch', mark: mark.id, set: { points: path.points, from: null, to: null } }];
  return [
    { do: 'remove', mark: mark.id },
    { do: 'add', mark: path },
  ];
}
