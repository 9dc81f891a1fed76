import type { Range } from './curve.js';
import type { RealFunction } from './functions.js';
import { numberTex } from './ticks.js';

/** A row of a table of values; a cell is TeX. */
export interface TableRow {
  x: string;
  y: string;
}

export const MOST_ROWS = 40;
const DECIMALS = 3;
/** What stands where a function has no value. */
const NONE = '-';

/** How many rows a range makes by a step; NaN where it makes none. */
export function rowCount({ from, to }: Range, step: number): number {
  if (!(step > 0) || !(to >= from)) return NaN;
  return Math.floor((to - from) / step + 1e-9) + 1;
}

/** Values of a function from one place to another by a step; `comma` parts decimals instead of a point. Needs at most `MOST_ROWS` rows. */
export function tableOf(f: RealFunction, range: Range, step: number, comma: boolean): TableRow[] {
  return Array.from({ length: Math.min(MOST_ROWS, rowCount(range, step) || 0) }, (_, i) => {
    const x = Number((range.from + i * step).toPrecision(12));
    const y = f(x);
    return { x: plain(x, comma), y: Number.isFinite(y) ? plain(y, comma) : NONE };
  });
}

/** A number with as many decimals as it has, three at most. */
function plain(value: number, comma: boolean): string {
  const near = Number(value.toFixed(DECIMALS)) + 0;
  if (near !== 0 && Math.abs(near) < 1e5) return comma ? String(near).replace('.', '{,}') : String(near);
  return value === 0 || near === 0 ? '0' : numberTex(value, Math.abs(value), comma);
}
