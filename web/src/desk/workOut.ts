import type { Change, MarkBody, MarkOf, Rect } from '@doodla/core';
import { growRect, isBoundless, markBounds } from '@doodla/core';
import type { Step } from '@doodla/core/formulas';
import { FormulaError, outlineBox, placedOutlines, typeset, workOut } from '@doodla/core/formulas';
import { asGroup } from './asGroup';
import type { Desk } from './desk';
import type { FormulaDesk } from './formulas';
import { formulaFonts, inWords } from './formulas';

type Formula = MarkOf<'formula'>;
export type WorkDesk = FormulaDesk & Pick<Desk, 'extentOf' | 'page'>;

/** Between a calculation and its steps, in heights of its letters. */
const LINE_GAP = 0.6;
const COLUMN_GAP = 1.2;
const PATCH_MARGIN = 4;
/** A message has room for so many numbers of outlines (`MAX_OPERATION_LENGTH`, some seven characters each). */
const MOST_NUMBERS = 120_000;

/** How a calculation is worked out on the page. */
export type Working = 'result' | 'steps' | 'covered';

/**
 * Puts the steps of a calculation, or its result alone, under it, as formulas of one group; covered ones each under a patch. Throws what
 * `formulaProblem` says.
 */
export async function workOutBelow(
  desk: WorkDesk,
  mark: Formula,
  working: Working,
  source = formulaFonts,
): Promise<void> {
  const all = workOut(mark.tex);
  const steps = working === 'result' ? all.slice(-1) : all;
  const common = desk.newMark();
  if (!common) return;
  const { page, space, pane } = mark;
  const own = { ...common, page, space, ...(pane !== undefined && { pane }) };
  const first = outlineBox(await typeset(mark.tex, source));
  const box = markBounds(mark);
  const size = first && first.height > 0 ? box.height / first.height : box.height;
  const bottom = bottomOf(desk);
  const lines: Formula[] = [];
  // Lines that would go below the page begin a column of their own, beside the calculation.
  let [left, top, right] = [box.x, box.y + box.height + LINE_GAP * size, box.x + box.width];
  for (const step of steps) {
    const tex = lineOf(step);
    const set = await typeset(tex, source);
    const { x, y, width, height } = scaled(outlineBox(set)!, size);
    if (top + height > bottom && top > box.y) [left, top] = [right + COLUMN_GAP * size, box.y];
    const outlines = placedOutlines(set, size, left - x, top - y);
    lines.push({ ...own, kind: 'formula', tex, alt: inWords(tex), outlines, style: mark.style });
    top += height + LINE_GAP * size;
    right = Math.max(right, left + width);
  }
  if (numbersIn(lines) > MOST_NUMBERS) throw new FormulaError('tooManySteps', '');
  const style = { colour: desk.penCase.get().patchColour };
  const patches = lines.map((line): MarkBody => ({
    kind: 'patch',
    rotation: 0,
    style,
    ...growRect(markBounds(line), PATCH_MARGIN),
  }));
  const marks = asGroup(own, working === 'covered' ? [...lines, ...patches] : lines);
  desk.target.perform(marks.map((each): Change => ({ do: 'add', mark: each })));
}

const scaled = ({ x, y, width, height }: Rect, size: number): Rect => ({
  x: x * size,
  y: y * size,
  width: width * size,
  height: height * size,
});

/** How many numbers the outlines of formulas have, which are sent in one message. */
const numbersIn = (lines: readonly Formula[]) =>
  lines
    .flatMap(({ outlines }) => outlines.flatMap(({ rings }) => rings))
    .reduce((sum, ring) => sum + ring.length, 0);

/** Where the page ends below; a boundless one does not. */
function bottomOf({ page, extentOf }: WorkDesk): number {
  if (!page || isBoundless(page)) return Infinity;
  const { y, height } = extentOf(page);
  return y + height;
}

const lineOf = ({ tex, isRounded }: Step) => `${isRounded ? '\\approx ' : '='}${tex}`;
