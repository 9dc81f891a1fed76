import type { Mark, MarkBody, Rect } from '@doodla/core';
import { growRect } from '@doodla/core';
import type { FormulaFonts, Typeset } from '@doodla/core/formulas';
import { outlineBox, placedOutlines, typeset } from '@doodla/core/formulas';
import type { TableRow } from '@doodla/core/plots';
import { asGroup } from './asGroup';
import type { Desk } from './desk';
import { formulaFonts } from './formulas';

export type TableDesk = Pick<Desk, 'newMark' | 'penCase'>;

/** How the values of y are there: seen, each under a patch, or left to be filled in. */
export type Cells = 'shown' | 'covered' | 'empty';

/** Letters of a formula beside those of a text (KaTeX: 1.21). */
const BESIDE_TEXT = 1.21;
/** Room round what stands in a cell, and the least width of one, in letters. */
const PADDING = { x: 0.6, y: 0.45 };
const LEAST_WIDTH = 2.4;
const PATCH_MARGIN = -2;

/**
 * A table of values as marks of one group, its corner at 0, 0: lines, formulas, and patches over what is covered. Throws what
 * `formulaProblem` says.
 */
export async function tableMarks(
  desk: TableDesk,
  head: TableRow,
  rows: readonly TableRow[],
  cells: Cells,
  source: FormulaFonts = formulaFonts,
): Promise<Mark[]> {
  const common = desk.newMark();
  if (!common) return [];
  const { text, patchColour } = desk.penCase.get();
  const size = text.size * BESIDE_TEXT;
  const lines = [head, ...rows];
  const set = new Map<string, Typeset>();
  for (const tex of lines.flatMap(({ x, y }) => [x, y])) set.set(tex, await typeset(tex, source));
  const boxOf = (tex: string) => scaled(outlineBox(set.get(tex)!), size);
  const widthOf = (column: 'x' | 'y') =>
    Math.max(LEAST_WIDTH * size, ...lines.map((row) => boxOf(row[column]).width + 2 * PADDING.x * size));
  const widths = { x: widthOf('x'), y: widthOf('y') };
  const bodies: MarkBody[] = [];
  const patches: MarkBody[] = [];
  let top = 0;
  const tops = [0];
  for (const row of lines) {
    const height = Math.max(size, boxOf(row.x).height, boxOf(row.y).height) + 2 * PADDING.y * size;
    for (const column of ['x', 'y'] as const) {
      const tex = row[column];
      const cell = { x: column === 'x' ? 0 : widths.x, y: top, width: widths[column], height };
      const isValue = column === 'y' && row !== head;
      if (!isValue || cells !== 'empty') bodies.push(formulaIn(cell, tex, set.get(tex)!, size, text.colour));
      if (isValue && cells === 'covered') patches.push(patchOver(cell, patchColour));
    }
    top += height;
    tops.push(top);
  }
  const [width, height] = [widths.x + widths.y, top];
  const ruled = [
    ...tops.map((y, i) => lineBetween([0, y, width, y], i === 1 ? 2 : 1, text.colour)),
    ...[0, widths.x, width].map((x) => lineBetween([x, 0, x, height], 1, text.colour)),
  ];
  return asGroup(common, [...ruled, ...bodies, ...patches]);
}

const scaled = (box: Rect | undefined, size: number): Rect =>
  box
    ? { x: box.x * size, y: box.y * size, width: box.width * size, height: box.height * size }
    : { x: 0, y: 0, width: 0, height: 0 };

/** A formula in the middle of a cell. */
function formulaIn(cell: Rect, tex: string, set: Typeset, size: number, colour: string): MarkBody {
  const box = scaled(outlineBox(set), size);
  const x = cell.x + (cell.width - box.width) / 2 - box.x;
  const y = cell.y + (cell.height - box.height) / 2 - box.y;
  return { kind: 'formula', tex, outlines: placedOutlines(set, size, x, y), style: { colour, opacity: 1 } };
}

function patchOver(cell: Rect, colour: string): MarkBody {
  return { kind: 'patch', rotation: 0, style: { colour }, ...growRect(cell, PATCH_MARGIN) };
}

function lineBetween(points: number[], width: number, line: string): MarkBody {
  return {
    kind: 'path',
    course: 'straight',
    points,
    closed: false,
    heads: 'none',
    from: null,
    to: null,
    style: { line, width, dash: 'solid', fill: null, opacity: 1 },
  };
}
