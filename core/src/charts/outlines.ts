import type { FormulaFonts } from '../formulas/fonts.js';
import { typeset } from '../formulas/typeset.js';
import { applyMatrix } from '../geometry/matrix.js';
import type { DrawingPart } from '../marks/plot/plotMark.js';
import { rounded } from '../plots/labels.js';
import type { Measure, RecordedText } from './recorder.js';

const FONT = 'Main-Regular';
/** Of a sign that the font lacks, in letters. */
const USUAL_WIDTH = 0.55;

/** Measures words as `outlinesOf` draws them. Throws what the source of fonts throws. */
export async function measureBy(fonts: FormulaFonts): Promise<Measure> {
  await fonts.load([FONT]);
  return (text, size) => widthOf(text, fonts) * size;
}

function widthOf(text: string, fonts: FormulaFonts): number {
  return [...text].reduce((sum, sign) => {
    try {
      return sum + fonts.advance(FONT, sign);
    } catch {
      // Letters with accents are put together of two, and are as broad as others.
      return sum + USUAL_WIDTH;
    }
  }, 0);
}

/** What was written as closed outlines. Throws a `FormulaError` where a sign is in no font, and what the source of fonts throws. */
export async function outlinesOf(
  texts: readonly RecordedText[],
  fonts: FormulaFonts,
): Promise<DrawingPart[]> {
  const parts: DrawingPart[] = [];
  for (const { text, size, colour, matrix } of texts) {
    const set = await typeset(`\\text{${escaped(text)}}`, fonts);
    const rings = set.parts.flatMap((part) => part.rings);
    const placed = rings.map((ring) => {
      const mapped: number[] = [];
      for (let i = 0; i < ring.length; i += 2)
        mapped.push(...applyMatrix(matrix, ring[i]! * size, ring[i + 1]! * size).map(rounded));
      return mapped;
    });
    if (placed.length > 0) parts.push({ rings: placed, colour, opacity: 1 });
  }
  return parts;
}

/** Signs that TeX has only in formulas. */
const SIGNS: Readonly<Record<string, string>> = {
  α: '\\alpha',
  λ: '\\lambda',
  '♯': '\\sharp',
  '♭': '\\flat',
  '·': '\\cdot',
};

/** A text as TeX says it (Knuth, "The TeXbook", ch. 7: signs that mean something else). */
const escaped = (text: string): string =>
  text
    .replace(
      /[\\{}$&#%_^~]/g,
      (sign) =>
        ({ '\\': '\\textbackslash ', '^': '\\textasciicircum ', '~': '\\textasciitilde ' })[sign] ??
        `\\${sign}`,
    ) // prettier-ignore
    .replace(/−/g, '-')
    .replace(/[αλ♯♭·]/g, (sign) => `$${SIGNS[sign]}$`);
