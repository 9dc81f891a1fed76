import type { Cornered } from './corners.js';
import { angleBetween } from './corners.js';
import { crossing } from './lines.js';
import { regular } from './polygonKinds.js';
import type { Reading } from './reading.js';
import { fitCost, throughCorners } from './reading.js';
import type { Point } from './trace.js';

/** A star of five points drawn in one go, by five lines that cross each other: its corners and where its lines cross. */
export function pentagram(cornered: Cornered | undefined, tremor: number): Reading | undefined {
  if (!cornered) return undefined;
  const { corners, off } = cornered;
  if (corners.length !== 5 || !goesRoundTwice(corners)) return undefined;
  const tips = [0, 2, 4, 1, 3].map((i) => corners[i]!);
  const even = regular(tips);
  const outer = even.off < 0.22 ? even.corners : tips;
  const star = outer.flatMap((tip, i): Point[] => {
    const at = (k: number) => outer[(i + k) % 5]!;
    const inner = crossing(lineThrough(tip, at(2)), lineThrough(at(1), at(4)));
    return inner ? [tip, inner] : [tip];
  });
  return { kind: 'star', body: throughCorners(star, true), cost: fitCost(off, tremor, 5), off };
}

function goesRoundTwice(corners: readonly Point[]): boolean {
  const turns = corners.map(([x, y], i) => {
    const [a, b] = [corners[(i + 4) % 5]!, corners[(i + 1) % 5]!];
    return angleBetween(x - a[0], y - a[1], b[0] - x, b[1] - y);
  });
  const sum = turns.reduce((all, turn) => all + turn, 0);
  return Math.abs(Math.abs(sum) - 4 * Math.PI) < 0.5;
}

function lineThrough([x, y]: Point, to: Point) {
  const length = Math.hypot(to[0] - x, to[1] - y) || 1;
  return { x, y, dx: (to[0] - x) / length, dy: (to[1] - y) / length };
}
