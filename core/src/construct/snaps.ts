import { STRIDE } from '../ink/points.js';
import type { Mark } from '../marks/mark.js';
import { anchorPoint } from '../marks/path/anchor.js';
import type { Circle } from './circles.js';
import { circleCrossings, circleOf, edgeCrossings, endsOf, nearestOn } from './circles.js';
import type { Edge, Point } from './edges.js';
import { along, crossingOf, edgesOfForm, footOf, formOf } from './edges.js';

export type SnapKind =
  'corner' | 'middle' | 'centre' | 'crossing' | 'foot' | 'bisector' | 'perpendicular' | 'parallel' | 'on';

/** Where a line is drawn to instead of where the hand is, and why. */
export interface Snap {
  readonly kind: SnapKind;
  readonly at: Point;
}

/** A direction is taken only by a line that is at least so many times the reach long. */
const LEAST_LENGTH = 3;
/** What a line is off a direction to take it, as part of the reach. */
const OFF = 0.6;
/** Ends that lie so near each other are one point, page units. */
const SAME = 0.5;

const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** Points and directions of lines and shapes that are there, by which others are drawn exactly. */
export class SnapField {
  private readonly edges: readonly Edge[];
  private readonly circles: readonly Circle[];
  private readonly corners: readonly Point[];
  private readonly centres: readonly Point[];

  constructor(marks: readonly Mark[]) {
    const forms = marks.map(formOf).filter((form) => form !== undefined);
    this.edges = forms.flatMap(edgesOfForm);
    this.circles = forms.map(circleOf).filter((circle) => circle !== undefined);
    this.corners = [
      ...forms.flatMap((form) => (form.kind === 'corners' ? form.corners : [])),
      ...this.circles.flatMap(endsOf),
      ...marks.flatMap(dotOf),
      ...marks.flatMap(terminalsOf),
    ];
    this.centres = forms.flatMap((form) =>
      form.kind === 'ellipse' || form.kind === 'arc' ? [form.centre] : [],
    );
  }

  /** As `snap` does for a point of an instrument: points, and before none the nearest place on a line. */
  place(place: Point, reach: number): Snap | undefined {
    const point = this.point(place, reach);
    if (point) return point;
    const on = [
      ...this.edges.map((edge) => along(edge, Math.min(1, Math.max(0, footOf(edge, place).part)))),
      ...this.circles.map((circle) => nearestOn(circle, place)),
    ];
    const at = nearest(on, place, reach);
    return at && { kind: 'on', at };
  }

  /**
   * What a place is drawn to that lies within `reach` (page units): a point before a direction. Directions are those of a line
   * from `start`: perpendicular or parallel to an edge, or halving the angle of two edges that meet there.
   */
  snap(place: Point, reach: number, start?: Point): Snap | undefined {
    const point = this.point(place, reach);
    if (point || !start || apart(start, place) < LEAST_LENGTH * reach) return point;
    return this.foot(place, reach, start) ?? this.direction(place, reach * OFF, start);
  }

  private point(place: Point, reach: number): Snap | undefined {
    const near = this.edges.filter((edge) => distanceTo(edge, place) <= reach);
    const candidates: [SnapKind, readonly Point[]][] = [
      ['corner', this.corners],
      ['crossing', this.crossings(near, place, reach)],
      ['middle', near.map((edge) => along(edge, 0.5))],
      ['centre', this.centres],
    ];
    for (const [kind, points] of candidates) {
      const at = nearest(points, place, reach);
      if (at) return { kind, at };
    }
    return undefined;
  }

  private crossings(near: readonly Edge[], place: Point, reach: number): Point[] {
    const round = this.circles.filter((circle) => apart(nearestOn(circle, place), place) <= reach);
    return [
      ...near.flatMap((edge, i) =>
        near.slice(0, i).flatMap((other) => listOf(crossingOf(edge, other, true))),
      ),
      ...near.flatMap((edge) => round.flatMap((circle) => edgeCrossings(edge, circle))),
      ...round.flatMap((circle, i) => round.slice(0, i).flatMap((other) => circleCrossings(circle, other))),
    ];
  }

  private foot(place: Point, reach: number, start: Point): Snap | undefined {
    const feet = this.edges.flatMap((edge) => {
      const { foot, part } = footOf(edge, start);
      return part >= 0 && part <= 1 && apart(foot, start) > SAME ? [foot] : [];
    });
    const at = nearest(feet, place, reach);
    return at && { kind: 'foot', at };
  }

  private direction(place: Point, off: number, start: Point): Snap | undefined {
    const [dx, dy] = [place[0] - start[0], place[1] - start[1]];
    let best: (Snap & { off: number }) | undefined;
    for (const [kind, [ux, uy]] of this.directions(start)) {
      const length = dx * ux + dy * uy;
      const at: Point = [start[0] + length * ux, start[1] + length * uy];
      const distance = apart(at, place);
      if (distance <= off && distance < (best?.off ?? Infinity)) best = { kind, at, off: distance };
    }
    return best && { kind: best.kind, at: best.at };
  }

  private directions(start: Point): [SnapKind, Point][] {
    const arms = this.edges.flatMap(([a, b]) =>
      apart(a, start) <= SAME ? [unit(a, b)] : apart(b, start) <= SAME ? [unit(b, a)] : [],
    );
    const bisectors = arms.flatMap((arm, i) =>
      arms.slice(0, i).flatMap((other) => listOf(halving(arm, other))),
    );
    const on = this.edges.filter((edge) => distanceTo(edge, start) <= SAME).map(([a, b]) => unit(a, b));
    return [
      ...bisectors.map((direction): [SnapKind, Point] => ['bisector', direction]),
      ...on.map(([x, y]): [SnapKind, Point] => ['perpendicular', [-y, x]]),
      ...this.edges.map(([a, b]): [SnapKind, Point] => ['parallel', unit(a, b)]),
    ];
  }
}

/** A point that was made by putting the pen down once. */
function dotOf(mark: Mark): Point[] {
  return mark.kind === 'stroke' && mark.points.length <= 2 * STRIDE && isDot(mark.points)
    ? [[mark.points[0]!, mark.points[1]!]]
    : [];
}

/** Where circuit symbols join: the middle of their left and right edge. */
function terminalsOf(mark: Mark): Point[] {
  if (mark.kind !== 'plot' || !mark.recipe.startsWith('{"figure":"circuit"')) return [];
  return [0, 1].map((x) => anchorPoint({ mark: mark.id, x, y: 0.5 }, mark)!);
}

function isDot([x, y, , , toX = x, toY = y]: readonly number[]): boolean {
  return Math.hypot(toX! - x!, toY! - y!) <= SAME;
}

function listOf(point: Point | undefined): Point[] {
  return point ? [point] : [];
}

function unit(a: Point, b: Point): Point {
  const length = apart(a, b) || 1;
  return [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
}

/** The direction half way between two; none between opposite ones. */
function halving(a: Point, b: Point): Point | undefined {
  const [x, y] = [a[0] + b[0], a[1] + b[1]];
  return Math.hypot(x, y) < 1e-6 ? undefined : unit([0, 0], [x, y]);
}

function nearest(points: readonly Point[], place: Point, reach: number): Point | undefined {
  let [best, least] = [undefined as Point | undefined, reach];
  for (const point of points) {
    const distance = apart(point, place);
    if (distance <= least) [best, least] = [point, distance];
  }
  return best;
}

function distanceTo(edge: Edge, place: Point): number {
  const { part } = footOf(edge, place);
  return apart(along(edge, Math.max(0, Math.min(1, part))), place);
}
