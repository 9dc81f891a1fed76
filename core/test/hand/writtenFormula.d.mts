import type { FormulaFonts } from '../../src/formulas/fonts.js';
import type { Random } from './random.mjs';

interface FormulaOptions {
  face: string;
  /** Page units to the em. */
  size: number;
  random: Random;
  fonts: FormulaFonts;
}

/** Strokes of a formula as a hand writes it. */
export function writtenFormula(tex: string, options: FormulaOptions): Promise<number[][]>;
