import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hasWords, PageWords, searchWords, typedIn, wordsFound } from '../src/index.js';
import { aNote, aStroke, aText } from './helpers/marks.js';

describe('words that are looked for', () => {
  it('are in small letters without accents (Unicode NFKD), and not too many', () => {
    expect(searchWords('  Ärger, über-ZOË! 3½ ﬁn ')).toEqual(['arger', 'uber', 'zoe', '31', '2', 'fin']);
    expect(searchWords('— "()*')).toEqual([]);
    expect(searchWords('x '.repeat(50))).toHaveLength(12);
  });

  it('are all there, as beginnings of words, however they are written', () => {
    expect(hasWords('The Catenary of a cable', ['cable', 'caten'])).toBe(true);
    expect(hasWords('The Catenary of a cable', ['tenary'])).toBe(false);
    expect(hasWords('cafe\u0301 bridge', searchWords('CAFÉ'))).toBe(true);
  });

  it('are found in their places, whatever the text', () => {
    expect(wordsFound('Load, loaded and unload', ['load'])).toEqual([
      [0, 4],
      [6, 12],
    ]);
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'grapheme' }), (text, question) => {
        const words = searchWords(question);
        for (const [from, to] of wordsFound(text, words)) {
          expect(from).toBeLessThan(to);
          expect(words.some((word) => hasWords(text.slice(from, to), [word]))).toBe(true);
        }
      }),
    );
  });

  it('have their places on a page, and are in what marks say', () => {
    const word = (text: string, x: number) => ({ text, x, y: 0, width: 10, height: 10 });
    const page = new PageWords([word('Hängebrücke,', 0), word('under', 20), word('load.', 40)]);
    expect(page.beginningWith(searchWords('hange LOAD')).map(({ x }) => x)).toEqual([0, 40]);
    expect(typedIn(aText({ text: 'Arch', alt: 'a title' }))).toBe('Arch a title');
    expect(typedIn(aNote({ text: '' }))).toBe('');
    expect(typedIn(aStroke({ alt: 'A sketch' }))).toBe('A sketch');
  });
});
