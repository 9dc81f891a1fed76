import { insidePolygon } from '../geometry/polygon.js';

type Point = readonly [number, number];

const ROWS = 9;

/** A point well within a polygon: the middle of the longest of some level lines through it, those near half its height first. */
export function pointWithin(polygon: readonly Point[]): [number, number] {
  const [xs, ys] = [polygon.map(([x]) => x), polygon.map(([, y]) => y)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  let best: [number, number] = [(Math.min(...xs) + Math.max(...xs)) / 2, (top + bottom) / 2];
  let most = 0;
  for (let row = 1; row < ROWS; row++) {
    const level = top + ((bottom - top) * row) / ROWS;
    const worth = 1 - Math.abs(row / ROWS - 0.5);
    const cuts = cutsAt(polygon, level);
    for (let i = 0; i + 1 < cuts.length; i += 2) {
      const [from, to] = [cuts[i]!, cuts[i + 1]!];
      const middle: [number, number] = [(from + to) / 2, level];
      if ((to - from) * worth <= most || !insidePolygon(...middle, polygon)) continue;
      [best, most] = [middle, (to - from) * worth];
    }
  }
  return best;
}

/** Where a level line crosses a polygon, from left to right. */
function cutsAt(polygon: readonly Point[], level: number): number[] {
  const cuts = polygon.flatMap(([ax, ay], i) => {
    const [bx, by] = polygon[(i + 1) % polygon.length]!;
    return ay > level === by > level ? [] : [ax + ((level - ay) / (by - ay)) * (bx - ax)];
  });
  return cuts.sort((a, b) => a - b);
}
