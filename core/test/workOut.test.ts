import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Step } from '../src/formulas/index.js';
import { expressionOf, termsOf, valueOf, workOut } from '../src/formulas/index.js';

const lines = (steps: readonly Step[]) => steps.map(({ tex, isRounded }) => `${isRounded ? '≈' : '='}${tex}`);
const value = (tex: string, letters = {}) => valueOf(expressionOf(termsOf(tex)), letters).valueOf();

describe('a calculation that is worked out', () => {
  it.each<[string, readonly string[]]>([
    [
      String.raw`3+4\cdot(2-5)^2=`,
      [String.raw`=3+4\cdot \left(-3\right)^{2}`, String.raw`=3+4\cdot 9`, '=3+36', '=39'],
    ],
    [String.raw`\frac12+\frac13`, [String.raw`=\frac{5}{6}`, '≈0.8333']],
    [String.raw`\frac{\frac12+1}{3}`, [String.raw`=\frac{\frac{3}{2}}{3}`, String.raw`=\frac{1}{2}`, '=0.5']],
    [
      String.raw`3\tfrac12\cdot 0{,}5`,
      [String.raw`=\frac{7}{2}\cdot 0{,}5`, String.raw`=\frac{7}{4}`, '=1{,}75'],
    ],
    ['7:2', ['=3.5']],
    ['1{,}5+2\\cdot3', ['=1{,}5+6', '=7{,}5']],
    [String.raw`\sqrt{16}+\sqrt[3]{8}`, [String.raw`=4+\sqrt[3]{8}`, '=4+2', '=6']],
    [String.raw`\sqrt2\cdot3`, [String.raw`≈1.4142\cdot 3`, '≈4.2426']],
    [String.raw`\sin 30^\circ+\log_2 8`, [String.raw`=0.5+\log_{2}\left(8\right)`, '=0.5+3', '=3.5']],
    [String.raw`5!-20\%`, [String.raw`=120-20\%`, '=120-0.2', '=119.8']],
    [
      String.raw`-(2-7)\cdot|3-5|`,
      [
        String.raw`=-\left(-5\right)\cdot \left|3-5\right|`,
        String.raw`=-\left(-5\right)\cdot \left|-2\right|`,
        String.raw`=5\cdot \left|-2\right|`,
        String.raw`=5\cdot 2`,
        '=10',
      ],
    ],
    ['2(3+4)', [String.raw`=2\cdot 7`, '=14']],
    ['-3^2', ['=-9']],
    ['0{,}1+0{,}2', ['=0{,}3']],
  ])('goes step by step as by hand: %s', (tex, wanted) => {
    // prettier-ignore
    expect(lines(workOut(tex))).toEqual(wanted);
  });

  it.each([
    ['x+1', 'letter', 'x'],
    ['1/0', 'zero', ''],
    [String.raw`\frac{1}{2-2}`, 'zero', ''],
    [String.raw`\sqrt{-1}`, 'notReal', ''],
    [String.raw`\ln(-1)`, 'notReal', ''],
    ['1.5!', 'notReal', ''],
    ['171!', 'tooLarge', ''],
    ['10^{400}', 'tooLarge', ''],
    ['(2+3', 'brackets', ')'],
    ['2+3)', 'brackets', ')'],
    ['2+', 'ends', ''],
    [String.raw`2\approx`, undefined, undefined],
    ['2=3', undefined, undefined],
    [String.raw`\lim 3`, 'unknown', 'lim'],
  ])('is refused where it is none: %s', (tex, fault, detail) => {
    const attempt = () => workOut(tex);
    expect(attempt).toThrow();
    if (fault === undefined) return expect(attempt).toThrow('no calculation');
    expect(attempt).toThrow(expect.objectContaining({ fault, detail }) as Error);
  });

  it('agrees with the arithmetic of ECMA-262 in every step, whatever is calculated', () => {
    interface Both {
      tex: string;
      value: number;
    }
    const number = fc.oneof(
      fc.integer({ min: 0, max: 40 }).map((n) => ({ tex: String(n), value: n })),
      fc
        .integer({ min: 1, max: 99 })
        .map((n) => ({ tex: `0.${String(n).padStart(2, '0')}`, value: n / 100 })),
    );
    const { any } = fc.letrec<{ any: Both }>((tie) => {
      const two = (make: (a: Both, b: Both) => Both) => fc.tuple(tie('any'), tie('any')).map(([a, b]) => make(a, b));
      return {
        any: fc.oneof(
          { maxDepth: 4, depthSize: 'small' },
          number,
          two((a, b) => ({ tex: `${a.tex}+${b.tex}`, value: a.value + b.value })),
          two((a, b) => ({ tex: `(${a.tex})-(${b.tex})`, value: a.value - b.value })),
          two((a, b) => ({ tex: `(${a.tex})\\cdot(${b.tex})`, value: a.value * b.value })),
          two((a, b) => ({ tex: `\\frac{${a.tex}}{${b.tex}}`, value: a.value / b.value })),
          tie('any').map((a) => ({ tex: `(${a.tex})^2`, value: a.value ** 2 })),
          tie('any').map((a) => ({ tex: `\\left|${a.tex}\\right|`, value: Math.abs(a.value) })),
        ),
      };
    }); // prettier-ignore
    fc.assert(
      fc.property(any, ({ tex, value: wanted }) => {
        fc.pre(Number.isFinite(wanted) && Math.abs(wanted) < 1e9);
        let worked: readonly Step[];
        try {
          worked = workOut(tex);
        } catch (error) {
          // Exactly 0 there, nearly 0 here.
          fc.pre((error as { fault?: string }).fault !== 'zero');
          throw error;
        }
        for (const step of worked.filter(({ isRounded }) => !isRounded)) {
          const near = value(step.tex);
          expect(Math.abs(near - wanted)).toBeLessThanOrEqual(1e-6 * Math.max(1, Math.abs(wanted)));
        }
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    // Abramowitz and Stegun, Handbook of Mathematical Functions, 1964: tables 1.1, 4.2, 4.6 and 4.10.
    [String.raw`\sqrt{2}`, '1.4142135623730950488'],
    [String.raw`\sqrt[3]{10}`, '2.1544346900318837218'],
    ['e', '2.7182818284590452353'],
    [String.raw`\pi`, '3.1415926535897932384'],
    [String.raw`\ln 2`, '0.69314718055994530942'],
    [String.raw`\ln 10`, '2.302585092994045684'],
    [String.raw`\sin 1`, '0.84147098480789650665'],
    [String.raw`\cos 1`, '0.5403023058681397174'],
    [String.raw`\tan 1`, '1.5574077246549022305'],
    [String.raw`\sinh 1`, '1.1752011936438014569'],
    [String.raw`\sin 60^\circ`, '0.86602540378443864676'],
    // DLMF 4.24.2 at 1: a quarter of pi.
    [String.raw`4\arctan 1`, '3.1415926535897932384'],
  ])('has the values of the handbooks: %s', (tex, wanted) => {
    expect(value(tex)).toBeCloseTo(Number(wanted), 14);
  });

  it('multiplies what stands beside each other, and takes powers, functions and indices as they are meant', () => {
    const at = { x: 3, a: 2, x_1: 5, alpha: 7 };
    expect(value('2x^2', at)).toBe(18);
    expect(value('ax', at)).toBe(6);
    expect(value(String.raw`\sin^2 x+\cos^2 x`, at)).toBeCloseTo(1, 12);
    expect(value(String.raw`\sin 2x`, at)).toBeCloseTo(Math.sin(6), 12);
    expect(value(String.raw`\sin(x)x`, at)).toBeCloseTo(3 * Math.sin(3), 12);
    expect(value('x_1+\\alpha', at)).toBe(12);
    expect(value('(x+1)(x-1)', at)).toBe(8);
    expect(value('(x+1)^2', at)).toBe(16);
    expect(value('2^{-x}', at)).toBeCloseTo(1 / 8, 12);
    expect(value('|x-5|x', at)).toBe(6);
  });
});
