import { termsOf } from '@doodla/core/formulas';
import { afterAll, describe, expect, it } from 'vitest';
import './helpers/withStorage';
import './helpers/speakEnglish';
import { speakWords } from '../src/words';
import { de } from '../src/words/de';
import { en } from '../src/words/en';
import { sayFormula } from '../src/words/sayFormula';

const said = (tex: string) => sayFormula(termsOf(tex));

afterAll(() => {
  speakWords('en', en);
});

describe('a formula in words', () => {
  it.each([
    ['x^2+5x-3=0', 'x squared plus 5 x minus 3 equals 0'],
    [
      String.raw`x=\frac{-b\pm\sqrt{b^2-4ac}}{2a}`,
      'x equals fraction minus b plus or minus square root of b squared minus 4 a c, end of root, over, 2 a, end of fraction',
    ],
    [String.raw`\frac12\cdot\sqrt[3]{8}`, '1 over 2 times cube root of 8'],
    [
      String.raw`\sum_{i=1}^{n}i^{k+1}`,
      'sum from i equals 1 to n of i to the power of k plus 1, end of power',
    ],
    [String.raw`\lim_{x\to\infty}\frac1x`, 'limit as x goes to infinity of 1 over x'],
    [
      String.raw`\sin^2\alpha+\log_{10}x\ne\Delta`,
      'sine squared of alpha plus logarithm to base 10 of x is not equal to capital delta',
    ],
    [
      String.raw`a_1\le\left|x\right|`,
      'a with index 1 is less than or equal to absolute value of x, end of absolute value',
    ],
    [String.raw`\vec{a}\perp\overline{AB}`, 'vector a is perpendicular to A B with a bar'],
    [String.raw`\binom{n}{k}`, 'n choose k'],
    [String.raw`\begin{pmatrix}1&2\\3&4\end{pmatrix}`, '2 by 2 matrix: 1, 2; 3, 4'],
    [String.raw`20\%=0{,}2\,\text{of it}`, '20 percent equals 0.2 of it'],
  ])('is read as a teacher reads it: %s', (tex, words) => {
    expect(said(tex)).toBe(words);
  });

  it('is read in German with its own decimal comma and capitals', () => {
    speakWords('de', de);
    expect(said(String.raw`\alpha^2=0{,}5\cdot\Delta`)).toBe('Alpha hoch zwei gleich 0,5 mal großes Delta');
    expect(said(String.raw`\frac{1}{2}:\sqrt{2}`)).toBe('1 durch 2 geteilt durch Wurzel aus 2');
  });
});
