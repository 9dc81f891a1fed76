import type { Matrix } from './matrix.js';
import { applyMatrix, compose } from './matrix.js';
import type { Rect } from './rect.js';

/** A rectangle, mirrored left to right if `flip`, then turned clockwise round its middle. Page units, degrees. */
export interface TurnedBox extends Rect {
  rotation: number;
  flip?: boolean;
}

/** The map that turns by `degrees` clockwise (y down) round a point. */
export function rotationAbout(degrees: number, cx: number, cy: number): Matrix {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [cos, sin, -sin, cos, cx - cos * cx + sin * cy, cy - sin * cx - cos * cy];
}

export function boxCentre({ x, y, width, height }: Rect): [number, number] {
  return [x + width / 2, y + height / 2];
}

/** The map from the plain box to where it lies; undefined where it is neither mirrored nor turned. */
export function boxMatrix(box: TurnedBox): Matrix | undefined {
  if (box.rotation === 0 && !box.flip) return undefined;
  const [cx, cy] = boxCentre(box);
  const turn = rotationAbout(box.rotation, cx, cy);
  return box.flip ? compose([-1, 0, 0, 1, 2 * cx, 0], turn) : turn;
}

/** The four corners, from the upper left one clockwise. */
export function boxCorners(box: TurnedBox): [number, number][] {
  const { x, y, width, height } = box;
  const corners: [number, number][] = [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ];
  const matrix = boxMatrix(box);
  return matrix ? corners.map((corner) => applyMatrix(matrix, ...corner)) : corners;
}

/** Smallest upright rectangle that holds all points. */
export function boundsOfPoints(points: readonly (readonly [number, number])[]): Rect {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}
