import { elements as published } from 'chemical-elements';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { FigureId, FigureRecipe, Value } from '../src/figures/index.js';
import {
  atomsOf,
  balanced,
  configurationOf,
  drawFigure,
  ELEMENTS,
  FigureError,
  figureOf,
  FIGURE_IDS,
  FIGURES,
  figureText,
  imageOf,
  newFigure,
  PITCHES,
  pitchesOf,
  shellsOf,
  valueIn,
} from '../src/figures/index.js';
import { figureSet } from '../src/answers/index.js';
import type { Mark } from '../src/index.js';
import { isMark, markBounds } from '../src/index.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { formulaFonts } from './helpers/formulaFonts.js';
import { common } from './helpers/marks.js';

const markOf = (recipe: FigureRecipe, drawing: object, set: Partial<Mark> = {}): Mark =>
  ({
    ...common(),
    kind: 'plot',
    ...{ x: 0, y: 0, width: 300, height: 200, rotation: 0, style: { opacity: 1 } },
    recipe: figureText(recipe),
    drawing,
    ...set,
  }) as Mark;

/** Values that the fields of a figure can have, but for words, which are as at first. */
const valuesFor = (figure: FigureId) =>
  fc.record(
    Object.fromEntries(
      Object.entries(FIGURES[figure].fields).map(([key, field]): [string, fc.Arbitrary<Value>] => {
        if (field.is === 'number')
          return [key, fc.integer({ min: Math.ceil(field.from), max: Math.floor(field.to) })];
        if (field.is === 'choice') return [key, fc.constantFrom(...field.of)];
        return [key, field.is === 'flag' ? fc.boolean() : fc.constant(field.at)];
      }),
    ),
  );

describe('a figure', () => {
  it.each(FIGURE_IDS)('%s is a sound mark of lines and outlines, whatever is set of it', async (figure) => {
    await fc.assert(
      fc.asyncProperty(valuesFor(figure), async (values) => {
        const recipe = { figure, values };
        const drawing = await drawFigure(recipe, formulaFonts);
        const mark = markOf(recipe, drawing);
        expect(isMark(mark), JSON.stringify(values)).toBe(true);
        expect(drawing.parts.length).toBeGreaterThan(0);
        // Nothing is drawn far beyond its box.
        const { width, height } = markBounds({
          ...mark,
          width: drawing.width,
          height: drawing.height,
        } as Mark);
        expect(width).toBeLessThan(drawing.width * 1.35);
        expect(height).toBeLessThan(drawing.height * 1.35);
        expect(figureOf(figureText(recipe))).toEqual(recipe);
      }),
      { numRuns: 8 },
    );
  });

  it('is read from whatever stands in a mark: what is missing or odd is as at first', () => {
    expect(figureOf('{"figure":"clock","values":{"hour":99,"minute":"x"}}')?.values).toEqual({
      hour: 23,
      minute: 10,
      shows: 'both',
    });
    for (const text of ['', '{}', '{"figure":"nothing","values":{}}', '{"figure":"toString","values":{}}'])
      expect(figureOf(text)).toBeUndefined();
    expect(valueIn({ is: 'choice', of: ['a'], at: 'a' }, 'b')).toBe('a');
  });

  it('says what it cannot draw', async () => {
    const draws = (figure: FigureId, set: object) =>
      drawFigure({ figure, values: { ...newFigure(figure).values, ...set } }, formulaFonts);
    await expect(draws('staff', { notes: 'C4 X9' })).rejects.toThrow(new FigureError('notes', 'X9'));
    await expect(draws('timeLine', { events: 'no year' })).rejects.toMatchObject({ fault: 'events' });
    await expect(draws('equation', { equation: 'H2 + Q -> H2Q' })).rejects.toMatchObject({ text: 'Q' });
  });

  it('is set by a class in what the class may set, and in nothing else', async () => {
    const recipe = newFigure('clock');
    const clock = markOf(recipe, await drawFigure(recipe, formulaFonts), {
      id: 'clock',
      rule: { sets: ['hour'] },
    });
    const page = new TaughtPage([clock]);
    const set = async (values: object, figure: FigureId = 'clock') => {
      const next = { figure, values: { ...recipe.values, ...values } };
      const look = {
        recipe: figureText(next),
        drawing: await drawFigure(next, formulaFonts),
        alt: 'a clock',
      };
      return page.put('wren', figureSet(page.as('wren'), clock, look).marks);
    };
    expect(await set({ hour: 3 })).toBeUndefined();
    expect(figureOf((page.seenBy('class', 'clock') as Mark & { recipe: string }).recipe)?.values.hour).toBe(
      3,
    );
    expect(await set({ minute: 3 })).toBe('not-allowed');
    expect(await set({ hour: 4, shows: 'digits' })).toBe('not-allowed');
    expect(await set(newFigure('lever').values, 'lever')).toBe('not-allowed');
    expect(figureSet(page.as('wren'), { ...clock, rule: {} }, {}).marks).toEqual([]);
  });
});

describe('the elements', () => {
  it('have the weights that are published (package chemical-elements, after IUPAC), to five digits', () => {
    expect(ELEMENTS).toHaveLength(118);
    for (const { z, symbol, mass, hasWeight } of ELEMENTS) {
      const other = published.find((one) => one.number === z)!;
      expect(other.symbol).toBe(symbol);
      if (hasWeight) expect(Math.abs(mass - other.mass!) / mass, symbol).toBeLessThan(8e-4);
    }
  });

  it('have groups and periods as the table of IUPAC has them', () => {
    const of = (symbol: string) => {
      const { group, period } = ELEMENTS.find((one) => one.symbol === symbol)!;
      return [group, period];
    };
    expect(['H', 'He', 'C', 'Fe', 'Zn', 'I', 'Lu', 'Hg', 'Lr', 'Og'].map(of)).toEqual([
      ...[
        [1, 1],
        [18, 1],
        [14, 2],
        [8, 4],
        [12, 4],
        [17, 5],
        [3, 6],
        [12, 6],
        [3, 7],
        [18, 7],
      ],
    ]);
    expect(['La', 'Yb', 'Ac', 'No'].map((symbol) => of(symbol)[0])).toEqual(Array(4).fill(undefined));
    for (let group = 3; group <= 12; group++)
      expect(ELEMENTS.filter((one) => one.group === group).map(({ period }) => period)).toEqual([4, 5, 6, 7]);
  });

  // Ground states as textbooks and the NIST Atomic Spectra Database have them.
  it.each([
    ['Cr', 24, 0, '3d5 4s1'],
    ['Cu', 29, 0, '3d10 4s1'],
    ['Fe', 26, 0, '3d6 4s2'],
    ['Fe2+', 26, 2, '3d6'],
    ['Cu2+', 29, 2, '3d9'],
    ['Pd', 46, 0, '4d10'],
    ['Au', 79, 0, '5d10 6s1'],
    ['U', 92, 0, '5f3 6d1 7s2'],
    ['Cl−', 17, -1, '3p6'],
    ['Na+', 11, 1, '2p6'],
  ])('%s ends with %s', (_name, z, charge, ends) => {
    const shells = configurationOf(z, charge);
    for (const part of ends.split(' '))
      expect(shells.get(part.slice(0, 2)), part).toBe(Number(part.slice(2)));
    const sum = [...shells.values()].reduce((all, count) => all + count, 0);
    expect(sum).toBe(z - charge);
  });

  it('have shells as textbooks have them', () => {
    expect([11, 17, 26, 36, 92, 118].map((z) => shellsOf(z).join(' '))).toEqual([
      '2 8 1',
      '2 8 7',
      '2 8 14 2',
      '2 8 18 8',
      '2 8 18 32 21 9 2',
      '2 8 18 32 32 18 8',
    ]);
    for (const { z } of ELEMENTS) expect(shellsOf(z).reduce((sum, count) => sum + count, 0)).toBe(z);
  });
});

describe('an equation', () => {
  // Equations with their numbers as textbooks print them (from memory).
  it.each([
    ['C3H8 + O2 -> CO2 + H2O', [1, 5, 3, 4]],
    ['Fe2O3 + CO -> Fe + CO2', [1, 3, 2, 3]],
    ['KMnO4 + HCl -> KCl + MnCl2 + H2O + Cl2', [2, 16, 2, 2, 8, 5]],
    ['Ca3(PO4)2 + SiO2 + C -> CaSiO3 + CO + P4', [2, 6, 10, 6, 10, 1]],
    ['K4Fe(CN)6 + H2SO4 + H2O -> K2SO4 + FeSO4 + (NH4)2SO4 + CO', [1, 6, 6, 2, 1, 3, 6]],
    ['2H2 + O2 = H2O', [2, 1, 2]],
    ['CuSO4·5H2O -> CuSO4 + H2O', [1, 1, 5]],
  ])('%s', (text, counts) => {
    const { left, right } = balanced(text);
    expect([...left, ...right].map(({ count }) => count)).toEqual(counts);
    const sum = (side: typeof left) => {
      const all = new Map<string, number>();
      for (const { formula, count } of side)
        for (const [symbol, atoms] of atomsOf(formula))
          all.set(symbol, (all.get(symbol) ?? 0) + atoms * count);
      return [...all].sort();
    };
    expect(sum(left)).toEqual(sum(right));
  });

  it.each(['H2 + O2 -> NaCl', 'H2O', 'H2 + -> H2O', 'h2 + O2 -> H2O', 'C + O2 + H2 -> CO2 + H2O + C + O2'])(
    'that cannot be balanced is refused: %s',
    (text) => {
      expect(() => balanced(text)).toThrow(FigureError);
    },
  );
});

describe('worked examples', () => {
  it('of lenses and mirrors: 1/f = 1/g + 1/b', () => {
    // OpenStax, "University Physics" 3, §2.4: f = 10 cm; objects at 30, 5 cm; a diverging one of −10 cm at 10 cm.
    expect(imageOf(10, 30)).toEqual({
      distance: expect.closeTo(15) as number,
      size: expect.closeTo(-0.5) as number,
    });
    expect(imageOf(10, 5)).toEqual({
      distance: expect.closeTo(-10) as number,
      size: expect.closeTo(2) as number,
    });
    expect(imageOf(-10, 10)).toEqual({
      distance: expect.closeTo(-5) as number,
      size: expect.closeTo(0.5) as number,
    });
    expect(imageOf(10, 10)).toBeUndefined();
  });

  it('of notes in equal temperament (ISO 16: A4 is 440 Hz)', () => {
    const hertz = pitchesOf('A4 C4 C5 F#4 Gb4 A3').map((note) => Math.round(note.hertz * 100) / 100);
    expect(hertz).toEqual([440, 261.63, 523.25, 369.99, 369.99, 220]);
    expect(pitchesOf('H3:2')[0]!.beats).toBe(2);
  });

  it('of pitches: length and width by the rules of the games, metres', () => {
    const sizes = Object.fromEntries(
      Object.entries(PITCHES).map(([name, { length, width }]) => [name, [length, width]]),
    );
    expect(sizes).toEqual({
      football: [105, 68],
      handball: [40, 20],
      basketball: [28, 15],
      volleyball: [18, 9],
      tennis: [23.77, 10.97],
      hockey: [91.4, 55],
      badminton: [13.4, 6.1],
    });
  });
});
