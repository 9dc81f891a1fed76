/** Numbers per point in a stroke: x, y, pressure, time. */
export const STRIDE = 4;

/** Most points one stroke may hold; a longer one is continued as a new stroke. */
export const MAX_POINTS = 20000;

export function pointCount(points: readonly number[]): number {
  return points.length / STRIDE;
}

/** A point with the precision that is stored: 0.01 units, 0.001 of pressure, 1 ms. */
export function packPoint(
  x: number,
  y: number,
  pressure: number,
  time: number,
): [number, number, number, number] {
  return [
    Math.round(x * 100) / 100,
    Math.round(y * 100) / 100,
    Math.round(pressure * 1000) / 1000,
    Math.round(time),
  ];
}
