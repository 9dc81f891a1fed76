import type { Check } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import { each, isFlag, isNumberIn, oneOf, shaped, textUpTo } from '../marks/fields.js';
import { MAX_TEX } from '../marks/formula/formulaMark.js';
import type { Window } from './curve.js';
import type { Letters } from './functions.js';

export const DASHES = ['solid', 'dashed', 'dotted'] as const;
export type Dash = (typeof DASHES)[number];

export const FEATURES = ['roots', 'extrema', 'crossings', 'intercepts', 'legend'] as const;
/** What is shown of a plot beside its curves. */
export type Feature = (typeof FEATURES)[number];

export interface PlottedCurve {
  tex: string;
  colour: string;
  dash: Dash;
}

/** What a plot is made of. */
export interface PlotRecipe {
  curves: readonly PlottedCurve[];
  /** Points of a table, flat x, y. */
  points: readonly number[];
  window: Window;
  /** Values of letters that stand for numbers. */
  letters: Letters;
  shown: readonly Feature[];
  /** Whether the x axis counts in parts of π. */
  inPi: boolean;
  /** Whether a comma parts decimals. */
  comma: boolean;
}

export const MOST_CURVES = 8;
export const MOST_TABLE_POINTS = 200;
const MOST_LETTERS = 12;
/** Numbers beyond are no numbers of a school. */
const FARTHEST = 1e12;
/** A window that is smaller in proportion to where it lies cannot be told apart in floating point. */
const LEAST_SPAN = 1e-9;

const isNumber: Check = (value) => isNumberIn(value, -FARTHEST, FARTHEST);
const isLetters: Check = (value) =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  Object.keys(value).length <= MOST_LETTERS &&
  Object.entries(value).every(([name, number]) => /^\w{1,20}$/.test(name) && isNumber(number));

const isRecipe = shaped({
  curves: each(shaped({ tex: textUpTo(MAX_TEX, 1), colour: isHexColour, dash: oneOf(DASHES) }), MOST_CURVES),
  points: (value) => each(isNumber, 2 * MOST_TABLE_POINTS)(value) && (value as unknown[]).length % 2 === 0,
  window: shaped({ x: isRange, y: isRange }),
  letters: isLetters,
  shown: each(oneOf(FEATURES), FEATURES.length),
  inPi: isFlag,
  comma: isFlag,
});

/** Whether a value is two numbers, the second larger, far enough apart to be told apart. */
export function isRange(value: unknown): boolean {
  if (!shaped({ from: isNumber, to: isNumber })(value)) return false;
  const { from, to } = value as { from: number; to: number };
  return to - from > LEAST_SPAN * Math.max(1e-3, Math.abs(from), Math.abs(to));
}

/** What a plot was made of, from its mark; undefined where that is none, as somebody else may have sent anything. */
export function recipeOf(text: string): PlotRecipe | undefined {
  try {
    const read: unknown = JSON.parse(text);
    return isRecipe(read) ? (read as PlotRecipe) : undefined;
  } catch {
    // No JSON is no recipe.
    return undefined;
  }
}

export const recipeText = (recipe: PlotRecipe): string => JSON.stringify(recipe);
