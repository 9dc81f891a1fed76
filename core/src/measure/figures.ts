import { polygonArea } from '../geometry/polygon.js';
import type { Outline, Point } from './outline.js';

/** What a line or shape measures, in page units and degrees. */
export interface Figures {
  /** Of the side from each corner to the next; of an arc, circle or curve its one length. */
  readonly sides: readonly number[];
  /** At each corner, inside the shape, 0 to 360; at an open line's bends the smaller one, none at its ends. */
  readonly angles: readonly (number | undefined)[];
  /** All round, or from end to end. */
  readonly perimeter: number;
  /** Undefined for an open line. */
  readonly area: number | undefined;
  /** Of a circle or arc. */
  readonly radius: number | undefined;
}

const degrees = (angle: number) => (angle * 180) / Math.PI;

export function figuresOf(outline: Outline): Figures {
  switch (outline.kind) {
    case 'corners':
      return ofCorners(outline.corners, outline.closed);
    case 'ellipse': {
      const { a, b } = outline;
      const perimeter = ellipsePerimeter(a, b);
      return { sides: [], angles: [], perimeter, area: Math.PI * a * b, radius: a === b ? a : undefined };
    }
    case 'arc': {
      const { radius, sweep } = outline;
      return {
        sides: [radius * sweep],
        angles: [degrees(sweep)],
        perimeter: radius * sweep,
        area: undefined,
        radius,
      };
    }
    case 'curve': {
      const { points, closed } = outline;
      const perimeter = sidesOf(points, closed).reduce((sum, side) => sum + side, 0);
      const area = closed ? Math.abs(polygonArea(points)) : undefined;
      return { sides: closed ? [] : [perimeter], angles: [], perimeter, area, radius: undefined };
    }
  }
}

function ofCorners(corners: readonly Point[], closed: boolean): Figures {
  const sides = sidesOf(corners, closed);
  return {
    sides,
    angles: corners.map((_, i) => angleAt(corners, i, closed)),
    perimeter: sides.reduce((sum, side) => sum + side, 0),
    area: closed ? Math.abs(polygonArea(corners)) : undefined,
    radius: undefined,
  };
}

function sidesOf(corners: readonly Point[], closed: boolean): number[] {
  return corners.flatMap((corner, i) => {
    const next = corners[i + 1] ?? (closed ? corners[0] : undefined);
    return next ? [Math.hypot(next[0] - corner[0], next[1] - corner[1])] : [];
  });
}

function angleAt(corners: readonly Point[], i: number, closed: boolean): number | undefined {
  const count = corners.length;
  if (!closed && (i === 0 || i === count - 1)) return undefined;
  const [corner, before, after] = [corners[i]!, corners[(i - 1 + count) % count]!, corners[(i + 1) % count]!];
  const [ux, uy, vx, vy] = [
    before[0] - corner[0],
    before[1] - corner[1],
    after[0] - corner[0],
    after[1] - corner[1],
  ];
  const turn = degrees(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
  if (!closed) return Math.abs(turn);
  const inside = polygonArea(corners) > 0 ? -turn : turn;
  return (inside + 360) % 360;
}

/** Ramanujan, "Modular equations and approximations to π" (1914): off by less than 0.04 % for any ellipse that can be drawn. */
function ellipsePerimeter(a: number, b: number): number {
  const h = ((a - b) / (a + b)) ** 2;
  return Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
}
