import fc from 'fast-check';
import { diff_match_patch } from 'diff-match-patch';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { findQuote, quoteOf } from '../src/index.js';
import { findChanged } from '../src/glue/index.js';

/** A long text that nobody here wrote: the notices that come with the compiler. */
const NOTICES = join(
  dirname(createRequire(import.meta.url).resolve('typescript/package.json')),
  'ThirdPartyNoticeText.txt',
);
const TEXT = readFileSync(NOTICES, 'utf8').replaceAll('\r', '').slice(0, 40_000);

interface Edit {
  at: number;
  out: number;
  put: string;
}

const anEdit = fc.record({
  at: fc.double({ min: 0, max: 1, noNaN: true }),
  out: fc.nat(12),
  put: fc.string({ maxLength: 12, unit: fc.constantFrom(...'etaoin shrdlu.') }),
});

/** The text after edits, and where a place of it has gone to. */
function edited(text: string, edits: readonly Edit[], place: number): { text: string; place: number } {
  for (const { at, out, put } of edits) {
    const from = Math.floor(at * text.length);
    const shift = put.length - Math.min(out, text.length - from);
    text = text.slice(0, from) + put + text.slice(from + out);
    if (from < place) place = Math.max(from, place + shift);
  }
  return { text, place };
}

describe('words whose text was edited', () => {
  it('are found as `findQuote` finds them where they still say the same', () => {
    fc.assert(
      fc.property(fc.nat(TEXT.length - 100), fc.integer({ min: 20, max: 90 }), (start, length) => {
        const quote = quoteOf(TEXT, start, start + length);
        expect(findChanged(TEXT, quote)).toEqual(findQuote(TEXT, quote));
        const moved = `${'A new beginning. '.repeat(9)}${TEXT}`;
        expect(findChanged(moved, quote)).toEqual(findQuote(moved, quote));
      }),
      { numRuns: 60 },
    );
  });

  it('are found at their place after edits at least as often as a general fuzzy matcher finds it', () => {
    // diff-match-patch (bitap, Wu & Manber 1992) looks for up to 32 letters near where they were.
    const matcher = new diff_match_patch();
    matcher.Match_Distance = 5000;
    let [own, other, all] = [0, 0, 0];
    const within = 6;
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: TEXT.length - 300 }),
        fc.integer({ min: 14, max: 32 }),
        fc.array(anEdit, { minLength: 1, maxLength: 60 }),
        fc.array(fc.record({ at: fc.nat(31), put: fc.constantFrom('', 'x', 'be') }), { maxLength: 3 }),
        (start, length, edits, inside) => {
          const quote = quoteOf(TEXT, start, start + length);
          const touched = inside.map(({ at, put }) => ({
            at: (start + (at % length)) / TEXT.length,
            out: 1,
            put,
          }));
          const after = edited(TEXT, [...touched, ...edits], start);
          const found = findChanged(after.text, quote)?.start ?? Infinity;
          const theirs = matcher.match_main(after.text, quote.exact, start);
          all += 1;
          if (Math.abs(found - after.place) <= within) own += 1;
          if (theirs >= 0 && Math.abs(theirs - after.place) <= within) other += 1;
        },
      ),
      { numRuns: 150, seed: 18 },
    );
    expect(own).toBeGreaterThanOrEqual(other);
    expect(own / all).toBeGreaterThan(0.95);
  });

  it('are gone where their paragraph is gone, also if the same word stands elsewhere', () => {
    const text = 'We build a dam of clay. Beavers build better ones, all in one night, without plans.';
    const start = text.indexOf('build better');
    const quote = quoteOf(text, start, start + 5);
    expect(findChanged('We build a dam of clay. Nobody has done so before the war.', quote)).toBeUndefined();
    expect(findChanged('', quote)).toBeUndefined();
    expect(findChanged(text, { ...quote, exact: '' })).toBeUndefined();
  });

  it('are told from the same words elsewhere by what is round them', () => {
    const lines = Array.from({ length: 30 }, (_, i) => `In room ${i} the answer is open for now.`);
    const text = lines.join(' ');
    const start = text.indexOf('the answer', text.indexOf('room 17 '));
    const quote = quoteOf(text, start, start + 'the answer'.length);
    const shorter = lines.slice(9).join(' ');
    const found = findChanged(shorter, quote)!;
    expect(shorter.slice(found.start - 8, found.end)).toBe('room 17 the answer'.slice(-(8 + 10)));
  });

  it('of a long passage are found although a sentence was put into it', () => {
    const passage = TEXT.slice(5000, 5600);
    const quote = quoteOf(TEXT, 5000, 5600);
    const changed = `${TEXT.slice(0, 5300)} And so on.${TEXT.slice(5300)}`;
    const found = findChanged(changed, quote)!;
    expect(found.start).toBe(5000);
    expect(found.end).toBe(5600 + ' And so on.'.length);
    expect(findChanged(TEXT.replace(passage, ''), quote)).toBeUndefined();
  });
});
