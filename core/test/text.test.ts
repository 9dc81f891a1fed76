import { create } from 'fontkit';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { layoutText, LINE_HEIGHT, textWidth } from '../src/index.js';

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
