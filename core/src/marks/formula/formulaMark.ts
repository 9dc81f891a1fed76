import type { Check, Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import { MAX_POINTS } from '../../ink/points.js';
import { cornersFrom, isOpacity, orNull, shaped, some, textUpTo } from '../fields.js';
import type { SharedFields } from '../shared.js';

/** A typeset formula. */
export interface FormulaMark extends SharedFields {
  kind: 'formula';
  /** What it says, as TeX. */
  tex: string;
  /**
   * What it looks like, so that nobody who sees it needs its fonts: closed outlines by quadratic curves (x, y where it begins, then a
   * control and an end of each), together by colour; null is the mark's own.
   */
  outlines: readonly FormulaOutlines[];
  style: { colour: string; opacity: number };
}

export interface FormulaOutlines {
  rings: readonly (readonly number[])[];
  colour: string | null;
}

/** The longest TeX of a formula. */
export const MAX_TEX = 600;
const MAX_RINGS = 4000;
const MAX_PARTS = 100;

const isRing: Check = (value) => cornersFrom(3, MAX_POINTS)(value) && (value as unknown[]).length % 4 === 2;
const isPart = shaped({ rings: some(isRing, MAX_RINGS), colour: orNull(isHexColour) });

export const FORMULA_FIELDS: Checks = { tex: textUpTo(MAX_TEX, 1), outlines: some(isPart, MAX_PARTS) };
export const FORMULA_STYLE: Checks = { colour: isHexColour, opacity: isOpacity };
