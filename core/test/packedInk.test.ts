import { decodePDFRawStream, PDFDocument, PDFRawStream } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packInk, writeInk } from '../src/handout/ink/index.js';
import { AsciiWriter } from '../src/handout/ink/asciiWriter.js';
import { fillInk } from '../src/handout/ink/fillInk.js';
import { InkAhead } from '../src/handout/inkAhead.js';
import type { HandoutPage, HandoutSources } from '../src/handout/index.js';
import { makePdf } from '../src/handout/index.js';
import type { Ink, StrokeMark } from '../src/index.js';
import { outlineCorners } from '../src/index.js';
import { andika } from './helpers/fonts.js';
import { aPage, aShape, aStroke, aText } from './helpers/marks.js';

const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

function written(write: (content: AsciiWriter) => void): string {
  const content = new AsciiWriter();
  write(content);
  return textOf(content.bytes());
}

describe('text that is written as bytes', () => {
  const whole = fc.oneof(fc.integer({ min: -20_000, max: 20_000 }), fc.maxSafeInteger());

  it('has whole numbers as JavaScript writes them', () => {
    fc.assert(
      fc.property(whole, whole, (x, y) => {
        expect(written((content) => content.pair(x, y))).toBe(`${x} ${y} `);
      }),
    );
  });

  it('has tenths as JavaScript writes them', () => {
    fc.assert(
      fc.property(fc.integer({ min: -99_999_999, max: 99_999_999 }), (tenths) => {
        expect(written((content) => content.tenths(tenths))).toBe(`${tenths / 10} `);
      }),
    );
  });

  it('never writes that nothing is less than nothing', () => {
    expect(written((content) => (content.pair(-0, -0), content.tenths(-0)))).toBe('0 0 0 ');
  });

  it('grows, and takes bytes in', () => {
    const long = 'q 1 0 0 1 0 0 cm '.repeat(2000);
    const bytes = new TextEncoder().encode(long);
    expect(written((content) => (content.text(long), content.bytesOf(bytes), content.pair(1, 2)))).toBe(
      `${long}${long}1 2 `,
    );
  });
});

const hand = fc
  .array(fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })), {
    minLength: 1,
    maxLength: 30,
  })
  .map((steps) => {
    let [x, y] = [100, 100];
    return steps.flatMap(([dx, dy], i) => [(x += dx), (y += dy), 0.3 + (i % 7) / 10, i * 16]);
  });
const ink: fc.Arbitrary<Ink> = fc.record({
  points: hand,
  style: fc.record({
    nature: fc.constantFrom('pen', 'marker', 'highlighter'),
    width: fc.integer({ min: 1, max: 40 }),
  }),
});

describe('ink that another thread works out', () => {
  it('is what it would be here', () => {
    fc.assert(
      fc.property(fc.array(ink, { maxLength: 6 }), (strokes) => {
        const { bytes, ends } = writeInk(packInk(strokes));
        const parts = strokes.map((_, i) => textOf(bytes.subarray(ends[i - 1] ?? 0, ends[i])));
        expect(parts).toEqual(strokes.map((each) => written((to) => fillInk(to, outlineCorners(each)))));
      }),
      { numRuns: 60 },
    );
  });

  const strokes = (count: number, page: string): StrokeMark[] =>
    Array.from({ length: count }, (_, n) =>
      aStroke({
        id: `${page}-${n}`,
        points: Array.from({ length: 12 }, (_, i) => [
          n * 9 + i * 4,
          50 + 9 * Math.sin(i),
          0.5,
          i * 16,
        ]).flat(),
      }),
    );
  const pagesOf = (count: number, each = 30): HandoutPage[] =>
    Array.from({ length: count }, (_, i) => ({
      page: aPage({ id: `p${i}` }),
      marks: [...strokes(each, `p${i}`), aText({ id: `t${i}` }), aShape({ id: `s${i}` })],
    }));
  const here: HandoutSources['ink'] = (packed) => Promise.resolve(writeInk(packed));

  it('is asked for some pages ahead and no more, and given page by page', async () => {
    let asked = 0;
    const pages = pagesOf(40);
    const ahead = new InkAhead(pages, (packed) => ((asked += 1), here(packed)));
    expect(asked).toBe(12);
    for (const [i, { marks }] of pages.entries()) {
      const known = await ahead.take(i);
      expect(marks.map((mark) => known.of(mark) !== undefined)).toEqual(
        marks.map(({ kind }) => kind === 'stroke'),
      );
      expect(asked).toBe(Math.min(40, i + 12));
    }
  });

  it('is not asked for where there is little', async () => {
    let asked = 0;
    const ahead = new InkAhead(pagesOf(3), (packed) => ((asked += 1), here(packed)));
    expect((await ahead.take(0)).of(pagesOf(1)[0]!.marks[0]!)).toBeUndefined();
    expect(asked).toBe(0);
  });

  /** All that the pages of a PDF say, without their page's own streams being told apart. */
  async function contentsOf(bytes: Uint8Array): Promise<string[]> {
    const doc = await PDFDocument.load(bytes);
    return doc.context
      .enumerateIndirectObjects()
      .flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []))
      .map((stream) => textOf(decodePDFRawStream(stream).decode()))
      .filter((text) => text.includes(' cm\n'));
  }

  it.each(['drawn', 'annotations'] as const)('makes the same handout, %s', async (marksAs) => {
    const sources = { font: () => Promise.resolve(andika) } as unknown as HandoutSources;
    const options = { title: 'Handout', marksAs };
    const alone = await contentsOf(await makePdf(pagesOf(9), sources, options));
    let asked = 0;
    const counted: HandoutSources['ink'] = (packed) => ((asked += 1), here(packed));
    const helped = await contentsOf(await makePdf(pagesOf(9), { ...sources, ink: counted }, options));
    const failing = () => Promise.reject(new Error('gone'));
    const left = await contentsOf(await makePdf(pagesOf(9), { ...sources, ink: failing }, options));
    expect(asked).toBe(9);
    expect(alone.join('').match(/\nh\nf\n/g)?.length).toBeGreaterThanOrEqual(9 * 30);
    expect(helped).toEqual(alone);
    expect(left).toEqual(alone);
  });
});
