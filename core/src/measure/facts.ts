import type { Figures } from './figures.js';

export const ANGLE_KINDS = ['acute', 'right', 'obtuse', 'straight', 'reflex'] as const;
export type AngleKind = (typeof ANGLE_KINDS)[number];

/** What a triangle or four-sided figure is called. */
export type PolygonFact =
  | 'equilateral'
  | 'isosceles'
  | 'scalene'
  | 'acuteTriangle'
  | 'rightTriangle'
  | 'obtuseTriangle'
  | 'square'
  | 'rectangle'
  | 'rhombus'
  | 'parallelogram'
  | 'trapezium'
  | 'kite'
  | 'regular';

/** Angles that differ by no more are alike, degrees; sides by no more than this part. */
const ANGLE = 0.3;
const SIDE = 0.005;

/** What kind an angle of so many degrees is. */
export function angleKind(angle: number): AngleKind {
  if (Math.abs(angle - 90) <= ANGLE) return 'right';
  if (Math.abs(angle - 180) <= ANGLE) return 'straight';
  return angle < 90 ? 'acute' : angle < 180 ? 'obtuse' : 'reflex';
}

/** Sum of the inner angles of a polygon, degrees: (n − 2)·180. */
export function angleSum({ angles }: Pick<Figures, 'angles'>): number {
  return (angles.length - 2) * 180;
}

/** What a closed figure with corners is called, most telling first. */
export function polygonFacts({ sides, angles }: Pick<Figures, 'sides' | 'angles'>): PolygonFact[] {
  const all = angles.filter((angle) => angle !== undefined);
  if (sides.length === 3) return triangleFacts(sides, all);
  if (sides.length === 4) return quadrilateralFacts(sides, all);
  return areAlike(sides) && areSame(all) ? ['regular'] : [];
}

const alike = (a: number, b: number) => Math.abs(a - b) <= SIDE * Math.max(a, b);
const same = (a: number, b: number) => Math.abs(a - b) <= ANGLE;
const areAlike = (sides: readonly number[]) => sides.every((side) => alike(side, sides[0]!));
const areSame = (angles: readonly number[]) => angles.every((angle) => same(angle, angles[0]!));

function triangleFacts(sides: readonly number[], angles: readonly number[]): PolygonFact[] {
  const [a, b, c] = sides as [number, number, number];
  const bySides = areAlike(sides)
    ? 'equilateral'
    : alike(a, b) || alike(b, c) || alike(c, a)
      ? 'isosceles'
      : 'scalene';
  const kind = angleKind(Math.max(...angles));
  const byAngles = kind === 'right' ? 'rightTriangle' : kind === 'acute' ? 'acuteTriangle' : 'obtuseTriangle';
  return [bySides, byAngles];
}

function quadrilateralFacts(sides: readonly number[], angles: readonly number[]): PolygonFact[] {
  const [a, b, c, d] = sides as [number, number, number, number];
  const [p, q, r, s] = angles as [number, number, number, number];
  const [equalSides, rightAngles] = [areAlike(sides), angles.every((angle) => same(angle, 90))];
  if (rightAngles) return [equalSides ? 'square' : 'rectangle'];
  if (equalSides) return ['rhombus'];
  if (same(p, r) && same(q, s)) return ['parallelogram'];
  if (same(p + q, 180) || same(q + r, 180)) return ['trapezium'];
  return (alike(a, b) && alike(c, d)) || (alike(b, c) && alike(d, a)) ? ['kite'] : [];
}
