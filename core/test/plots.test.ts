import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Expression } from '../src/formulas/expression';
import { valueOf } from '../src/formulas/values';
import { KINDS } from '../src/marks/kinds';
import type { PlotMark } from '../src/marks/plot/plotMark';
import { isMark } from '../src/marks/check';
import { curveOf, thinned } from '../src/plots/curve';
import { PlotPen } from '../src/plots/drawPlot';
import { functionOf } from '../src/plots/functions';
import { crossingsOf, extremaOf, rootsOf } from '../src/plots/places';
import type { PlotRecipe } from '../src/plots/recipe';
import { recipeOf, recipeText } from '../src/plots/recipe';
import { freeLetters, heightsOf, statementOf } from '../src/plots/statement';
import { rowCount, tableOf } from '../src/plots/table';
import { niceStep, ticksOf } from '../src/plots/ticks';
import { formulaFonts } from './helpers/formulaFonts';
import { common } from './helpers/marks';

/** The function that a formula says. */
function f(tex: string, letters = {}) {
  const statement = statementOf(tex);
  if (statement.is !== 'height') throw new Error('no function');
  return heightsOf(statement.of, letters);
}

const WINDOW = { x: { from: -5, to: 5 }, y: { from: -5, to: 5 } };
const piecesOf = (tex: string, window = WINDOW) => curveOf(f(tex), window, 500);
const endsOf = (pieces: number[][]) => pieces.map((piece) => [piece[0]!, piece.at(-2)!]);

describe('a function', () => {
  // Abramowitz and Stegun, Handbook of Mathematical Functions (1964): tables 1.1, 4.2, 4.6, 4.7, 4.14, 4.15.
  it.each([
    ['y=\\sin x', 1, 0.8414709848078965],
    ['y=\\cos x', 1, 0.5403023058681398],
    ['y=\\tan x', 1, 1.5574077246549023],
    ['y=\\cot x', 1, 0.6420926159343308],
    ['y=\\ln x', 2, 0.6931471805599453],
    ['y=\\log x', 2, 0.3010299956639812],
    ['y=\\log_2 x', 8, 3],
    ['y=e^x', 1, 2.718281828459045],
    ['y=\\sinh x', 1, 1.1752011936438014],
    ['y=\\cosh x', 1, 1.5430806348152437],
    ['y=\\tanh x', 1, 0.7615941559557649],
    ['y=\\arctan x', 1, 0.7853981633974483],
    ['y=\\arcsin x', 0.5, 0.5235987755982989],
    ['y=\\arccos x', 0.5, 1.0471975511965979],
    ['y=\\sqrt{x}', 3, 1.7320508075688772],
    ['y=\\sqrt[3]{x}', -8, -2],
    ['y=\\sqrt[5]{x}', -32, -2],
    ['y=x!', 5, 120],
    ['y=\\left|x\\right|', -2.5, 2.5],
    ['y=\\lfloor x\\rfloor', -1.5, -2],
    ['y=\\left\\lceil x\\right\\rceil', -1.5, -1],
    ['f(x)=2x^2-3x+1', 2, 3],
    ['\\frac{x+1}{x-1}', 3, 2],
    ['y=50\\% x', 4, 2],
    ['y=\\sin\\left(30^{\\circ}x\\right)', 1, 0.5],
  ])('%s has at %f the value of the handbook', (tex, x, value) => {
    expect(f(tex)(x)).toBeCloseTo(value, 13);
  });

  it('has no value where there is none', () => {
    for (const [tex, x] of [
      ['y=\\sqrt{x}', -1],
      ['y=\\ln x', -1],
      ['y=\\arcsin x', 2],
      ['y=x!', 0.5],
    ] as const)
      // prettier-ignore
      expect(f(tex)(x)).toBeNaN();
    expect(f('y=\\frac{1}{x}')(0)).toBe(Infinity);
  });

  it('is what another package computes, whatever is done with what', () => {
    const number = fc.integer({ min: -9, max: 9 }).map((n): Expression => {
      const positive: Expression = { is: 'number', text: String(Math.abs(n)) };
      return n < 0 ? { is: 'negative', of: positive } : positive;
    });
    const letter = fc.constant<Expression>({ is: 'letter', name: 'x' });
    const { tree } = fc.letrec<{ tree: Expression }>((tie) => ({
      tree: fc.oneof(
        { maxDepth: 4 },
        number,
        letter,
        fc.record({ is: fc.constant('sum' as const), sign: fc.constantFrom('+' as const, '-' as const), left: tie('tree'), right: tie('tree') }), // prettier-ignore
        fc.record({ is: fc.constant('product' as const), sign: fc.constant('cdot' as const), left: tie('tree'), right: tie('tree') }), // prettier-ignore
        fc.record({ is: fc.constant('quotient' as const), sign: fc.constant('fraction' as const), left: tie('tree'), right: tie('tree') }), // prettier-ignore
        fc.record({ is: fc.constantFrom('absolute' as const, 'floor' as const, 'negative' as const), of: tie('tree') }), // prettier-ignore
        fc.record({ is: fc.constant('call' as const), name: fc.constantFrom('sin' as const, 'arctan' as const, 'cosh' as const), of: tie('tree'), base: fc.constant(undefined) }), // prettier-ignore
      ),
    }));
    fc.assert(
      fc.property(tree, fc.integer({ min: -40, max: 40 }), (expression, n) => {
        let other: number;
        try {
          other = Number(valueOf(expression, { x: n / 8 }).valueOf());
        } catch {
          // It has no value there, or one too large to be told: nothing to compare.
          return;
        }
        const own = functionOf(expression, 'x')(n / 8);
        // Exact fractions fall on the other side of a whole number only where floating point is that near to it.
        if (JSON.stringify(expression).includes('floor') && own !== other) return;
        expect(Math.abs(own - other)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(other)));
      }),
      { numRuns: 400 },
    );
  });
});

describe('what a formula says', () => {
  it.each([
    ['y=x^2', 'height', '='],
    ['x^2', 'height', '='],
    ['2x\\leq y', 'height', 'geq'],
    ['y<3', 'height', '<'],
    ['g\\left(x\\right)=x', 'height', '='],
    ['x=\\pi', 'place', '='],
    ['3>x', 'place', '<'],
  ])('%s is read', (tex, is, relation) => {
    expect(statementOf(tex)).toMatchObject({ is, relation });
  });

  it.each([
    ['x^2+y^2=1', 'form'],
    ['y=x+y', 'form'],
    ['x=y+x', 'form'],
    ['a=3', 'form'],
    ['1<y<2', 'twoRelations'],
  ])('%s cannot be drawn, and why', (tex, fault) => {
    expect(() => statementOf(tex)).toThrow(expect.objectContaining({ fault }));
  });

  it('names the letters that need a value', () => {
    expect(freeLetters(statementOf('y=ax^2+b\\pi x+e^c'))).toEqual(['a', 'b', 'c']);
    expect(freeLetters(statementOf('x=k'))).toEqual(['k']);
    expect(() => f('y=ax')).toThrow(expect.objectContaining({ fault: 'letter', detail: 'a' }));
    expect(f('y=ax', { a: 3 })(2)).toBe(6);
  });

  it('may be one thing here and another there', () => {
    const parts = f('y=\\begin{cases}x^2 & \\text{if } x<0\\\\ 2-x, & 0\\leq x\\leq 2\\\\ 1 & \\text{otherwise}\\end{cases}'); // prettier-ignore
    expect([-2, 0, 1, 2, 2.5].map(parts)).toEqual([4, 2, 1, 0, 1]);
    expect(f('y=\\begin{cases}1 & x>0\\end{cases}')(-1)).toBeNaN();
  });
});

describe('a curve', () => {
  it('is not joined over poles and jumps, and reaches to them', () => {
    // Poles of tan: odd multiples of π/2; arctan 5 is where it leaves the window.
    const edge = Math.atan(5);
    const tan = endsOf(piecesOf('y=\\tan x'));
    expect(tan).toHaveLength(5);
    expect(tan[2]![0]).toBeCloseTo(-edge, 2);
    expect(tan[2]![1]).toBeCloseTo(edge, 2);
    expect(endsOf(piecesOf('y=\\frac{1}{x}')).flat()).toEqual([
      -5,
      expect.closeTo(-0.2),
      expect.closeTo(0.2),
      5,
    ]);
    const steps = piecesOf('y=\\lfloor x\\rfloor').filter((piece) => piece.at(-2)! > piece[0]!);
    expect(steps).toHaveLength(10);
    for (const step of steps) {
      expect(new Set(step.filter((_, i) => i % 2))).toHaveProperty('size', 1);
      expect(step.at(-2)! - step[0]!).toBeCloseTo(1, 9);
    }
  });

  it('with a corner or a steep flank is one piece', () => {
    expect(endsOf(piecesOf('y=\\left|x\\right|'))).toEqual([[-5, 5]]);
    expect(piecesOf('y=1000x')).toHaveLength(1);
    expect(piecesOf('y=x^{21}')).toHaveLength(1);
    expect(piecesOf('y=\\arctan\\left(200x\\right)')).toHaveLength(1);
  });

  it('begins where it has its first value, and leaves out where it has none', () => {
    expect(endsOf(piecesOf('y=\\sqrt{x}'))).toEqual([[expect.closeTo(0, 9), 5]]);
    expect(endsOf(piecesOf('y=\\sqrt{x^2-4}')).flat()).toEqual([-5, expect.closeTo(-2, 9), expect.closeTo(2, 9), 5]); // prettier-ignore
    expect(piecesOf('y=\\sqrt{-1-x^2}')).toEqual([]);
    expect(piecesOf('y=7')).toEqual([]);
  });

  it('of two even poles in one step is parted too', () => {
    const window = { x: { from: -1, to: 1 }, y: { from: 0, to: 1e6 } };
    expect(curveOf(f('y=\\frac{1}{x^2}'), window, 501)).toHaveLength(2);
  });

  it('stays in its window and on the function, whatever the function is', () => {
    const TEX = ['y=\\tan(kx)', 'y=\\frac{k}{x-1}', 'y=k\\lfloor 2x\\rfloor', 'y=\\ln(x+k)', 'y=kx^3-x', 'y=\\sin\\frac{k}{x}']; // prettier-ignore
    fc.assert(
      fc.property(fc.constantFrom(...TEX), fc.integer({ min: 1, max: 9 }), (tex, k) => {
        const g = f(tex, { k });
        for (const piece of curveOf(g, WINDOW, 300))
          for (let i = 0; i < piece.length; i += 2) {
            const [x, y] = [piece[i]!, piece[i + 1]!];
            expect(x).toBeGreaterThanOrEqual(-5);
            expect(x).toBeLessThanOrEqual(5);
            expect(Math.abs(y)).toBeLessThanOrEqual(5 + 1e-9);
            // Points where it enters or leaves the window lie on a line between two of the function.
            if (Math.abs(y) < 4.9 && Number.isFinite(g(x))) expect(y).toBeCloseTo(g(x), 6);
          }
      }),
      { numRuns: 60 },
    );
  });

  it('with fewer points is the same line', () => {
    const piece = piecesOf('y=\\sin x')[0]!;
    const thin = thinned(piece, 0.01);
    expect(thin.length).toBeLessThan(piece.length / 5);
    for (let i = 0; i + 3 < thin.length; i += 2) {
      const middle = (thin[i]! + thin[i + 2]!) / 2;
      expect((thin[i + 1]! + thin[i + 3]!) / 2).toBeCloseTo(Math.sin(middle), 1);
    }
  });
});

describe('places of a curve', () => {
  // Its type says nothing of what it stands for.
  const near = (value: number, digits: number): unknown => expect.closeTo(value, digits);
  const range = { from: -10, to: 10 };
  it('are where handbooks say', () => {
    const roots = rootsOf(f('y=x^2-3'), range, 500);
    expect(roots).toEqual([near(-Math.sqrt(3), 12), near(Math.sqrt(3), 12)]);
    // Abramowitz and Stegun, tables 4.19 and 4.20: roots of tan x = x and of x tan x = 1.
    const tan = crossingsOf(f('y=\\tan x'), f('y=x'), { from: 0.1, to: 8 }, 500);
    expect(tan.map(({ x }) => x)).toEqual([expect.closeTo(4.493409457909064, 10), expect.closeTo(7.725251836937707, 10)]); // prettier-ignore
    const [first] = rootsOf(f('y=x\\tan x-1'), { from: 0, to: 1.5 }, 500);
    expect(first).toBeCloseTo(0.8603335890193797, 10);
    // x e^{-x} is largest at 1, where it is 1/e.
    const [most] = extremaOf(f('y=xe^{-x}'), range, 500);
    expect(most!.x).toBeCloseTo(1, 7);
    expect(most!.y).toBeCloseTo(0.36787944117144233, 12);
  });

  it('are found where a curve only touches, on a place that is looked at and beside one', () => {
    expect(rootsOf(f('y=(x-1)^2'), range, 500)).toEqual([expect.closeTo(1, 6)]);
    expect(rootsOf(f('y=(x-\\sqrt{2})^2'), range, 500)).toEqual([expect.closeTo(Math.SQRT2, 6)]);
    expect(extremaOf(f('y=\\left|x\\right|'), range, 500)).toEqual([{ x: 0, y: near(0, 9) }]);
    expect(extremaOf(f('y=(x-\\frac{1}{3})^2'), range, 500)).toEqual([{ x: near(1 / 3, 6), y: near(0, 9) }]);
  });

  it('are none where it jumps, has a pole, or lies flat', () => {
    expect(rootsOf(f('y=\\frac{1}{x}'), range, 500)).toEqual([]);
    expect(rootsOf(f('y=\\lfloor x\\rfloor+\\frac{1}{2}'), range, 500)).toEqual([]);
    expect(rootsOf(f('y=0'), range, 500)).toEqual([]);
    expect(extremaOf(f('y=\\lfloor x\\rfloor'), range, 500)).toEqual([]);
    expect(extremaOf(f('y=x-\\lfloor x\\rfloor'), range, 500)).toEqual([]);
    expect(extremaOf(f('y=\\frac{1}{x^2}'), range, 501)).toEqual([]);
    expect(extremaOf(f('y=2'), range, 500)).toEqual([]);
  });
});

describe('an axis', () => {
  it('has steps of 1, 2 or 5, as many as there is room for', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 1e9, noNaN: true }),
        fc.integer({ min: 3, max: 30 }),
        (length, most) => {
          const step = niceStep({ from: 0, to: length }, most);
          expect([1, 2, 5, 10]).toContain(Math.round(step / 10 ** Math.floor(Math.log10(step * 1.000001))));
          expect(length / step).toBeLessThanOrEqual(most * (1 + 1e-6));
          expect(length / step).toBeGreaterThan(most / 3);
        },
      ),
    );
  });

  it('says its numbers as they are written', () => {
    const labels = (from: number, to: number, options = {}) => ticksOf({ from, to }, 8, options).map(({ label }) => label); // prettier-ignore
    expect(labels(-0.3, 0.5)).toEqual(['-0.3', '-0.2', '-0.1', '0.0', '0.1', '0.2', '0.3', '0.4', '0.5']);
    expect(labels(0, 1.5, { comma: true })[1]).toBe('0{,}2');
    expect(labels(-7, 7, { inPi: true })).toEqual(['-2\\pi', '-\\pi', '0', '\\pi', '2\\pi']);
    expect(labels(0, 2, { inPi: true })).toContain('\\frac{\\pi}{2}');
    expect(labels(0, 3e6)).toContain('5\\cdot 10^{5}');
    expect(labels(0, 3e6)).toContain('10^{6}');
  });
});

describe('a table of values', () => {
  it('has a row for each step, the last place too', () => {
    expect(tableOf(f('y=x^2-3'), { from: -2, to: 2 }, 1, false)).toEqual(
      [['-2', '1'], ['-1', '-2'], ['0', '-3'], ['1', '-2'], ['2', '1']].map(([x, y]) => ({ x, y })), // prettier-ignore
    );
    // Steps of 0.1 do not add up in floating point.
    expect(tableOf(f('y=x'), { from: 0, to: 0.3 }, 0.1, true).map(({ x }) => x)).toEqual(['0', '0{,}1', '0{,}2', '0{,}3']); // prettier-ignore
  });

  it('says where there is no value, and what is no table', () => {
    expect(tableOf(f('y=\\frac{1}{x}'), { from: 0, to: 1 }, 1, false)[0]).toEqual({ x: '0', y: '-' });
    expect(rowCount({ from: 0, to: 1 }, 0)).toBeNaN();
    expect(rowCount({ from: 1, to: 0 }, 1)).toBeNaN();
    expect(rowCount({ from: 0, to: 1e9 }, 1)).toBe(1e9 + 1);
  });
});

describe('a plot', () => {
  const recipe: PlotRecipe = {
    curves: [
      { tex: 'y=ax^2-3', colour: '#0072b2', dash: 'solid' },
      { tex: 'y<x', colour: '#d55e00', dash: 'solid' },
      { tex: 'x=2', colour: '#007a5e', dash: 'dotted' },
    ],
    points: [1, 1, 99, 99],
    window: WINDOW,
    letters: { a: 1 },
    shown: ['roots', 'legend'],
    inPi: false,
    comma: false,
  };
  const pen = new PlotPen(formulaFonts);

  it('is a mark that may be sent, is drawn in its box and turned with it', async () => {
    const drawing = await pen.draw(recipe, 400, 300);
    const mark: PlotMark = { ...common(), kind: 'plot', x: 50, y: 60, width: 800, height: 600, rotation: 90, recipe: recipeText(recipe), drawing, style: { opacity: 1 } }; // prettier-ignore
    expect(isMark(mark)).toBe(true);
    const reach = KINDS.plot.bounds(mark);
    for (const { path } of KINDS.plot.paint(mark) as { path: readonly (readonly (string | number)[])[] }[])
      for (const [, ...at] of path)
        for (let i = 0; i < at.length; i += 2) {
          expect(Number(at[i])).toBeGreaterThanOrEqual(reach.x - 20);
          expect(Number(at[i])).toBeLessThanOrEqual(reach.x + reach.width + 20);
        }
  });

  it('draws each curve in its colour and dash, and the edge of what is less as dashes over a shade', async () => {
    const { parts } = await pen.draw(recipe, 400, 400);
    const lines = parts.flatMap((part) => ('line' in part ? [part] : []));
    const of = (colour: string) => lines.filter((line) => line.colour === colour);
    // The second of each is the sample of the legend.
    expect(of('#0072b2').map(({ dash }) => dash > 0)).toEqual([false, false]);
    expect(of('#d55e00')[0]!.dash).toBeGreaterThan(0);
    // x = 2 lies at 7/10 of the width.
    expect(of('#007a5e')[0]!.line).toEqual([280, 0, 280, 400]);
    const shades = parts.flatMap((part) => ('rings' in part && part.opacity < 0.5 ? [part] : []));
    expect(shades.map(({ colour }) => colour)).toEqual(['#d55e00']);
  });

  it('comes back from its mark as it was, and nothing else does', () => {
    expect(recipeOf(recipeText(recipe))).toEqual(recipe);
    const broken = [
      '',
      'null',
      '[]',
      '{}',
      JSON.stringify({ ...recipe, window: { ...WINDOW, x: { from: 1, to: 1 } } }),
      JSON.stringify({ ...recipe, letters: { 'a b': 1 } }),
      JSON.stringify({ ...recipe, points: [1] }),
      JSON.stringify({ ...recipe, more: 1 }),
    ];
    for (const text of broken) expect(recipeOf(text)).toBeUndefined();
  });
});
