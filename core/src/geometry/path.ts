import type { Matrix } from './matrix.js';
import { applyMatrix } from './matrix.js';
import type { Rect } from './rect.js';

type Point = [number, number];

/** One step of a path in page units: move, line, quadratic curve, cubic curve, close. */
export type PathStep =
  | readonly ['M', number, number]
  | readonly ['L', number, number]
  | readonly ['Q', number, number, number, number]
  | readonly ['C', number, number, number, number, number, number]
  | readonly ['Z'];

export type Path = readonly PathStep[];

/** SVG path data (SVG 2 §9.3), coordinates rounded to `digits` decimals. */
export function toSvgPath(path: Path, digits = 2): string {
  const factor = 10 ** digits;
  const round = (value: number) => Math.round(value * factor) / factor;
  return path.map(([letter, ...numbers]) => letter + numbers.map(round).join(' ')).join('');
}

/** The path with every point mapped. */
export function mapPath(path: Path, matrix: Matrix): Path {
  return path.map(([letter, ...numbers]) => {
    const mapped: number[] = [];
    for (let i = 0; i < numbers.length; i += 2)
      mapped.push(...applyMatrix(matrix, numbers[i]!, numbers[i + 1]!));
    return [letter, ...mapped] as unknown as PathStep;
  });
}

/** A path through a flat list of x, y. */
export function polylinePath(points: readonly number[], closed: boolean): Path {
  const steps: PathStep[] = [];
  for (let i = 0; i + 1 < points.length; i += 2)
    steps.push([i === 0 ? 'M' : 'L', points[i]!, points[i + 1]!]);
  return closed ? [...steps, ['Z']] : steps;
}

export function pointsOf(flat: readonly number[]): Point[] {
  const points: Point[] = [];
  for (let i = 0; i + 1 < flat.length; i += 2) points.push([flat[i]!, flat[i + 1]!]);
  return points;
}

/** A path as points on it, each curve cut into `pieces`; curves by de Casteljau's algorithm. */
export function flattenPath(path: Path, pieces = 16): Point[] {
  const out: Point[] = [];
  let at: Point = [0, 0];
  let start: Point = [0, 0];
  for (const step of path) {
    if (step[0] === 'Z') {
      out.push(start);
      continue;
    }
    const controls: Point[] = [at, ...pointsOf(step.slice(1) as number[])];
    const end = controls.at(-1)!;
    if (step[0] === 'M') start = end;
    if (controls.length === 2) out.push(end);
    else for (let i = 1; i <= pieces; i++) out.push(bezierPoint(controls, i / pieces));
    at = end;
  }
  return out;
}

/** The point of a Bézier curve at `t` (0 to 1): de Casteljau 1959, repeated linear interpolation. */
export function bezierPoint(controls: readonly Point[], t: number): Point {
  let points = [...controls];
  while (points.length > 1) {
    points = points.slice(1).map(([x, y], i): Point => {
      const [px, py] = points[i]!;
      return [px + (x - px) * t, py + (y - py) * t];
    });
  }
  return points[0]!;
}

export function polygonPath(corners: readonly (readonly [number, number])[], closed: boolean): Path {
  const steps = corners.map(([x, y], i): PathStep => [i === 0 ? 'M' : 'L', x, y]);
  return closed ? [...steps, ['Z']] : steps;
}

/** Smallest rectangle that holds all points of a flat list whose every `stride` numbers begin with an x and a y. */
export function boundsOfFlat(points: readonly number[], stride: number): Rect {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 1 < points.length; i += stride) {
    x0 = Math.min(x0, points[i]!);
    x1 = Math.max(x1, points[i]!);
    y0 = Math.min(y0, points[i + 1]!);
    y1 = Math.max(y1, points[i + 1]!);
  }
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 };
}
