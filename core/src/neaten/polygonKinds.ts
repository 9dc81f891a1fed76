import { angleBetween } from './corners.js';
import type { Point } from './trace.js';
import { apart } from './trace.js';
import { middleOf, offStep, turnedUpright, uprightSides } from './upright.js';

export type PolygonKind =
  | 'triangle'
  | 'isosceles'
  | 'equilateral'
  | 'rightTriangle'
  | 'square'
  | 'rectangle'
  | 'rhombus'
  | 'parallelogram'
  | 'trapezium'
  | 'kite'
  | 'quadrilateral'
  | 'polygon'
  | 'star';

/** A polygon taken as one of a kind, with its corners as that kind has them. */
export interface PolygonReading {
  readonly kind: PolygonKind;
  readonly corners: readonly Point[];
  /** How unlikely a hand is that far off the kind, less what it is worth that the kind says more; lower is better. */
  readonly cost: number;
}

/** What a hand is off: directions in degrees, lengths as a part. */
const DEGREES = 3.9;
const PART = 0.066;
/** What it is worth that a kind says something more, such as that two sides are alike. */
const SAYS_MORE = 2.6;

/** What the corners of a regular polygon are off, as part of its radius. */
const EVEN = 0.11;
/** A hand seldom means a polygon that is not regular: what each corner of it costs beyond four. */
const UNEVEN = 3;

const RIGHT = Math.PI / 2;
const inDegrees = (angle: number) => (angle * 180) / Math.PI;

/** All that a polygon can be taken as, the likeliest first. */
export function polygonReadings(corners: readonly Point[]): PolygonReading[] {
  const readings =
    corners.length === 3
      ? triangles(corners)
      : corners.length === 4
        ? quadrilaterals(corners)
        : others(corners);
  return readings.sort((a, b) => a.cost - b.cost);
}

/** Squares of what is off, and how many things the kind says. */
function costOf(says: number, ...off: number[]): number {
  return off.reduce((sum, value) => sum + value * value, 0) / 2 - SAYS_MORE * says;
}

/** The corners from one on, round and round. */
function from(corners: readonly Point[], first: number): Point[] {
  return corners.map((_, i) => corners[(first + i) % corners.length]!);
}

function direction(a: Point, b: Point): number {
  return Math.atan2(b[1] - a[1], b[0] - a[0]);
}

/** The inner angle at a corner, radians, 0 to π. */
function angleAt(a: Point, corner: Point, b: Point): number {
  return Math.abs(angleBetween(a[0] - corner[0], a[1] - corner[1], b[0] - corner[0], b[1] - corner[1]));
}

/** How much two lengths differ, in what a hand is off. */
function differ(a: number, b: number): number {
  return Math.log(a / b) / (PART * Math.SQRT2);
}

function triangles(corners: readonly Point[]): PolygonReading[] {
  const readings: PolygonReading[] = [
    { kind: 'triangle', corners: uprightSides(corners, true), cost: costOf(0) },
    equilateral(corners),
  ];
  for (let i = 0; i < 3; i++) {
    const [apex, b, c] = from(corners, i) as [Point, Point, Point];
    readings.push({
      kind: 'isosceles',
      corners: isosceles(apex, b, c),
      cost: costOf(1, differ(apart(apex, b), apart(apex, c))),
    });
    const off = inDegrees(angleAt(b, apex, c) - RIGHT) / DEGREES;
    readings.push({ kind: 'rightTriangle', corners: rightTriangle(apex, b, c), cost: costOf(1, off) });
  }
  return bestOfEachKind(readings);
}

function equilateral(corners: readonly Point[]): PolygonReading {
  const [a, b, c] = corners as [Point, Point, Point];
  const sides = [apart(a, b), apart(b, c), apart(c, a)];
  const mean = (sides[0]! + sides[1]! + sides[2]!) / 3;
  const off = sides.map((side) => Math.log(side / mean) / PART);
  return { kind: 'equilateral', corners: regular(corners).corners, cost: costOf(2, ...off) };
}

/** Both legs alike, the base where it was. */
function isosceles(apex: Point, b: Point, c: Point): Point[] {
  const [mx, my] = [(b[0] + c[0]) / 2, (b[1] + c[1]) / 2];
  const angle = direction(b, c);
  const side = (apex[0] - mx) * -Math.sin(angle) + (apex[1] - my) * Math.cos(angle);
  const top: Point = [mx - Math.sin(angle) * side, my + Math.cos(angle) * side];
  return turnedUpright([top, b, c], angle);
}

/** A right angle at the corner, which stays; the legs keep their lengths. */
function rightTriangle(corner: Point, b: Point, c: Point): Point[] {
  const hand = Math.sign(
    angleBetween(b[0] - corner[0], b[1] - corner[1], c[0] - corner[0], c[1] - corner[1]),
  );
  const [first, second] = [direction(corner, b), direction(corner, c)];
  const off = offStep(second - hand * RIGHT - first, 360);
  const angle = first + off / 2;
  const [p, q] = [apart(corner, b), apart(corner, c)];
  const other = angle + hand * RIGHT;
  const right: Point[] = [
    corner,
    [corner[0] + p * Math.cos(angle), corner[1] + p * Math.sin(angle)],
    [corner[0] + q * Math.cos(other), corner[1] + q * Math.sin(other)],
  ];
  return turnedUpright(right, angle);
}

function quadrilaterals(corners: readonly Point[]): PolygonReading[] {
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  if (selfCrossing(corners)) return [{ kind: 'quadrilateral', corners, cost: costOf(0) }];
  const sides = [apart(a, b), apart(b, c), apart(c, d), apart(d, a)] as const;
  const mean = (sides[0] + sides[1] + sides[2] + sides[3]) / 4;
  // Four angles of which three are free count as three.
  const free = Math.sqrt(3 / 4);
  const angles = corners.map((corner, i) => {
    const [before, after] = [corners[(i + 3) % 4]!, corners[(i + 1) % 4]!];
    return (free * inDegrees(angleAt(before, corner, after) - RIGHT)) / DEGREES;
  });
  const alike = sides.map((side) => (free * Math.log(side / mean)) / PART);
  const parallel = [offParallel(a, b, c, d), offParallel(b, c, d, a)] as const;
  const ratio = differ(sides[0] + sides[2], sides[1] + sides[3]) * Math.SQRT2;
  const readings: PolygonReading[] = [
    { kind: 'quadrilateral', corners: uprightSides(corners, true), cost: costOf(0) },
    { kind: 'square', corners: rectangle(corners, true), cost: costOf(4, ...angles, ratio) },
    { kind: 'rectangle', corners: rectangle(corners, false), cost: costOf(3, ...angles) },
    { kind: 'rhombus', corners: rhombus(corners), cost: costOf(3, ...alike) },
    { kind: 'parallelogram', corners: parallelogram(corners), cost: costOf(2, ...parallel) },
  ];
  for (let i = 0; i < 2; i++) {
    const [p, q, r, s] = from(corners, i) as [Point, Point, Point, Point];
    readings.push({ kind: 'trapezium', corners: trapezium(p, q, r, s), cost: costOf(1, parallel[i]!) });
    const pairs = [differ(apart(s, p), apart(p, q)), differ(apart(q, r), apart(r, s))];
    readings.push({ kind: 'kite', corners: kite(p, q, r, s), cost: costOf(2, ...pairs) });
  }
  return bestOfEachKind(readings);
}

/** How far sides a–b and c–d are from parallel, in what a hand is off. */
function offParallel(a: Point, b: Point, c: Point, d: Point): number {
  return inDegrees(offStep(direction(a, b) - direction(d, c), 180)) / (DEGREES * Math.SQRT2);
}

function selfCrossing(corners: readonly Point[]): boolean {
  const turns = corners.map((corner, i) => {
    const [before, after] = [corners.at(i - 1)!, corners[(i + 1) % corners.length]!];
    return Math.sign(
      angleBetween(corner[0] - before[0], corner[1] - before[1], after[0] - corner[0], after[1] - corner[1]),
    );
  });
  return Math.abs(turns.reduce((sum, turn) => sum + turn, 0)) < 2;
}

/** Right angles all round, each pair of sides as long as both were on average. */
function rectangle(corners: readonly Point[], square: boolean): Point[] {
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const angle = meanDirection(corners, 4);
  const [u, v] = [(apart(a, b) + apart(c, d)) / 4, (apart(b, c) + apart(d, a)) / 4];
  const [halfU, halfV] = square ? [(u + v) / 2, (u + v) / 2] : [u, v];
  const [cx, cy] = middleOf(corners);
  const first = direction(a, b);
  const along = angle + Math.round((first - angle) / RIGHT) * RIGHT;
  const turn = Math.sign(angleBetween(b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1])) || 1;
  const at = (p: number, q: number): Point => [
    cx + p * halfU * Math.cos(along) - q * turn * halfV * Math.sin(along),
    cy + p * halfU * Math.sin(along) + q * turn * halfV * Math.cos(along),
  ];
  return turnedUpright([at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)], along);
}

/** Direction of the sides, each alike to the others but for a multiple of 360° / `fold`; longer sides count more. */
function meanDirection(corners: readonly Point[], fold: number): number {
  let [x, y] = [0, 0];
  corners.forEach((corner, i) => {
    const next = corners[(i + 1) % corners.length]!;
    const angle = fold * direction(corner, next);
    x += apart(corner, next) * Math.cos(angle);
    y += apart(corner, next) * Math.sin(angle);
  });
  return Math.atan2(y, x) / fold;
}

/** Diagonals that halve each other at right angles. */
function rhombus(corners: readonly Point[]): Point[] {
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const [p, q] = [apart(a, c) / 2, apart(b, d) / 2];
  const first = direction(a, c);
  const turn = Math.sign(angleBetween(c[0] - a[0], c[1] - a[1], d[0] - b[0], d[1] - b[1])) || 1;
  const off = offStep(direction(b, d) - turn * RIGHT - first, 360);
  const angle = first + off / 2;
  const [cx, cy] = middleOf(corners);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const made: Point[] = [
    [cx - p * cos, cy - p * sin],
    [cx + turn * q * sin, cy - turn * q * cos],
    [cx + p * cos, cy + p * sin],
    [cx - turn * q * sin, cy + turn * q * cos],
  ];
  const upright = turnedUpright(made, angle);
  return upright[0] === made[0] ? turnedUpright(made, direction(made[0]!, made[1]!)) : upright;
}

/** Both diagonals halved where they cross. */
function parallelogram(corners: readonly Point[]): Point[] {
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  const [cx, cy] = middleOf(corners);
  const [u, v] = [
    [(c[0] - a[0]) / 2, (c[1] - a[1]) / 2],
    [(d[0] - b[0]) / 2, (d[1] - b[1]) / 2],
  ] as const;
  const made: Point[] = [
    [cx - u[0], cy - u[1]],
    [cx - v[0], cy - v[1]],
    [cx + u[0], cy + u[1]],
    [cx + v[0], cy + v[1]],
  ];
  const level = turnedUpright(made, direction(made[0]!, made[1]!));
  return level[0]![0] === made[0]![0] ? turnedUpright(made, direction(made[1]!, made[2]!)) : level;
}

/** Sides a–b and c–d parallel; where the others are nearly alike, they become so. */
function trapezium(a: Point, b: Point, c: Point, d: Point): Point[] {
  const [p, q] = [apart(a, b), apart(c, d)];
  const angle = direction(a, b) + (offStep(direction(d, c) - direction(a, b), 360) * q) / (p + q);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const middle = (m: Point, n: Point): Point => [(m[0] + n[0]) / 2, (m[1] + n[1]) / 2];
  let [top, bottom] = [middle(a, b), middle(c, d)];
  if (Math.abs(differ(apart(b, c), apart(d, a))) < 1.2) {
    const along = ((bottom[0] - top[0]) * cos + (bottom[1] - top[1]) * sin) / 2;
    top = [top[0] + along * cos, top[1] + along * sin];
    bottom = [bottom[0] - along * cos, bottom[1] - along * sin];
  }
  const made: Point[] = [
    [top[0] - (p / 2) * cos, top[1] - (p / 2) * sin],
    [top[0] + (p / 2) * cos, top[1] + (p / 2) * sin],
    [bottom[0] + (q / 2) * cos, bottom[1] + (q / 2) * sin],
    [bottom[0] - (q / 2) * cos, bottom[1] - (q / 2) * sin],
  ];
  return turnedUpright(made, angle);
}

/** Alike on both sides of the diagonal p–r. */
function kite(p: Point, q: Point, r: Point, s: Point): Point[] {
  const angle = direction(p, r);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const along = (m: Point) => (m[0] - p[0]) * cos + (m[1] - p[1]) * sin;
  const across = (m: Point) => (m[1] - p[1]) * cos - (m[0] - p[0]) * sin;
  const [u, v] = [(along(q) + along(s)) / 2, (across(q) - across(s)) / 2];
  const at = (w: number): Point => [p[0] + u * cos - w * sin, p[1] + u * sin + w * cos];
  return turnedUpright([p, at(v), r, at(-v)], angle);
}

function others(corners: readonly Point[]): PolygonReading[] {
  const readings: PolygonReading[] = [];
  const { corners: even, off } = regular(corners);
  readings.push({ kind: 'polygon', corners: even, cost: off < EVEN ? -SAYS_MORE : Infinity });
  readings.push({
    kind: 'polygon',
    corners: uprightSides(corners, true),
    cost: UNEVEN * (corners.length - 4),
  });
  const star = starOf(corners);
  if (star) readings.push({ kind: 'star', corners: star, cost: -SAYS_MORE });
  return bestOfEachKind(readings);
}

/**
 * The regular polygon nearest to some corners, by their correlation with the corners of one of radius 1 (Procrustes); `off`
 * is the root of the mean square of what they are off, as part of the radius.
 */
export function regular(corners: readonly Point[]): { corners: Point[]; off: number } {
  const count = corners.length;
  const [cx, cy] = middleOf(corners);
  const hand = Math.sign(signedArea(corners)) || 1;
  let [re, im] = [0, 0];
  corners.forEach(([x, y], i) => {
    const angle = (-hand * i * 2 * Math.PI) / count;
    re += ((x - cx) * Math.cos(angle) - (y - cy) * Math.sin(angle)) / count;
    im += ((x - cx) * Math.sin(angle) + (y - cy) * Math.cos(angle)) / count;
  });
  const radius = Math.hypot(re, im);
  const first = Math.atan2(im, re);
  const at = (i: number): Point => {
    const angle = first + (hand * i * 2 * Math.PI) / count;
    return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
  };
  const made = corners.map((_, i) => at(i));
  const off =
    Math.sqrt(made.reduce((sum, point, i) => sum + apart(point, corners[i]!) ** 2, 0) / count) / radius;
  return { corners: levelled(made), off };
}

/** A regular polygon with a level side, if one nearly is. */
function levelled(corners: readonly Point[]): Point[] {
  const step = 360 / corners.length;
  const angle = direction(corners[0]!, corners[1]!);
  const off = offStep(angle, corners.length % 2 === 0 ? step : step / 2);
  return turnedUpright(corners, off);
}

function signedArea(corners: readonly Point[]): number {
  return corners.reduce((sum, [x, y], i) => {
    const next = corners[(i + 1) % corners.length]!;
    return sum + x * next[1] - next[0] * y;
  }, 0);
}

/** Corners of a star whose corners point out and in by turns; undefined where they do not. */
function starOf(corners: readonly Point[]): Point[] | undefined {
  const count = corners.length;
  if (count < 6 || count % 2 === 1) return undefined;
  const [cx, cy] = middleOf(corners);
  const radii = corners.map(([x, y]) => Math.hypot(x - cx, y - cy));
  const halves = [0, 1].map((half) => radii.filter((_, i) => i % 2 === half));
  const [even, odd] = halves.map((half) => half.reduce((sum, r) => sum + r, 0) / half.length) as [
    number,
    number,
  ];
  const outFirst = even > odd;
  const [outer, inner] = outFirst ? [halves[0]!, halves[1]!] : [halves[1]!, halves[0]!];
  if (Math.max(...inner) > 0.86 * Math.min(...outer)) return undefined;
  return evenStar(corners, outFirst, Math.max(even, odd), Math.min(even, odd));
}

/** A star whose points are alike, where they nearly are; else as it was drawn. */
function evenStar(corners: readonly Point[], outFirst: boolean, outer: number, inner: number): Point[] {
  const { corners: even } = regular(corners.filter((_, i) => (i % 2 === 0) === outFirst));
  const [cx, cy] = middleOf(even);
  const hand = Math.sign(signedArea(corners)) || 1;
  const start = direction([cx, cy], even[0]!);
  const made = corners.map((_, i): Point => {
    const isOuter = (i % 2 === 0) === outFirst;
    const angle = start + (hand * (i - (outFirst ? 0 : 1)) * 2 * Math.PI) / corners.length;
    const radius = isOuter ? outer : inner;
    return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
  });
  const off = Math.max(...made.map((point, i) => apart(point, corners[i]!))) / outer;
  return off < 0.35 ? made : [...corners];
}

function bestOfEachKind(readings: readonly PolygonReading[]): PolygonReading[] {
  const best = new Map<PolygonKind, PolygonReading>();
  for (const reading of readings) {
    const known = best.get(reading.kind);
    if (!known || reading.cost < known.cost) best.set(reading.kind, reading);
  }
  return [...best.values()];
}
