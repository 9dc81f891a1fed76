import type { Change, Mark, MarkOf, Rect } from '@doodla/core';
import { boundsOf } from '@doodla/core';
import type { FormulaReading } from '@doodla/core/formula-ink';
import { MOST_STROKES } from '@doodla/core/formula-ink';
import { FormulaError, outlineBox, placedOutlines, typeset } from '@doodla/core/formulas';
import { nanoid } from 'nanoid';
import { t } from '../words';
import type { Desk } from './desk';
import type { FormulaInkWorker } from './formulaInk.worker';
import { formulaFonts, inWords } from './formulas';
import type { FormulaOffer } from './shapeOffer';
import { WorkerLink } from './workerLink';

type Ink = MarkOf<'stroke'>;
type Formula = MarkOf<'formula'>;
export type FormulaInkDesk = Pick<
  Desk,
  'mayTouch' | 'newMark' | 'pageId' | 'shapeOffer' | 'target' | 'targetMarks' | 'tellProblem'
>;

/** Reads strokes as a formula; in a worker, but for tests. */
export type FormulaReader = (
  strokes: readonly (readonly number[])[],
) => Promise<readonly Pick<FormulaReading, 'tex'>[]>;

/** So many readings are offered. */
const OFFERED = 4;
/** No formula is smaller, page units to the em. */
const LEAST_SIZE = 14;

const link = new WorkerLink<FormulaInkWorker>(
  () => new Worker(new URL('./formulaInk.worker.ts', import.meta.url), { type: 'module' }),
);

/**
 * Puts a typeset formula in the place of a written one, in one step, and offers what else it may be. Returns the id of the formula;
 * undefined where there is none.
 */
export async function typesetInk(
  desk: FormulaInkDesk,
  marks: readonly Mark[],
  read: FormulaReader = (strokes) => link.ask((worker) => worker.read(strokes)),
  source = formulaFonts,
): Promise<string | undefined> {
  const ink = marks.filter((mark): mark is Ink => mark.kind === 'stroke' && desk.mayTouch(mark));
  const page = desk.pageId.get();
  if (ink.length === 0 || page === undefined) return tell(desk, t('formulas.nothing'));
  if (ink.length > MOST_STROKES) return tell(desk, t('formulas.tooMuchInk', { most: MOST_STROKES }));
  try {
    const readings = await read(ink.map(({ points }) => points));
    const formulas = await typesetAll(desk, ink, readings.slice(0, OFFERED), source);
    if (formulas.length === 0) return tell(desk, t('formulas.unread'));
    // Somebody may have wiped the ink away meanwhile.
    if (!ink.every(({ id }) => desk.targetMarks?.get(id))) return undefined;
    return put(desk, { page, ink, formulas }, 0);
  } catch {
    // What reads or typesets could not be fetched: nothing has changed.
    return tell(desk, t('formulas.notReached'));
  }
}

/** Puts another reading in the place of the one that is there. Returns its id. */
export function takeFormula(desk: FormulaInkDesk, offer: FormulaOffer, number: number): string | undefined {
  desk.target.takeBack(offer.step);
  return put(desk, offer, number);
}

/** Gives the ink back. */
export function asInk(desk: FormulaInkDesk, { step }: FormulaOffer): void {
  desk.target.takeBack(step);
  desk.shapeOffer.set(undefined);
}

function put(
  desk: FormulaInkDesk,
  { page, ink, formulas }: Pick<FormulaOffer, 'page' | 'ink' | 'formulas'>,
  now: number,
): string | undefined {
  const mark = { ...formulas[now]!, id: nanoid() };
  const step = desk.target.perform([
    ...ink.map(({ id }): Change => ({ do: 'remove', mark: id })),
    { do: 'add', mark },
  ]);
  if (step === undefined) return undefined;
  const offered = formulas.map((each, i) => (i === now ? mark : each));
  desk.shapeOffer.set({ page, ink, formulas: offered, now, step });
  return mark.id;
}

function tell(desk: FormulaInkDesk, problem: string): undefined {
  desk.tellProblem(problem);
  return undefined;
}

/** Readings as formulas in the place, size and colour of ink; what cannot be typeset is left out. */
async function typesetAll(
  desk: FormulaInkDesk,
  ink: readonly Ink[],
  readings: readonly Pick<FormulaReading, 'tex'>[],
  source: typeof formulaFonts,
): Promise<Formula[]> {
  const common = desk.newMark();
  const [first] = ink;
  if (!common || !first) return [];
  const { page, space, order, pane } = first;
  const own = { ...common, page, space, order, ...(pane !== undefined && { pane }) };
  const style = { colour: first.style.colour, opacity: 1 };
  const box = boundsOf(ink)!;
  const made = readings.map(async ({ tex }): Promise<Formula[]> => {
    const outlines = await outlinesWithin(box, tex, source);
    return outlines ? [{ ...own, kind: 'formula', tex, alt: inWords(tex), outlines, style }] : [];
  });
  return (await Promise.all(made)).flat();
}

/** Outlines of a formula as large as a box, about its middle; undefined where it cannot be typeset. */
async function outlinesWithin(
  { x, y, width, height }: Rect,
  tex: string,
  source: typeof formulaFonts,
): Promise<Formula['outlines'] | undefined> {
  const set = await typeset(tex, source).catch((error: unknown) => {
    // A reading that cannot be typeset is none; what could not be fetched is told.
    if (error instanceof FormulaError) return undefined;
    throw error;
  });
  const own = set && outlineBox(set);
  if (!own) return undefined;
  const size = Math.max(LEAST_SIZE, Math.min(width / own.width, height / own.height));
  const [left, top] = [x + width / 2 - size * (own.x + own.width / 2), y + height / 2 - size * (own.y + own.height / 2)]; // prettier-ignore
  return placedOutlines(set, size, left, top);
}
