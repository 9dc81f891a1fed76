import type { Font } from '@cantoo/fontkit';
import fontkit from '@cantoo/fontkit';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { plainFontkit, standsAlone } from '../src/handout/plainFontkit.js';

const require = createRequire(import.meta.url);
/** What a handout asks of a font: no kerning, no ligatures. */
const OFF = { kern: false, liga: false, clig: false, calt: false };
const FONTS = [
  'andika/Andika_400Regular.ttf',
  'noto-serif/400Regular/NotoSerif_400Regular.ttf',
  'jetbrains-mono/400Regular/JetBrainsMono_400Regular.ttf',
  'patrick-hand/400Regular/PatrickHand_400Regular.ttf',
];
const bytesOf = (font: string) => new Uint8Array(readFileSync(require.resolve(`@expo-google-fonts/${font}`)));
const glyphs = (font: Font, text: string) => font.layout(text, OFF).glyphs.map(({ id }) => id);

describe.each(FONTS)('letters that stand alone, in %s', (font) => {
  const bytes = bytesOf(font);
  const full = fontkit.create(bytes) as Font;
  const plain = plainFontkit.create(bytes);

  it('have the glyphs that fontkit’s own layout gives them', () => {
    const known = new Set(full.characterSet);
    for (let code = 0x20; code <= 0x24f; code++) {
      const letter = String.fromCodePoint(code);
      if (!standsAlone(letter) || !known.has(code)) continue;
      expect([letter, ...glyphs(plain, letter)]).toEqual([letter, ...glyphs(full, letter)]);
    }
    const words = 'fi ff AV Ta 1/2 ffl, Öl & Ærø: “no” ligatures'.replace(/[“”]/g, '"');
    expect(glyphs(plain, words)).toEqual(glyphs(full, words));
  });
});

describe('text that does not stand alone', () => {
  it('is laid out as a whole', () => {
    const bytes = bytesOf(FONTS[0]!);
    const marked = 'e\u0301';
    expect(standsAlone(marked)).toBe(false);
    expect(glyphs(plainFontkit.create(bytes), marked)).toEqual(glyphs(fontkit.create(bytes) as Font, marked));
  });
});
