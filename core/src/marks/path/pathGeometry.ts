import type { Path, PathStep } from '../../geometry/path.js';
import { arcPath } from '../../geometry/arc.js';
import { flattenPath, pointsOf } from '../../geometry/path.js';
import type { PathMark } from './pathMark.js';

type Point = [number, number];

/** The line that a path mark draws, without its heads. */
export function pathCourse({ course, points, closed }: Pick<PathMark, 'course' | 'points' | 'closed'>): Path {
  const all = pointsOf(points);
  const [a, b, c, d] = all as [Point, Point, Point | undefined, Point | undefined];
  if (course === 'quadratic' && c)
    return [
      ['M', ...a],
      ['Q', ...b, ...c],
    ];
  if (course === 'cubic' && c && d)
    return [
      ['M', ...a],
      ['C', ...b, ...c, ...d],
    ];
  if (course === 'arc' && c) return arcPath(a, b, c);
  const corners = course === 'elbow' ? elbow(a, all.at(-1)!) : all;
  const steps = corners.map((corner, i): PathStep => [i === 0 ? 'M' : 'L', ...corner]);
  return closed ? [...steps, ['Z']] : steps;
}

/** From one point to another by right angles, turning half way along the longer side. */
function elbow(a: Point, b: Point): Point[] {
  const wide = Math.abs(b[0] - a[0]) >= Math.abs(b[1] - a[1]);
  if (wide) {
    const middle = (a[0] + b[0]) / 2;
    return [a, [middle, a[1]], [middle, b[1]], b];
  }
  const middle = (a[1] + b[1]) / 2;
  return [a, [a[0], middle], [b[0], middle], b];
}

/** Filled heads at the ends that have one; sides are as long as four widths, at least 12 units. */
export function arrowHeads(
  mark: Pick<PathMark, 'course' | 'points' | 'closed' | 'heads'> & { style: { width: number } },
): Path[] {
  if (mark.heads === 'none' || mark.closed) return [];
  const points = flattenPath(pathCourse(mark), 12);
  const size = Math.max(12, mark.style.width * 4);
  const heads: Path[] = [];
  if (mark.heads !== 'start') heads.push(head(points.at(-1)!, farFrom(points.toReversed(), size / 2), size));
  if (mark.heads !== 'end') heads.push(head(points[0]!, farFrom(points, size / 2), size));
  return heads;
}

function head(tip: Point, behind: Point, size: number): Path {
  const angle = Math.atan2(tip[1] - behind[1], tip[0] - behind[0]);
  const barb = (turn: number): Point => [
    tip[0] - size * Math.cos(angle + turn),
    tip[1] - size * Math.sin(angle + turn),
  ];
  return [['M', ...tip], ['L', ...barb(0.45)], ['L', ...barb(-0.45)], ['Z']];
}

/** The first point that is at least so far from the first. */
function farFrom(points: readonly Point[], distance: number): Point {
  const [from] = points as [Point];
  return points.find(([x, y]) => Math.hypot(x - from[0], y - from[1]) >= distance) ?? points.at(-1)!;
}
