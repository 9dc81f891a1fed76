import { colord, extend } from 'colord';
import names from 'colord/plugins/names';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix } from '../geometry/matrix.js';
import { boundsOfFlat } from '../geometry/path.js';
import type { Rect } from '../geometry/rect.js';
import type { FormulaMark, FormulaOutlines } from '../marks/formula/formulaMark.js';
import type { Typeset } from './typeset.js';

extend([names]);

/** The box of a formula's outlines, em of its letters, from the left end of its base line; undefined where nothing is drawn. */
export function outlineBox({ parts }: Typeset): Rect | undefined {
  const all = flat(parts);
  return all.length > 0 ? boundsOfFlat(all, 2) : undefined;
}

/** Outlines of a typeset formula on a page: `size` page units to the em, the left end of its base line at x, y. */
export function placedOutlines(set: Typeset, size: number, x: number, y: number): FormulaOutlines[] {
  return mappedOutlines(set, [size, 0, 0, size, x, y]);
}

/**
 * Outlines of what a formula is changed to, where it lies now: as large, turned and stretched as it is. `before` is the formula
 * as it was typeset.
 */
export function changedOutlines(
  mark: Pick<FormulaMark, 'outlines'>,
  before: Typeset,
  after: Typeset,
): FormulaOutlines[] {
  const [from, to] = [flat(before.parts), flat(mark.outlines)];
  return mappedOutlines(after, from.length === to.length ? mapBetween(from, to) : byBoxes(from, to));
}

function mappedOutlines({ parts }: Typeset, matrix: Matrix): FormulaOutlines[] {
  return parts.map(({ rings, colour }) => ({
    colour: hexOf(colour),
    rings: rings.map((ring) => {
      const mapped: number[] = [];
      for (let i = 0; i < ring.length; i += 2)
        mapped.push(...applyMatrix(matrix, ring[i]!, ring[i + 1]!).map((value) => Math.round(value * 100) / 100)); // prettier-ignore
      return mapped;
    }),
  }));
}

function hexOf(colour: string | undefined): string | null {
  const read = colour === undefined ? undefined : colord(colour);
  return read?.isValid() ? read.alpha(1).toHex() : null;
}

const flat = (parts: readonly { rings: readonly (readonly number[])[] }[]) =>
  parts.flatMap(({ rings }) => rings.flat());

/** The affine map that takes points to others: least squares about their means. */
function mapBetween(from: readonly number[], to: readonly number[]): Matrix {
  const count = from.length / 2;
  const mean = (points: readonly number[], axis: 0 | 1) =>
    points.reduce((sum, value, i) => (i % 2 === axis ? sum + value : sum), 0) / count;
  const [mx, my, nx, ny] = [mean(from, 0), mean(from, 1), mean(to, 0), mean(to, 1)];
  let [xx, xy, yy, ux, uy, vx, vy] = [0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < from.length; i += 2) {
    const [x, y, u, v] = [from[i]! - mx, from[i + 1]! - my, to[i]! - nx, to[i + 1]! - ny];
    [xx, xy, yy] = [xx + x * x, xy + x * y, yy + y * y];
    [ux, uy, vx, vy] = [ux + u * x, uy + u * y, vx + v * x, vy + v * y];
  }
  const d = xx * yy - xy * xy;
  if (Math.abs(d) < 1e-9) return byBoxes(from, to);
  const [a, c] = [(ux * yy - uy * xy) / d, (uy * xx - ux * xy) / d];
  const [b, e] = [(vx * yy - vy * xy) / d, (vy * xx - vx * xy) / d];
  return [a, b, c, e, nx - a * mx - c * my, ny - b * mx - e * my];
}

/** As high as it is, from the same upper left corner. */
function byBoxes(from: readonly number[], to: readonly number[]): Matrix {
  const [was, is] = [boundsOfFlat(from, 2), boundsOfFlat(to, 2)];
  const size = was.height > 0 ? is.height / was.height : 1;
  return [size, 0, 0, size, is.x - was.x * size, is.y - was.y * size];
}
