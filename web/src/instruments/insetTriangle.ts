type Point = readonly [number, number];

/** A triangle within another one, its sides so far from those of the other; its incentre where there is no such room. */
export function insetTriangle(corners: readonly [Point, Point, Point], by: number): [Point, Point, Point] {
  const [a, b, c] = corners;
  const [la, lb, lc] = [apart(b, c), apart(a, c), apart(a, b)];
  const round = la + lb + lc;
  const middle: Point = [
    (la * a[0] + lb * b[0] + lc * c[0]) / round,
    (la * a[1] + lb * b[1] + lc * c[1]) / round,
  ];
  const area = Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
  const share = Math.max(0, 1 - by / ((2 * area) / round));
  const inset = ([x, y]: Point): Point => [
    middle[0] + (x - middle[0]) * share,
    middle[1] + (y - middle[1]) * share,
  ];
  return [inset(a), inset(b), inset(c)];
}

function apart(p: Point, q: Point): number {
  return Math.hypot(p[0] - q[0], p[1] - q[1]);
}
