import type { PathStep } from '../geometry/path.js';
import type { NumberLine } from '../pages/page.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { PaintItem } from '../paint/items.js';
import type { Blank, Plane } from '../pages/ruling.js';
import { line, MARGIN_MM, segment, steps } from '../pages/ruling.js';
import { written } from './written.js';

/** Where a page does not say. */
export const USUAL_LINE: NumberLine = { from: 0, to: 20, step: 1 };
/** How long marks are, and how far numbers stand below them; page units. */
const MARK = 7;
const BELOW = 22;
const SIZE = 13;
/** Room between the ends of the line and the outermost marks. */
const ENDS = 24;
/** Lines are never closer, page units. */
const LEAST_APART = 60;
/** Numbers are written so far apart that they do not touch, in widths of the widest. */
const APART = 1.3;

/** Number lines with the ends and steps that were chosen, one below the other at the distance of the ruling. */
export function numberLine(plane: Plane, surface: Blank): PaintItem[] {
  const { left, right, top, bottom, margin, step, firm, page } = plane;
  const { from, to, step: by } = surface.line ?? USUAL_LINE;
  const [begin, end] = [left + margin, right - margin];
  const place = (value: number) => begin + ENDS + ((value - from) / (to - from)) * (end - begin - 2 * ENDS);
  const values = marksOf({ from, to, step: by });
  const every = numberedEvery(values, place);
  const heights = steps(top + margin + MARK, bottom - margin - BELOW, page.height / 2, lineDistance(step));
  const lines = heights.flatMap((y): PathStep[] => [
    ...segment(begin, y, end, y),
    ...segment(end - 8, y - 5, end, y),
    ...segment(end - 8, y + 5, end, y),
    ...values.flatMap((value) => segment(place(value), y - MARK, place(value), y + MARK)),
  ]);
  const numbers = heights.flatMap((y) =>
    values
      .filter((_, n) => n % every === 0)
      .map((value) => written(said(value), place(value), y + BELOW, SIZE, firm)),
  );
  return [line(lines, firm, 1.4), ...numbers];
}

/** How far one number line is below the other, by the distance of the ruling; page units. */
export function lineDistance(step: number): number {
  return Math.max(step, LEAST_APART);
}

/** Where the first mark of the number lines of a page stands, and how far it is to the next; page units. */
export function numbersAcross(
  width: number,
  { boundless, line: own }: Blank,
): { first: number; apart: number } {
  const { from, to, step } = own ?? USUAL_LINE;
  const first = ENDS + (boundless ? 0 : MARGIN_MM * UNITS_PER_MM);
  return { first, apart: ((width - 2 * first) * step) / (to - from) };
}

function marksOf({ from, to, step }: NumberLine): number[] {
  return Array.from({ length: Math.floor((to - from) / step + 1e-9) + 1 }, (_, n) => from + n * step);
}

/** From which to which mark numbers are written, so that they do not touch: 1, 2, 5, 10 … */
function numberedEvery(values: readonly number[], place: (value: number) => number): number {
  const widest = Math.max(...values.map((value) => said(value).length)) * SIZE * 0.55;
  const apart = values.length > 1 ? place(values[1]!) - place(values[0]!) : Infinity;
  for (let ten = 1; ; ten *= 10)
    for (const times of [1, 2, 5]) if (apart * ten * times >= widest * APART) return ten * times;
}

function said(value: number): string {
  return String(Number(value.toFixed(6))).replace('-', '−');
}
