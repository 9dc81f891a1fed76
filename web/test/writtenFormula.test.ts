import { boundsOf, markBounds } from '@doodla/core';
import type { MarkOf } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { aShape, aStroke } from '../../core/test/helpers/marks';
import { formulaFonts } from '../../core/test/helpers/formulaFonts';
import './helpers/withStorage';
import './helpers/speakEnglish';
import type { FormulaOffer } from '../src/desk/shapeOffer';
import type { FormulaReader } from '../src/desk/writtenFormula';
import { asInk, takeFormula, typesetInk } from '../src/desk/writtenFormula';
import { TestDesk } from './helpers/testDesk';

const style = { nature: 'pen', colour: '#0072b2', width: 4, opacity: 1 } as const;
const ink = [
  aStroke({ id: 'a', space: 'table:2', style, points: [100, 100, 0.5, 0, 160, 180, 0.5, 20] }),
  aStroke({ id: 'b', points: [160, 100, 0.5, 0, 100, 180, 0.5, 20] }),
];
const reads: FormulaReader = () => Promise.resolve([{ tex: 'x^2' }, { tex: '\\times ' }]);
const offerOf = (desk: TestDesk) => desk.shapeOffer.get() as FormulaOffer;
const marksOn = (desk: TestDesk) => [...desk.target.state.marks.values()];

describe('a written formula that is typeset', () => {
  it('takes the place, size and colour of its ink in one step, with what else it may be', async () => {
    const desk = new TestDesk([...ink, aShape({ id: 'other' })]);
    const made = await typesetInk(desk, marksOn(desk), reads, formulaFonts);
    expect(desk.done).toHaveLength(1);
    const mark = desk.mark(made!) as MarkOf<'formula'>;
    expect(mark).toMatchObject({ kind: 'formula', tex: 'x^2', alt: 'x squared', space: 'table:2' });
    expect(mark.style.colour).toBe('#0072b2');
    const [was, is] = [boundsOf(ink)!, markBounds(mark)];
    expect(is.x + is.width / 2).toBeCloseTo(was.x + was.width / 2, 0);
    expect(is.y + is.height / 2).toBeCloseTo(was.y + was.height / 2, 0);
    expect(Math.max(is.width / was.width, is.height / was.height)).toBeCloseTo(1, 1);
    expect(offerOf(desk)).toMatchObject({ now: 0, ink });
    expect(marksOn(desk)).toHaveLength(2);
  });

  it('gives way to another reading, and to the ink', async () => {
    const desk = new TestDesk(ink);
    await typesetInk(desk, ink, reads, formulaFonts);
    const made = takeFormula(desk, offerOf(desk), 1);
    expect(marksOn(desk)).toMatchObject([{ id: made, tex: '\\times ' }]);
    expect(offerOf(desk).now).toBe(1);
    asInk(desk, offerOf(desk));
    expect(ink.map(({ id }) => desk.mark(id))).toEqual(ink);
    expect(marksOn(desk)).toHaveLength(2);
    expect(desk.shapeOffer.get()).toBeUndefined();
  });

  it('leaves the ink where nothing is read, nothing may be changed or nothing can be fetched, and says so', async () => {
    const desk = new TestDesk(ink);
    await typesetInk(desk, ink, () => Promise.resolve([]), formulaFonts);
    await typesetInk(desk, ink, () => Promise.reject(new Error('no worker')), formulaFonts);
    await typesetInk(desk, [aShape({ id: 'other' })], reads, formulaFonts);
    expect(desk.problems).toHaveLength(3);
    expect(desk.problems[0]).toContain('No formula could be read');
    expect(desk.problems[1]).toContain('Nothing is lost');
    expect(desk.problems[2]).toContain('Write a formula first');
    desk.refuses = true;
    expect(await typesetInk(desk, ink, reads, formulaFonts)).toBeUndefined();
    expect(desk.shapeOffer.get()).toBeUndefined();
    expect(marksOn(desk)).toEqual(ink);
  });

  it('leaves out a reading that cannot be typeset, and is not made of more ink than a formula has', async () => {
    const desk = new TestDesk(ink);
    const odd: FormulaReader = () => Promise.resolve([{ tex: '\\text{щ}' }, { tex: 'x' }]);
    await typesetInk(desk, ink, odd, formulaFonts);
    expect(offerOf(desk).formulas.map(({ tex }) => tex)).toEqual(['x']);
    const page = Array.from({ length: 201 }, (_, i) => aStroke({ id: `s${i}` }));
    const full = new TestDesk(page);
    await typesetInk(full, page, reads, formulaFonts);
    expect(full.problems).toEqual([expect.stringContaining('200 strokes')]);
    expect(full.done).toEqual([]);
  });

  it('is not put where the ink was wiped away meanwhile', async () => {
    const desk = new TestDesk([ink[0]!]);
    expect(await typesetInk(desk, ink, reads, formulaFonts)).toBeUndefined();
    expect(desk.done).toEqual([]);
  });
});
