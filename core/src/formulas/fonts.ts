import type { Font } from 'opentype.js';
import opentype from 'opentype.js';
import type { PathStep } from '../geometry/path.js';
import { FormulaError } from './faults.js';

/** Gives the file of one of KaTeX's fonts, such as `Main-Regular`. */
export type FontSource = (name: string) => Promise<ArrayBuffer>;

/** Outlines and widths of the signs of KaTeX's fonts, in em; y down from the base line. */
export class FormulaFonts {
  private readonly fonts = new Map<string, Font>();

  constructor(private readonly source: FontSource) {}

  /** Sees to it that fonts are here. What cannot be fetched is asked for again the next time. */
  async load(names: Iterable<string>): Promise<void> {
    const missing = [...names].filter((name) => !this.fonts.has(name));
    await Promise.all(
      missing.map(async (name) => this.fonts.set(name, opentype.parse(await this.source(name)))),
    );
  }

  /** How far text goes, in em. Throws a `FormulaError` where a sign is missing. */
  advance(name: string, text: string): number {
    const font = this.fonts.get(name)!;
    return [...text].reduce((sum, sign) => sum + glyphOf(font, sign).advanceWidth! / font.unitsPerEm, 0);
  }

  /** The outline of text that begins at 0, in em. Throws a `FormulaError` where a sign is missing. */
  outline(name: string, text: string): PathStep[] {
    const font = this.fonts.get(name)!;
    let x = 0;
    return [...text].flatMap((sign) => {
      const glyph = glyphOf(font, sign);
      const { commands } = glyph.getPath(x, 0, 1);
      x += glyph.advanceWidth! / font.unitsPerEm;
      return commands.map((command): PathStep => {
        if (command.type === 'Q') return ['Q', command.x1, command.y1, command.x, command.y];
        if (command.type === 'C')
          return ['C', command.x1, command.y1, command.x2, command.y2, command.x, command.y];
        return command.type === 'Z' ? ['Z'] : [command.type, command.x, command.y];
      });
    });
  }
}

function glyphOf(font: Font, sign: string) {
  const index = font.charToGlyphIndex(sign);
  // A space has no outline, and not every font has one.
  if (index === 0 && sign.trim() !== '') throw new FormulaError('noSign', sign);
  return font.glyphs.get(index);
}
