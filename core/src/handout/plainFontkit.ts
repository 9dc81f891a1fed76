import type { Font } from '@cantoo/fontkit';
import fontkit from '@cantoo/fontkit';

/** Latin letters, digits and signs, none of which changes by what is beside it (Unicode blocks to Latin Extended-B, without the soft hyphen). */
const STANDS_ALONE = /^[\u0020-\u007e\u00a0-\u00ac\u00ae-\u024f]*$/;

/** Whether every character of a text is one glyph, whatever is beside it. */
export function standsAlone(text: string): boolean {
  return STANDS_ALONE.test(text);
}

/**
 * Reads faces of one font as fontkit does, except that characters that stand alone become their glyphs one by one: the
 * font's tables of how glyphs change and move, which take the longest to read, have no say in them.
 */
export const plainFontkit = {
  create(bytes: Uint8Array): Font {
    const font = fontkit.create(bytes) as Font;
    const layout = font.layout.bind(font);
    font.layout = (text, ...rest) => {
      if (!standsAlone(text)) return layout(text, ...rest);
      const run = layout('');
      run.glyphs = font.glyphsForString(text);
      return run;
    };
    return font;
  },
};
