import { markBounds } from '../marks/bounds.js';
import type { Movement } from '../marks/answerRule.js';
import type { Point } from '../marks/kind.js';
import type { Mark } from '../marks/mark.js';
import { kindOf } from '../marks/mark.js';
import type { Transform } from '../marks/transform.js';
import { patchMark } from '../ops/apply.js';
import { centreOf, groundOf, liesIn, middleOf } from './places.js';

/** Marks by id, as they are seen. */
export type MarkFinder = (id: string) => Mark | undefined;

/** As far as this from where it may be, a thing still is there; places are rounded to hundredths of a page unit. */
const SLACK = 0.5;

/**
 * What a hand does to a mark that goes from one point to another, as far as its movement lets it: its middle stays within an
 * area or on a line, or it turns by as much as the hand goes round the point. Page units.
 */
export function movedBy(
  mark: Mark,
  movement: Movement,
  { from, to }: { from: Point; to: Point },
  find: MarkFinder,
): Transform {
  if (movement.how === 'turning') {
    const { x, y } = movement;
    return { kind: 'turn', degrees: bearing([x, y], to) - bearing([x, y], from), x, y };
  }
  const [cx, cy] = centreOf(mark);
  const aim: Point = [cx + to[0] - from[0], cy + to[1] - from[1]];
  const [x, y] = nearestAllowed(aim, movement, find);
  return { kind: 'move', dx: x - cx, dy: y - cy };
}

/** The point nearest to another at which a movement lets the middle of a mark be. */
function nearestAllowed(aim: Point, movement: Movement, find: MarkFinder): Point {
  if (movement.how === 'inside') {
    const area = find(movement.area);
    return !area || liesIn(aim, area) ? aim : nearestOn(aim, groundOf(area).map(closed));
  }
  if (movement.how === 'along') {
    const line = find(movement.line);
    return line ? nearestOn(aim, kindOf(line).target(line).lines) : aim;
  }
  return aim;
}

/** The mark after a transform of it. */
export function transformed(mark: Mark, transform: Transform): Mark {
  return patchMark(mark, kindOf(mark).transform(mark, transform));
}

/** Whether a mark that was here is there by a movement that it is allowed. */
export function isMovement(from: Mark, to: Mark, movement: Movement, find: MarkFinder): boolean {
  if (movement.how !== 'turning') {
    const place = centreOf(to);
    return isShifted(from, to) && distance(place, nearestAllowed(place, movement, find)) <= SLACK;
  }
  const pivot: Point = [movement.x, movement.y];
  const [before, after] = [middleOf(from), middleOf(to)];
  const degrees =
    distance(pivot, before) > SLACK
      ? bearing(pivot, after) - bearing(pivot, before)
      : rotationOf(to) - rotationOf(from);
  return isAlike(transformed(from, { kind: 'turn', degrees, x: pivot[0], y: pivot[1] }), to);
}

/** Whether a mark is another as it is, somewhere else. */
export function isShifted(from: Mark, to: Mark): boolean {
  const [before, after] = [cornerOf(from), cornerOf(to)];
  const dx = after[0] - before[0];
  const dy = after[1] - before[1];
  return isAlike(transformed(from, { kind: 'move', dx, dy }), to);
}

/** The fields of a mark that say where and how large it is. */
export function placeFields(mark: Mark): Set<string> {
  const turned = kindOf(mark).transform(mark, { kind: 'turn', degrees: 1, x: 0, y: 0 });
  const moved = kindOf(mark).transform(mark, { kind: 'move', dx: 1, dy: 1 });
  return new Set([...Object.keys(turned), ...Object.keys(moved)].filter((field) => field !== 'style'));
}

function isAlike(a: Mark, b: Mark): boolean {
  const [one, other] = [a, b] as unknown as Record<string, unknown>[];
  return [...placeFields(a)].every((field) => isNear(one![field], other![field]));
}

function isNear(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) <= SLACK;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((each, i) => isNear(each, b[i]));
  return JSON.stringify(a) === JSON.stringify(b);
}

/** A corner that goes wherever its mark goes, whatever is written on that. */
function cornerOf(mark: Mark): Point {
  const { x, y } = 'x' in mark ? mark : markBounds(mark);
  return [x, y];
}

const rotationOf = (mark: Mark) => ('rotation' in mark ? mark.rotation : 0);
const closed = (polygon: readonly Point[]): Point[] => [...polygon, polygon[0]!];
const distance = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);
/** Degrees clockwise from the right, as a point is seen from another. */
const bearing = (from: Point, to: Point) => (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;

/** The point of lines that is nearest to another. */
function nearestOn(point: Point, lines: readonly (readonly Point[])[]): Point {
  let best = point;
  let least = Infinity;
  for (const line of lines)
    for (let i = 0; i < line.length; i++) {
      const near = nearestOfPiece(point, line[i]!, line[i + 1] ?? line[i]!);
      const away = distance(point, near);
      if (away >= least) continue;
      [best, least] = [near, away];
    }
  return best;
}

function nearestOfPiece([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): Point {
  const [dx, dy] = [bx - ax, by - ay];
  const length = dx * dx + dy * dy;
  const share = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length));
  return [ax + share * dx, ay + share * dy];
}
