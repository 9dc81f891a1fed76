import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PlacedWord } from '../src/index.js';
import { MAX_QUOTE, PageWords } from '../src/index.js';

/** Lines of words, ten units a letter, twenty a line. */
function page(lines: readonly string[]): PlacedWord[] {
  return lines.flatMap((line, row) => {
    let x = 0;
    return line.split(' ').map((text) => {
      const word = { text, x, y: row * 20, width: text.length * 10, height: 16 };
      x += text.length * 10 + 10;
      return word;
    });
  });
}

const LINES = ['A beam bends where', 'the load is', 'and an arch pushes outwards'];
const words = page(LINES);
const text = new PageWords(words);

describe('the words of a page', () => {
  it('are marked whole, in the order in which they are read, a rectangle for each line', () => {
    const quote = text.between({ x: 45, y: 8 }, { x: 22, y: 28 })!;
    expect(quote).toMatchObject({ exact: 'beam bends where the', prefix: 'A ', start: 2 });
    expect(quote.suffix).toMatch(/^ load is/);
    expect(quote.rects).toEqual([20, 0, 160, 16, 0, 20, 30, 16]);
    expect(text.between({ x: 22, y: 28 }, { x: 45, y: 8 })).toEqual(quote);
  });

  it('are meant only where a pointer goes down on them', () => {
    expect(text.hasAt(45, 8)).toBe(true);
    expect(text.hasAt(45, 300)).toBe(false);
    expect(text.hasAt(400, 8)).toBe(false);
    expect(new PageWords([]).between({ x: 0, y: 0 }, { x: 9, y: 9 })).toBeUndefined();
  });

  it('of columns beside each other are not made one line', () => {
    const column = (x: number, from: string) =>
      [0, 20].map((y) => ({ text: `${from}${y}`, x, y, width: 60, height: 16 }));
    const both = new PageWords([...column(0, 'left'), ...column(200, 'right')]);
    expect(both.between({ x: 10, y: 28 }, { x: 210, y: 8 })).toMatchObject({
      exact: 'left20 right0',
      rects: [0, 20, 60, 16, 200, 0, 60, 16],
    });
  });

  it('say what stands there and lie under it, from wherever to wherever', () => {
    const anywhere = fc.record({
      x: fc.integer({ min: -50, max: 400 }),
      y: fc.integer({ min: -50, max: 90 }),
    });
    fc.assert(
      fc.property(anywhere, anywhere, (a, b) => {
        const { exact, start, rects } = text.between(a, b)!;
        expect(text.text.slice(start, start + exact.length)).toBe(exact);
        for (const each of exact.split(' ')) expect(LINES.join(' ').split(' ')).toContain(each);
        expect(rects.length % 4).toBe(0);
      }),
    );
  });

  it('are never more than a quotation may hold', () => {
    const long = new PageWords(
      page(Array.from({ length: 200 }, (_, i) => `line ${i} of many words that go on`)),
    );
    const { exact } = long.between({ x: 0, y: 0 }, { x: 300, y: 4000 })!;
    expect(exact.length).toBeLessThanOrEqual(MAX_QUOTE);
    expect(exact.length).toBeGreaterThan(MAX_QUOTE - 10);
  });
});
