import { describe, expect, it } from 'vitest';
import type { MarkOf } from '../src/index.js';
import {
  findQuote,
  isMark,
  markBounds,
  paintMark,
  quoteOf,
  toWebAnnotation,
  transformPatch,
} from '../src/index.js';
import { common } from './helpers/marks.js';

const TEXT = 'The deck bends. In spring the deck bends more. Afterwards the deck bends no longer.';

function aQuote(text: string, start: number, end: number): MarkOf<'quote'> {
  return {
    ...common(),
    ...quoteOf(text, start, end),
    kind: 'quote',
    look: 'highlight',
    rects: [100, 200, 80, 24, 40, 224, 60, 24],
    style: { colour: '#f0e442', opacity: 0.55 },
  };
}

describe('words that are marked', () => {
  it('are quoted with what is round them, as the example of TextQuoteSelector has it', () => {
    // W3C Web Annotation Data Model, example 22: exact "anotation", prefix "this is an ", suffix " that has some".
    const text = 'this is an anotation that has some';
    const quote = quoteOf(text, 11, 20);
    expect(quote).toMatchObject({
      exact: 'anotation',
      prefix: 'this is an ',
      suffix: ' that has some',
      start: 11,
    });
    expect(findQuote(text, quote)).toEqual({ start: 11, end: 20 });
  });

  it('are found again where text was put in or taken out', () => {
    const start = TEXT.indexOf('deck bends more');
    const quote = quoteOf(TEXT, start, start + 10);
    const longer = `A new beginning was put here. ${TEXT}`;
    expect(findQuote(longer, quote)).toEqual({ start: start + 30, end: start + 40 });
    const shorter = TEXT.slice('The deck bends. '.length);
    expect(findQuote(shorter, quote)!.start).toBe(start - 16);
    expect(findQuote('Nothing of it is left.', quote)).toBeUndefined();
    expect(findQuote(TEXT, { ...quote, exact: '' })).toBeUndefined();
  });

  it('become Web Annotations with both selectors (W3C Web Annotation Data Model §3, §4.2)', () => {
    const mark = { ...aQuote(TEXT, 4, 8), alt: 'What bends?' };
    expect(toWebAnnotation(mark, 'https://page.example/story')).toMatchObject({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'Annotation',
      motivation: 'highlighting',
      body: { type: 'TextualBody', value: 'What bends?' },
      target: {
        source: 'https://page.example/story',
        selector: [
          { type: 'TextQuoteSelector', exact: 'deck', prefix: 'The ' },
          { type: 'TextPositionSelector', start: 4, end: 8 },
        ],
      },
    });
  });

  it('are marks like others, but stay with their words', () => {
    const mark = aQuote(TEXT, 4, 8);
    expect(isMark(mark)).toBe(true);
    expect(isMark({ ...mark, rects: [1, 2, 3] })).toBe(false);
    expect(isMark({ ...mark, exact: '' })).toBe(false);
    expect(markBounds(mark)).toMatchObject({ x: 38.92, y: 198.92 });
    expect(paintMark(mark)).toHaveLength(2);
    expect(paintMark(mark)[0]).toMatchObject({ kind: 'fill', blend: 'multiply' });
    expect(paintMark({ ...mark, look: 'underline' })[0]!.kind).toBe('line');
    expect(transformPatch(mark, { kind: 'move', dx: 5, dy: 5 })).toEqual({});
  });
});
