import type { MarkOf } from '@doodla/core';
import { MAX_TEX } from '@doodla/core';
import {
  changedOutlines,
  ExpressionError,
  FormulaError,
  FormulaFonts,
  NoCalculationError,
  placedOutlines,
  termsOf,
  typeset,
  ValueError,
} from '@doodla/core/formulas';
import { t } from '../words';
import { sayFormula } from '../words/sayFormula';
import type { Desk } from './desk';

type Formula = MarkOf<'formula'>;
export type FormulaDesk = Pick<Desk, 'newMark' | 'penCase' | 'target'>;

/** Letters of a formula are so much larger than those of a text beside it, as those of its fonts are small (KaTeX: 1.21). */
const BESIDE_TEXT = 1.21;
const MAX_ALT = 1000;

/** The fonts of formulas, fetched when they are first wanted. */
export const formulaFonts = new FormulaFonts(async (name) => {
  const answer = await fetch(`/formulas/KaTeX_${name}.ttf`);
  if (!answer.ok) throw new TypeError('not fetched');
  return answer.arrayBuffer();
});

/** A new formula in the size and colour that texts have in hand; its base line begins at 0, 0. Throws what `formulaProblem` says. */
export async function newFormula(
  desk: FormulaDesk,
  tex: string,
  source = formulaFonts,
): Promise<Formula | undefined> {
  const common = desk.newMark();
  if (!common) return undefined;
  const { size, colour } = desk.penCase.get().text;
  const outlines = placedOutlines(await typeset(tex, source), size * BESIDE_TEXT, 0, 0);
  if (outlines.length === 0) throw new FormulaError('empty', '');
  return { ...common, kind: 'formula', tex, alt: inWords(tex), outlines, style: { colour, opacity: 1 } };
}

/**
 * Changes what a formula says; it stays where it is, as large and turned as it is. Returns whether it was
 * taken. Throws what `formulaProblem` says.
 */
export async function changeFormula(
  desk: FormulaDesk,
  { id, tex: before, outlines }: Formula,
  tex: string,
  source = formulaFonts,
): Promise<boolean> {
  const [was, is] = await Promise.all([typeset(before, source), typeset(tex, source)]);
  const changed = changedOutlines({ outlines }, was, is);
  if (changed.length === 0) throw new FormulaError('empty', '');
  const set = { tex, outlines: changed, alt: inWords(tex) };
  return desk.target.perform([{ do: 'patch', mark: id, set }]) !== undefined;
}

/** The words of a formula, for those who cannot see it. */
export function inWords(tex: string): string {
  return sayFormula(termsOf(tex)).slice(0, MAX_ALT);
}

/** What went wrong with a formula, as a sentence that says what to do. */
export function formulaProblem(error: unknown): string {
  if (error instanceof FormulaError)
    return {
      empty: t('formulas.empty'),
      unreadable: t('formulas.unreadable', { place: error.detail }),
      tooLong: t('formulas.tooLong', { most: MAX_TEX }),
      tooManySteps: t('formulas.tooManySteps'),
      noSign: t('formulas.noSign', { sign: error.detail }),
    }[error.fault];
  if (error instanceof NoCalculationError) return t('formulas.equation');
  if (error instanceof ExpressionError)
    return {
      ends: t('formulas.ends'),
      unknown: t('formulas.notWorkable', { sign: error.detail }),
      brackets: t('formulas.bracket'),
    }[error.fault];
  if (error instanceof ValueError)
    return {
      zero: t('formulas.byZero'),
      notReal: t('formulas.notReal'),
      letter: t('formulas.hasLetter', { letter: error.detail }),
      tooLarge: t('formulas.tooLarge'),
    }[error.fault];
  return t('formulas.notReached');
}
export { mathMlOf } from '@doodla/core/formulas';
