import fc from 'fast-check';
import katex from 'katex';
import { describe, expect, it } from 'vitest';
import type { FormulaMark, MarkOf } from '../src/index.js';
import { isMark, kindOf, markBounds, paintMark, patchMark, transformPatch } from '../src/index.js';
import type { Term } from '../src/formulas/index.js';
import {
  changedOutlines,
  FormulaError,
  mathMlOf,
  placedOutlines,
  termsOf,
  typeset,
} from '../src/formulas/index.js';
import { formulaFonts } from './helpers/formulaFonts.js';
import { common } from './helpers/marks.js';

const set = (tex: string) => typeset(tex, formulaFonts);

/** Formulas of all sorts of school mathematics. */
const SCHOOL = [
  String.raw`x^2+5x-3=0`,
  String.raw`x=\frac{-b\pm\sqrt{b^2-4ac}}{2a}`,
  String.raw`\sqrt[3]{x+1}`,
  String.raw`\sum_{i=1}^{n} i=\frac{n(n+1)}{2}`,
  String.raw`\int_0^\pi \sin x\,dx`,
  String.raw`\left(\frac{1}{1+\frac{1}{2}}\right)^{n}`,
  String.raw`\begin{pmatrix}1&2\\3&4\end{pmatrix}`,
  String.raw`f(x)=\begin{cases}x&x\ge0\\-x&x<0\end{cases}`,
  String.raw`\vec{a}\cdot\overrightarrow{AB}=0`,
  String.raw`\underbrace{a+a}_{2\text{ times}}`,
  String.raw`\boxed{E=mc^2}+\cancel{x}`,
  String.raw`\widehat{ABC}\quad\begin{array}{c|c}x&y\\\hline1&2\end{array}`,
  String.raw`\left\{\begin{matrix}a\\b\\c\\d\\e\\f\end{matrix}\right\}`,
  String.raw`A\xrightarrow{\text{heat}}B`,
  String.raw`\textcolor{red}{x}+\mathbf{v}\in\mathbb{R}`,
];

async function formulaMark(tex: string, size = 40, x = 100, y = 200): Promise<FormulaMark> {
  const outlines = placedOutlines(await set(tex), size, x, y);
  return { ...common(), kind: 'formula', tex, outlines, style: { colour: '#000000', opacity: 1 } };
}

describe('a typeset formula', () => {
  it.each(SCHOOL)('is as high over its base line, and as deep, as KaTeX says: %s', async (tex) => {
    const { parts, width } = await set(tex);
    const ys = parts.flatMap(({ rings }) => rings.flatMap((ring) => ring.filter((_, i) => i % 2 === 1)));
    const inner = katex as unknown as { __renderToDomTree(tex: string, o: object): { height: number; depth: number } }; // prettier-ignore
    const { height, depth } = inner.__renderToDomTree(tex, { displayMode: true, output: 'html' });
    // Boxes of fonts are a little higher than what is drawn in them; nothing is drawn outside.
    expect(-Math.min(...ys)).toBeLessThan(height + 0.06);
    expect(Math.max(...ys)).toBeLessThan(depth + 0.06);
    expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(0.5 * (height + depth));
    const xs = parts.flatMap(({ rings }) => rings.flatMap((ring) => ring.filter((_, i) => i % 2 === 0)));
    expect(Math.min(...xs)).toBeGreaterThan(-0.1);
    expect(Math.max(...xs)).toBeLessThan(width + 0.15);
  });

  it('has the widths of the fonts: TeX’s own tables for Computer Modern (from memory: cmr10, digits 0.5 em, plus 0.7778 em)', async () => {
    expect((await set('1')).width).toBeCloseTo(0.5, 3);
    expect((await set('{+}')).width).toBeCloseTo(0.7778, 3);
    // Medium spaces of 4/18 em on both sides (The TeXbook, ch. 18).
    expect((await set('1+1')).width).toBeCloseTo(0.5 + 0.7778 + 0.5 + (2 * 4) / 18, 3);
  });

  it('keeps colours apart and says them as the marks do', async () => {
    const mark = await formulaMark(String.raw`\textcolor{red}{x}+y`);
    expect(mark.outlines.map(({ colour }) => colour).sort()).toEqual(['#ff0000', null].sort());
    expect(paintMark(mark)).toMatchObject([{ colour: '#ff0000' }, { colour: '#000000' }]);
  });

  it.each([
    [String.raw`\frac{1}{`, 'unreadable'],
    [String.raw`\nosuchthing x`, 'unreadable'],
    ['x'.repeat(601), 'tooLong'],
    [String.raw`\text{щ}`, 'noSign'],
  ])('says what is wrong with %s', async (tex, fault) => {
    const error: unknown = await set(tex).catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(FormulaError);
    expect(error).toMatchObject({ fault });
  });

  it('ends for what would never: TeX that calls itself', async () => {
    await expect(set(String.raw`\def\x{\x\x}\x`)).rejects.toMatchObject({ fault: 'unreadable' });
  });
});

describe('a formula on a page', () => {
  it('is a whole mark of closed outlines where it was put', async () => {
    const mark = await formulaMark('x+1');
    expect(isMark(mark)).toBe(true);
    const box = markBounds(mark);
    expect(box.x).toBeGreaterThan(99);
    expect(box.y + box.height).toBeLessThan(206);
    expect(box.height).toBeGreaterThan(20);
    expect(isMark({ ...mark, outlines: [] })).toBe(false);
    expect(isMark({ ...mark, outlines: [{ rings: [[0, 0, 1, 1]], colour: null }] })).toBe(false);
  });

  it('is hit between its letters, and goes to the other side of a mirror as it is', async () => {
    const mark = await formulaMark(String.raw`\frac{a}{b}`);
    expect(kindOf(mark).target(mark)).toMatchObject({ solid: true });
    const at = { kind: 'flip', vertical: false, x: 0, y: 0 } as const;
    const flipped = patchMark(mark, transformPatch(mark, at)) as FormulaMark;
    const moved = { kind: 'move', dx: -2 * markBounds(mark).x - markBounds(mark).width, dy: 0 } as const;
    expect(flipped).toEqual(patchMark(mark, transformPatch(mark, moved)));
  });

  it('is said to be hard to read where its colour is too light for the paper (WCAG 2.2, 1.4.3: 3 to 1)', async () => {
    const mark = await formulaMark('x');
    const inColour = (colour: string): FormulaMark => ({ ...mark, style: { ...mark.style, colour } });
    const problems = (colour: string, paper: string) => kindOf(mark).problems?.(inColour(colour), paper);
    expect(problems('#f0e442', '#ffffff')).toMatchObject([{ what: 'contrast', better: 'darker' }]);
    expect(problems('#0072b2', '#ffffff')).toEqual([]);
  });

  it('stays where it is, as large, turned and stretched, when it is changed', async () => {
    const [before, after] = [await set('x+1'), await set(String.raw`x+\frac12`)];
    const turn = fc.record({
      degrees: fc.integer({ min: -180, max: 180 }),
      fx: fc.integer({ min: 50, max: 400 }),
      fy: fc.integer({ min: 50, max: 400 }),
    });
    fc.assert(
      fc.property(turn, ({ degrees, fx, fy }) => {
        const moved = (mark: MarkOf<'formula'>) =>
          [
            { kind: 'resize', fx: fx / 100, fy: fy / 100, x: 10, y: 20 } as const,
            { kind: 'turn', degrees, x: 50, y: 60 } as const,
          ].reduce<MarkOf<'formula'>>((now, step) => patchMark(now, transformPatch(now, step)) as MarkOf<'formula'>, mark); // prettier-ignore
        const base = { ...common(), kind: 'formula', style: { colour: '#000000', opacity: 1 } } as const;
        const was = moved({ ...base, tex: 'x+1', outlines: placedOutlines(before, 40, 100, 200) });
        const wanted = moved({ ...base, tex: 'y', outlines: placedOutlines(after, 40, 100, 200) });
        const changed = changedOutlines(was, before, after);
        const [got, want] = [changed, wanted.outlines].map((all) => all.flatMap(({ rings }) => rings.flat()));
        expect(got!.length).toBe(want!.length);
        got!.forEach((value, i) => expect(Math.abs(value - want![i]!)).toBeLessThan(0.6));
      }),
      { numRuns: 30 },
    );
  });
});

describe('what a formula says', () => {
  const short = (terms: readonly Term[]): unknown =>
    terms.map((term) => {
      switch (term.is) {
        case 'number':
        case 'words':
          return term.text;
        case 'letter':
        case 'sign':
        case 'call':
          return term.name;
        case 'fraction':
          return { over: short(term.over), under: short(term.under) };
        case 'scripts':
          return {
            base: short(term.base),
            sup: term.sup && short(term.sup),
            sub: term.sub && short(term.sub),
          };
        case 'root':
          return { root: short(term.of), degree: term.degree && short(term.degree) };
        case 'group':
          return { [term.open]: short(term.of) };
        case 'marked':
          return { [term.how]: short(term.of) };
        case 'rows':
          return term.rows.map((row) => row.map(short));
      }
    });

  it.each<[string, unknown]>([
    [String.raw`3\tfrac12\cdot 0{,}5`, ['3', { over: ['1'], under: ['2'] }, 'cdot', '0.5']],
    ['1,5+12.25', ['1.5', '+', '12.25']],
    [String.raw`\sin^2 x`, [{ base: ['sin'], sup: ['2'], sub: undefined }, 'x']],
    [String.raw`60^\circ f'(x)`, ['60', 'degree', 'f', 'prime', '(', 'x', ')']],
    [String.raw`a\ne b\le c`, ['a', 'neq', 'b', 'leq', 'c']],
    ['α≤π', ['alpha', 'leq', 'pi']],
    [String.raw`\left|x\right|`, [{ '|': ['x'] }]],
    [String.raw`\overline{AB}`, [{ overline: ['A', 'B'] }]],
    [String.raw`\text{cm}\,\mathbb{R}`, ['cm', 'R']],
    [
      String.raw`\begin{matrix}1&2\\3&4\end{matrix}`,
      [
        [
          [['1'], ['2']],
          [['3'], ['4']],
        ],
      ],
    ],
  ])('is read from its TeX: %s', (tex, wanted) => {
    expect(short(termsOf(tex))).toEqual(wanted);
  });

  it('is MathML of its own namespace with its TeX as a note (W3C MathML 3, ch. 5)', () => {
    const text = mathMlOf(String.raw`\frac12`);
    expect(text).toMatch(/^<math xmlns="http:\/\/www\.w3\.org\/1998\/Math\/MathML"/);
    expect(text).toContain('<mfrac><mn>1</mn><mn>2</mn></mfrac>');
    expect(text).toContain('<annotation encoding="application/x-tex">\\frac12</annotation>');
  });
});
