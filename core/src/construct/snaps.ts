import type { Mark } from '../marks/mark.js';
import type { Edge, Point } from './edges.js';
import { along, centreOf, cornersOfMark, crossingOf, edgesOf, footOf } from './edges.js';

export type SnapKind =
  'corner' | 'middle' | 'centre' | 'crossing' | 'foot' | 'bisector' | 'perpendicular' | 'parallel';

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
  private readonly corners: readonly Point[];
  private readonly centres: readonly Point[];

  constructor(marks: readonly Mark[]) {
    this.edges = marks.flatMap(edgesOf);
    this.corners = marks.flatMap(cornersOfMark);
    this.centres = marks.map(centreOf).filter((centre) => centre !== undefined);
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
    const crossings = near.flatMap((edge, i) =>
      near.slice(0, i).flatMap((other) => listOf(crossingOf(edge, other, true))),
    );
    const candidates: [SnapKind, readonly Point[]][] = [
      ['corner', this.corners],
      ['crossing', crossings],
      ['middle', near.map((edge) => along(edge, 0.5))],
      ['centre', this.centres],
    ];
    for (const [kind, points] of candidates) {
      const at = nearest(points, place, reach);
      if (at) return { kind, at };
    }
    return undefined;
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
