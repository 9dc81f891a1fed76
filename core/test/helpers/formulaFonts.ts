import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { FormulaFonts } from '../../src/formulas/fonts.js';

const folder = `${dirname(createRequire(import.meta.url).resolve('katex'))}/fonts`;

/** The fonts of formulas from KaTeX's package. */
export const formulaFonts = new FormulaFonts((name) => {
  const file = readFileSync(`${folder}/KaTeX_${name}.ttf`);
  return Promise.resolve(file.buffer.slice(file.byteOffset, file.byteOffset + file.length));
});
