import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix } from '../geometry/matrix.js';

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
