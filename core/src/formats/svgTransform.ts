import type { Matrix } from '../geometry/matrix.js';
import { compose, IDENTITY } from '../geometry/matrix.js';
import { rotationAbout } from '../geometry/turnedBox.js';

/** The map that a list of transforms says (CSS Transforms 1, §8), the last one done first; what is none is passed over. */
export function matrixOf(transform: string): Matrix {
  let matrix = IDENTITY;
  for (const [, name, list] of transform.matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const numbers = list!
      .trim()
      .split(/[\s,]+/)
      .map((each) => Number(each.replace(/deg|px/, '')));
    const one = numbers.every(Number.isFinite) ? single(name!, numbers) : undefined;
    if (one) matrix = compose(one, matrix);
  }
  return matrix;
}

function single(name: string, [a = 0, b, c, d, e, f]: readonly number[]): Matrix | undefined {
  switch (name) {
    case 'translate':
      return [1, 0, 0, 1, a, b ?? 0];
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0];
    case 'rotate':
      return rotationAbout(a, b ?? 0, c ?? 0);
    case 'skewX':
      return [1, 0, Math.tan((a * Math.PI) / 180), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan((a * Math.PI) / 180), 0, 1, 0, 0];
    case 'matrix':
      return f === undefined ? undefined : [a, b!, c!, d!, e!, f];
    default:
      return undefined;
  }
}
