import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import type { LetterNet } from '../src/handwriting/index.js';
import { learnedSigns, readFormula } from '../src/formulaInk/index.js';
import { typeset } from '../src/formulas/index.js';
import { simplify } from '../src/ink/simplify.js';
import { seeded } from './hand/random.mjs';
import { saidBy } from './hand/saidBy.mjs';
import { schoolFormula } from './hand/schoolFormulas.mjs';
import { UNSEEN_FACES } from './hand/writing.mjs';
import { writtenFormula } from './hand/writtenFormula.mjs';
import { formulaFonts } from './helpers/formulaFonts.js';

let net: LetterNet;

beforeAll(async () => {
  net = await learnedSigns();
});

function written(tex: string, seed: number, face = 'HersheySans1'): Promise<number[][]> {
  return writtenFormula(tex, { face, size: 70, random: seeded(seed), fonts: formulaFonts });
}

describe('a written formula', () => {
  it.each([
    'x^2+5x-3=0',
    '\\frac{a+b}{2}=7',
    '\\frac{1}{2}+\\frac{2}{3}',
    '\\sqrt{x+1}<4',
    '\\sqrt[3]{27}=3',
    'a_{1}+a_{2}\\le 9',
    '\\alpha+\\beta=90',
    '2\\cdot(3+4)',
    '\\sin \\alpha=\\frac{a}{c}',
    '25\\%=\\frac{1}{4}',
    '12:4\\ne 2',
    'n\\pm 1',
  ])('is among the first three readings: %s', async (tex) => {
    const readings = readFormula(await written(tex, 12), net).slice(0, 3);
    expect(readings.map((reading) => saidBy(reading.tex))).toContain(saidBy(tex));
  });

  it('is mostly read exactly, in faces from which nothing was learned', async () => {
    let [first, three] = [0, 0];
    const count = 24;
    for (let seed = 0; seed < count; seed++) {
      const random = seeded(7000 + seed);
      const tex = schoolFormula(random);
      const options = { face: random.pick(UNSEEN_FACES), size: random.between(50, 90), random };
      const strokes = await writtenFormula(tex, { ...options, fonts: formulaFonts });
      const said = readFormula(strokes, net).map((reading) => saidBy(reading.tex));
      if (said[0] === saidBy(tex)) first += 1;
      if (said.slice(0, 3).includes(saidBy(tex))) three += 1;
    }
    expect(first / count).toBeGreaterThan(0.75);
    expect(three / count).toBeGreaterThan(0.87);
  });

  it('is the same however large it is, wherever it stands, and in whichever order its strokes came', async () => {
    const strokes = await written('\\frac{x^2}{3}+1', 5);
    const wanted = readFormula(strokes, net)[0]!.tex;
    const moved = strokes.map((points) => points.map((value, i) => (i % 4 < 2 ? value * 0.6 + 900 : value)));
    expect(readFormula(moved, net)[0]!.tex).toBe(wanted);
    expect(readFormula([...strokes].reverse(), net)[0]!.tex).toBe(wanted);
  });

  it('is the same with as few points as strokes are kept with', async () => {
    const strokes = await written('x+\\frac{1}{2}', 5);
    const kept = strokes.map((points) => simplify(points, 2));
    expect(kept.flat().length).toBeLessThan(0.6 * strokes.flat().length);
    expect(readFormula(kept, net)[0]!.tex).toBe(readFormula(strokes, net)[0]!.tex);
  });

  it('costs more the less likely it is, and no reading comes twice', async () => {
    const readings = readFormula(await written('6b+b6', 3), net);
    expect(readings.length).toBeGreaterThan(2);
    expect(new Set(readings.map(({ tex }) => tex)).size).toBe(readings.length);
    readings.slice(1).forEach(({ cost }, i) => expect(cost).toBeGreaterThanOrEqual(readings[i]!.cost));
  });

  it('is nothing where there is no ink', () => {
    expect(readFormula([], net)).toEqual([]);
  });

  it('can be typeset, whatever was scribbled', async () => {
    const place = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 200 }));
    const stroke = fc
      .array(place, { minLength: 1, maxLength: 8 })
      .map((points) => points.flatMap(([x, y], i) => [x, y, 0.5, i * 8]));
    await fc.assert(
      fc.asyncProperty(fc.array(stroke, { minLength: 1, maxLength: 7 }), async (strokes) => {
        for (const { tex } of readFormula(strokes, net)) await typeset(tex, formulaFonts);
      }),
      { numRuns: 40 },
    );
  });
});
