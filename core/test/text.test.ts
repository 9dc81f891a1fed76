import { create } from 'fontkit';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { TextMark, TextPart, TextStyle } from '../src/index.js';
import {
  isMark,
  layoutText,
  LINE_HEIGHT,
  markBounds,
  paintMark,
  partsUnder,
  patchMark,
  textLayout,
  textWidth,
  tidyParts,
  transformPatch,
} from '../src/index.js';
import { anyParts, anyTextStyle } from './helpers/anyMark.js';
import { looksOf } from './helpers/letters.js';
import { aText } from './helpers/marks.js';

const require = createRequire(import.meta.url);
const file = require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf');
const font = create(readFileSync(file));
const plain = { kern: false, liga: false, clig: false, calt: false };

describe('text width', () => {
  it.each(['Hello class', 'AVAToffi', 'Größe ½ ł', 'Привет', '1 240 g ÷ 28'])(
    'is what the fontkit package measures in the font file: %s',
    (text) => {
      const reference = font.layout(text, plain).advanceWidth / font.unitsPerEm;
      expect(textWidth(text, 'andika', 20)).toBeCloseTo(reference * 20, 6);
    },
  );
});

describe('text layout', () => {
  it('breaks at spaces and keeps every word', () => {
    const text = 'The load splits and runs into both banks of the river';
    const { lines } = layoutText(text, 'andika', 20, 150);
    expect(lines.length).toBeGreaterThan(2);
    for (const line of lines) expect(line.width).toBeLessThanOrEqual(150);
    expect(lines.map((line) => line.runs.map((run) => run.text).join('')).join(' ')).toBe(text);
  });

  it.each([
    // Rules of Unicode Standard Annex 14, by their numbers.
    ['after a hyphen between letters (LB21)', 'well-known', ['well-', 'known']],
    ['not before a comma or a bracket that closes (LB13)', 'one (two), three', ['one', '(two),', 'three']],
    ['not after a bracket that opens (LB14)', 'see (page three)', ['see', '(page', 'three)']],
    ['not at a space that holds together (LB12)', 'ten\u00a0metres long', ['ten\u00a0metres', 'long']],
    ['not within a number (LB25)', 'about 3,141.59 units', ['about', '3,141.59', 'units']],
    ['where a break is marked that takes no room (LB8)', 'arch\u200bbridge', ['arch\u200b', 'bridge']],
    [
      'between Chinese letters, but not before their full stop (LB13)',
      '拱桥很稳。桥',
      ['拱', '桥', '很', '稳。', '桥'],
    ],
  ])('may end %s', (_, text, pieces) => {
    // So narrow that a line ends wherever it may, and wide enough for what must stay together.
    const widest = Math.max(...pieces.map((piece) => textWidth(piece, 'andika', 20)));
    const lines = layoutText(text, 'andika', 20, widest + 0.01, { align: 'left', list: 'none' }).lines;
    const words = lines.map(({ runs }) =>
      runs
        .map((run) => run.text)
        .join('')
        .trim(),
    );
    expect(words.join('').replaceAll(' ', '')).toBe(pieces.join('').replaceAll(' ', ''));
    // No line ends within a piece.
    let rest = pieces.map((piece) => piece.replaceAll(' ', ''));
    for (const word of words) {
      let left = word.replaceAll(' ', '');
      while (left !== '') {
        expect(left.startsWith(rest[0]!)).toBe(true);
        left = left.slice(rest[0]!.length);
        rest = rest.slice(1);
      }
    }
  });

  it('keeps line breaks and empty lines', () => {
    const { lines, height } = layoutText('a\n\nb', 'andika', 10, 100);
    expect(lines).toHaveLength(3);
    expect(height).toBeCloseTo(3 * 10 * LINE_HEIGHT);
  });

  it('breaks a word that is longer than a line, and between any two CJK characters', () => {
    const long = layoutText('Donaudampfschifffahrt', 'andika', 20, 60);
    expect(long.lines.map((line) => line.runs[0]!.text).join('')).toBe('Donaudampfschifffahrt');
    expect(layoutText('桥梁承重原理', 'andika', 20, 45).lines).toHaveLength(3);
  });

  it('marks characters that the font lacks', () => {
    const [line] = layoutText('span 桥 m', 'andika', 20, 400).lines;
    expect(line!.runs.map(({ text, fallback }) => [text, fallback])).toEqual([
      ['span ', false],
      ['桥', true],
      [' m', false],
    ]);
  });

  it('never loses a character, however narrow the box', () => {
    expect(layoutText('abc', 'andika', 40, 1).lines.map((line) => line.runs[0]!.text)).toEqual([
      'a',
      'b',
      'c',
    ]);
  });
});

describe('letters that look unlike the rest', () => {
  const text = 'The keystone carries the load down both sides of the arch';
  const keystone = { from: 4, to: 12, bold: true, colour: '#d55e00', scale: 2 };
  const plain = aText({ text, width: 260 });
  const marked = { ...plain, parts: [keystone] };

  it('have a face, size, colour and line of their own, wherever they stand', () => {
    const parts = [keystone, { from: text.length - 4, to: text.length, underline: true }];
    const items = paintMark({ ...plain, parts }).filter((item) => item.kind === 'text');
    const bold = items.find((item) => item.text === 'keystone')!;
    expect(bold).toMatchObject({ face: 'andika-bold', size: 40, colour: '#d55e00' });
    expect(items[0]).toMatchObject({ text: 'The ', face: 'andika', size: 20, colour: '#0072b2' });
    const lines = paintMark({ ...plain, parts }).filter((item) => item.kind === 'line');
    expect(lines).toHaveLength(1);
    const arch = items.find((item) => item.text === 'arch')!;
    expect(lines[0]!.path[0]).toEqual(['M', arch.x, arch.y + 20 * 0.12]);
  });

  it('make their line higher, and no other', () => {
    const { lines, height } = textLayout(marked);
    const steps = lines.slice(1).map((line, i) => line.baseline - lines[i]!.baseline);
    expect(lines[0]!.baseline).toBeGreaterThan(textLayout(plain).lines[0]!.baseline + 15);
    for (const step of steps.slice(1)) expect(step).toBeCloseTo(20 * LINE_HEIGHT);
    expect(height).toBeCloseTo(40 * LINE_HEIGHT + (lines.length - 1) * 20 * LINE_HEIGHT);
    expect(markBounds(marked).height).toBeGreaterThan(markBounds(plain).height + 15);
  });

  it('are laid out like any text where all letters are alike', () => {
    const all = { ...plain, parts: [{ from: 0, to: text.length, scale: 1.5 }] };
    const large = { ...plain, style: { ...plain.style, size: 30 } };
    const where = (mark: TextMark) =>
      paintMark(mark).map((item) => (item.kind === 'text' ? [item.x, item.y, item.text] : []));
    expect(where(all)).toEqual(where(large));
  });

  it('stay what they are when the box is stretched', () => {
    const stretched = patchMark(
      marked,
      transformPatch(marked, { kind: 'resize', fx: 2, fy: 2, x: 50, y: 60 }),
    );
    const sizes = paintMark(stretched).flatMap((item) => (item.kind === 'text' ? [item.size] : []));
    expect(new Set(sizes)).toEqual(new Set([40, 80]));
    expect(stretched).toMatchObject({ parts: [keystone] });
  });

  it('may be said to lie beyond the end of a text that somebody has made shorter', () => {
    const items = paintMark({ ...marked, text: 'The key' });
    expect(items.map((item) => item.kind === 'text' && [item.text, item.size])).toEqual([
      ['The ', 20],
      ['key', 40],
    ]);
  });

  it('are said in as few parts as can be, and look the same', () => {
    const lookAt = (style: TextStyle, parts: readonly TextPart[]) => looksOf(style, parts, 40);
    fc.assert(
      fc.property(anyTextStyle, anyParts(40), (style, parts) => {
        const tidy = tidyParts(parts, style, 40);
        expect(lookAt(style, tidy)).toEqual(lookAt(style, parts));
        expect(isMark(aText({ style, parts: tidy }))).toBe(true);
        expect(tidyParts(tidy, style, 40)).toEqual(tidy);
        tidy.slice(1).forEach((part, i) => {
          const [before, after] = lookAt(style, tidy).slice(part.from - 1, part.from + 1);
          if (tidy[i]!.to === part.from) expect(before).not.toBe(after);
        });
        expect(tidyParts(parts, style, 7).every(({ to }) => to <= 7)).toBe(true);
      }),
    );
  });

  it('take on what the text as a whole is given', () => {
    const parts = [keystone, { from: 20, to: 22, bold: true }];
    expect(partsUnder(parts, { bold: false, size: 40 })).toEqual([
      { from: 4, to: 12, colour: '#d55e00', scale: 2 },
    ]);
  });
});
