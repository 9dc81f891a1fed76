import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { listOfPages, pagesOfList } from '../src/index.js';

describe('a list of pages', () => {
  it('names pages one by one and in runs, in any order', () => {
    expect(pagesOfList('', 3)).toEqual([0, 1, 2]);
    expect(pagesOfList('2', 3)).toEqual([1]);
    expect(pagesOfList('3, 1-2', 3)).toEqual([2, 0, 1]);
    expect(pagesOfList(' 1 – 2 ', 3)).toEqual([0, 1]);
  });

  it.each(['4', '2-1', 'x', '0', '1-', '-', '1,,2', '1;2'])('that is wrong names none: %s', (wrong) => {
    expect(pagesOfList(wrong, 3)).toBeUndefined();
  });

  it('of any pages is read as those pages, and is as short as can be', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(40), { minLength: 1 }), (some) => {
        const pages = some.sort((a, b) => a - b);
        expect(pagesOfList(listOfPages(pages), 41)).toEqual(pages);
      }),
    );
    expect(listOfPages([0, 1, 2, 6, 8, 9])).toBe('1-3, 7, 9-10');
    expect(listOfPages([])).toBe('');
  });
});
