import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isSameName, MAX_NAME, MAX_NAMES, namesIn } from '../src/index.js';

// How class lists look when they are pasted: common practice, no source.
describe('a pasted class list', () => {
  it.each([
    ['names, one a line', 'Wren Moss\nOdo Vale\n', ['Wren Moss', 'Odo Vale']],
    ['lines of another system', 'Wren\r\nOdo\r\n', ['Wren', 'Odo']],
    ['numbers before names', '1. Wren\n2) Odo\n 3 - Ida', ['Wren', 'Odo', 'Ida']],
    ['bullets', '• Wren\n* Odo\n- Ida', ['Wren', 'Odo', 'Ida']],
    ['last names first', 'Moss, Wren\nVale, Odo', ['Wren Moss', 'Odo Vale']],
    ['columns of a table', 'Wren\tMoss\nOdo\tVale', ['Wren Moss', 'Odo Vale']],
    ['one line with commas', 'Wren, Odo, Ida', ['Wren', 'Odo', 'Ida']],
    ['one name', 'Wren Moss', ['Wren Moss']],
    ['the same name twice', 'Wren\nwren\nWren', ['Wren', 'wren 2', 'Wren 3']],
    ['nothing', ' \n\n', []],
  ])('of %s', (_, pasted, names) => expect(namesIn(pasted)).toEqual(names));

  it('gives names that a server takes in, none of them twice, whatever is pasted', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: 'grapheme' }),
          fc.array(fc.string()).map((all) => all.join('\n')),
        ),
        (text) => {
          const names = namesIn(text);
          expect(names.length).toBeLessThanOrEqual(MAX_NAMES);
          for (const name of names) {
            expect(name.length).toBeLessThanOrEqual(MAX_NAME);
            expect(name.trim()).toBe(name);
            expect(name).not.toBe('');
          }
          expect(new Set(names.map((name) => name.toLowerCase())).size).toBe(names.length);
        },
      ),
    );
  });

  it('tells names apart by accents, not by capitals', () => {
    expect(isSameName('WREN', 'wren')).toBe(true);
    expect(isSameName('René', 'Rene')).toBe(false);
  });
});
