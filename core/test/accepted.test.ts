import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isAccepted, readQuantity, slipsBetween } from '../src/answers/index.js';

const accepts = (answers: string[], typed: string, typos = true) =>
  isAccepted({ as: 'words', answers, typos }, typed);

describe('words that are filled in', () => {
  it.each([
    ['Paris', 'paris '],
    ['New  York', 'new york'],
    ['l’été', "L'été"],
    ['Übung', 'U\u0308bung'],
    ['twenty-one', 'twenty–one'],
  ])('%s may be typed as "%s"', (answer, typed) => expect(accepts([answer], typed, false)).toBe(true));

  it.each([
    ['mountain', 'mountian', true],
    ['mountain', 'mountein', true],
    ['mountain', 'montein', false],
    ['photosynthesis', 'fotosynthesis', true],
    ['cat', 'cot', false],
    ['elephant', 'giraffe', false],
    ['Straße', 'Strasse', false],
  ])('%s for "%s" with slips: %s', (answer, typed, expected) =>
    expect(accepts([answer], typed)).toBe(expected),
  );

  it('are any of those that are right', () => {
    expect(accepts(['colour', 'color'], 'color', false)).toBe(true);
    expect(accepts(['colour', 'color'], 'colr', false)).toBe(false);
  });
});

describe('slips', () => {
  // Wagner and Fischer's distance has kitten/sitting 3 in every textbook; CA/ABC is the known case in which optimal string
  // alignment (3) is not Damerau's unrestricted distance (2), from memory of the literature.
  it.each([
    ['kitten', 'sitting', 3],
    ['ca', 'abc', 3],
    ['form', 'from', 1],
    ['', 'abc', 3],
    ['same', 'same', 0],
  ])('between %s and %s are %s', (a, b, count) => expect(slipsBetween(a, b)).toBe(count));

  it('are as many there as back, and no more than letters', () => {
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', 'ä'), maxLength: 9 });
    fc.assert(
      fc.property(word, word, (a, b) => {
        const slips = slipsBetween(a, b);
        expect(slips).toBe(slipsBetween(b, a));
        expect(slips).toBeLessThanOrEqual(Math.max(a.length, b.length));
        expect(slips === 0).toBe(a === b);
      }),
    );
  });
});

describe('numbers that are filled in', () => {
  // Decimals after a comma or a point, digits in groups of three: SI Brochure, 9th edition, §5.4.4, and ISO 80000-1.
  it.each<[string, number, string]>([
    ['9.81', 9.81, ''],
    ['9,81 m/s²', 9.81, 'm/s²'],
    ['−40 °C', -40, '°C'],
    ['1 234 567,8', 1234567.8, ''],
    ["1'234.5 km", 1234.5, 'km'],
    ['1,234,567', 1234567, ''],
    ['1.234,5', 1234.5, ''],
    ['1,234.5', 1234.5, ''],
    ['6,02e23', 6.02e23, ''],
    ['3 × 10^8 m/s', 3e8, 'm/s'],
    ['.5', 0.5, ''],
    ['25cm', 25, 'cm'],
  ])('"%s"', (typed, value, unit) => expect(readQuantity(typed)).toEqual({ value, unit }));

  it.each(['', 'ten', '1,2,3', '12.34.5', '1.2,3,4', 'about 5'])('are not "%s"', (typed) =>
    expect(readQuantity(typed)).toBeUndefined(),
  );

  it('are right as far off as they may be, in their unit', () => {
    const fall = { as: 'number', value: 9.81, within: 0.01, unit: 'm/s²' } as const;
    for (const typed of ['9.82 m/s²', '9,80 m/s²', '9.81 M/S²']) expect(isAccepted(fall, typed)).toBe(true);
    for (const typed of ['9.83 m/s²', '9.81', '9.81 m', 'g']) expect(isAccepted(fall, typed)).toBe(false);
    expect(isAccepted({ as: 'number', value: 0.3, within: 0, unit: '' }, '0,30')).toBe(true);
  });

  it('are read as they are written by any browser', () => {
    const number = fc
      .double({ min: -1e9, max: 1e9, noNaN: true })
      .map((value) => Math.round(value * 100) / 100);
    fc.assert(
      fc.property(number, fc.constantFrom('en', 'de', 'fr', 'de-CH'), (value, language) => {
        const typed = value.toLocaleString(language, { minimumFractionDigits: 2 });
        expect(readQuantity(typed)!.value).toBeCloseTo(value, 6);
      }),
    );
  });
});
