import { polygonFacts } from './facts.js';
import { figuresOf } from './figures.js';
import type { Point } from './outline.js';

/** A polygon or line, as far as its corners say. */
interface Corners {
  readonly corners: readonly Point[];
  readonly closed: boolean;
}

/** A length or angle was asked for that no figure of this kind can have. */
export class ImpossibleFigure extends Error {
  override readonly name = 'ImpossibleFigure';
}

/**
 * The corners when the side from the i-th to the next gets a length (page units). Its first corner stays. A square, rhombus or
 * other regular figure stays one and grows as a whole; of a parallelogram the side beside it moves along; else only the
 * side's second corner moves, along the side. Throws ImpossibleFigure where it has no length now, or should have none.
 */
export function withSide({ corners, closed }: Corners, i: number, length: number): Point[] {
  const count = corners.length;
  const [a, k] = [corners[i]!, (i + 1) % count];
  const b = corners[k]!;
  const now = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (!(length > 0) || now === 0) throw new ImpossibleFigure();
  const by = length / now;
  const facts = closed ? polygonFacts(figuresOf({ kind: 'corners', corners, closed })) : [];
  if (facts.some((fact) => ['square', 'rhombus', 'regular', 'equilateral'].includes(fact)))
    return corners.map((corner): Point => [a[0] + (corner[0] - a[0]) * by, a[1] + (corner[1] - a[1]) * by]);
  const [dx, dy] = [(b[0] - a[0]) * (by - 1), (b[1] - a[1]) * (by - 1)];
  const along = facts.some((fact) => fact === 'rectangle' || fact === 'parallelogram')
    ? [k, (k + 1) % count]
    : [k];
  return corners.map((corner, at): Point => (along.includes(at) ? [corner[0] + dx, corner[1] + dy] : corner));
}

/**
 * The corners when the angle at the i-th becomes so many degrees. That corner and the one before it stay, the one after it is
 * turned; what follows of an open line, or the fourth corner of a parallelogram, goes along. Throws ImpossibleFigure
 * where a triangle would not close, or the angle is none.
 */
export function withAngle({ corners, closed }: Corners, i: number, degrees: number): Point[] {
  const count = corners.length;
  const now = figuresOf({ kind: 'corners', corners, closed }).angles[i];
  const most = closed && count > 3 ? 360 : 180;
  if (now === undefined || !(degrees > 0) || degrees >= most) throw new ImpossibleFigure();
  const [before, corner, k] = [corners[(i - 1 + count) % count]!, corners[i]!, (i + 1) % count];
  const after = corners[k]!;
  const cross =
    (after[0] - corner[0]) * (before[1] - corner[1]) - (after[1] - corner[1]) * (before[0] - corner[0]);
  // The way that opens the angle: away from the corner before, by the inside where that is more than half a turn.
  const opens = (cross >= 0 ? -1 : 1) * (now > 180 ? -1 : 1);
  const turn = (opens * (degrees - now) * Math.PI) / 180;
  const turned = (point: Point): Point => {
    const [x, y] = [point[0] - corner[0], point[1] - corner[1]];
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    return [corner[0] + x * cos - y * sin, corner[1] + x * sin + y * cos];
  };
  if (!closed) return corners.map((point, at) => (at > i ? turned(point) : point));
  const moved = corners.map((point, at) => (at === k ? turned(point) : point));
  const facts = polygonFacts(figuresOf({ kind: 'corners', corners, closed }));
  const staysParallel = facts.some((fact) =>
    ['square', 'rectangle', 'rhombus', 'parallelogram'].includes(fact),
  );
  if (staysParallel) {
    const opposite = (i + 2) % 4;
    const [m, p] = [moved[k]!, before];
    moved[opposite] = [m[0] + p[0] - corner[0], m[1] + p[1] - corner[1]];
  }
  return moved;
}
