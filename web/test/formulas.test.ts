import type { MarkOf } from '@doodla/core';
import { isMark, markBounds } from '@doodla/core';
import { FormulaFonts } from '@doodla/core/formulas';
import { describe, expect, it } from 'vitest';
import { formulaFonts } from '../../core/test/helpers/formulaFonts';
import './helpers/withStorage';
import './helpers/speakEnglish';
import { changeFormula, formulaProblem, newFormula } from '../src/desk/formulas';
import { workOutBelow } from '../src/desk/workOut';
import { TestDesk } from './helpers/testDesk';

type Formula = MarkOf<'formula'>;

async function withFormula(tex: string, y = 100): Promise<[TestDesk, Formula]> {
  const made = (await newFormula(new TestDesk([]), tex, formulaFonts))!;
  const mark = { ...made, outlines: made.outlines.map(({ rings, colour }) => ({ colour, rings: rings.map((ring) => ring.map((value) => value + y)) })) }; // prettier-ignore
  return [new TestDesk([mark]), mark];
}

const problemOf = (attempt: Promise<unknown>) =>
  attempt.then(
    () => undefined,
    (error: unknown) => formulaProblem(error),
  );

describe('formulas', () => {
  it('are marks in the size and colour of texts, with their words for those who cannot see them', async () => {
    const desk = new TestDesk([]);
    desk.penCase.patch({ text: { ...desk.penCase.get().text, colour: '#0072b2', size: 56 } });
    const mark = (await newFormula(desk, 'x^2', formulaFonts))!;
    expect(isMark({ ...mark, id: 'formula' })).toBe(true);
    expect(mark).toMatchObject({ tex: 'x^2', alt: 'x squared', style: { colour: '#0072b2', opacity: 1 } });
    const small = (await newFormula(new TestDesk([]), 'x^2', formulaFonts))!;
    expect(markBounds(mark).height / markBounds(small).height).toBeCloseTo(2, 1);
  });

  it('are changed in one step, where they are', async () => {
    const [desk, mark] = await withFormula('x+1');
    await changeFormula(desk, mark, 'x+2', formulaFonts);
    expect(desk.done).toHaveLength(1);
    const changed = desk.mark(mark.id) as Formula;
    expect(changed).toMatchObject({ tex: 'x+2', alt: 'x plus 2' });
    expect(markBounds(changed).x).toBeCloseTo(markBounds(mark).x, 1);
  });

  it('say what is wrong with them and what to do, and leave the page as it is', async () => {
    const [desk, mark] = await withFormula('x+1');
    expect(await problemOf(changeFormula(desk, mark, '\\frac{1}{', formulaFonts))).toContain(
      'cannot be read',
    );
    expect(await problemOf(changeFormula(desk, mark, '\\,', formulaFonts))).toContain('Type one first');
    expect(await problemOf(newFormula(desk, '\\text{щ}', formulaFonts))).toContain('The sign щ');
    expect(await problemOf(newFormula(desk, 'x'.repeat(1200), formulaFonts))).toContain('600');
    const without = new FormulaFonts(() => Promise.reject(new TypeError('no connection')));
    expect(await problemOf(newFormula(desk, 'x', without))).toContain('Nothing is lost');
    expect(await problemOf(workOutBelow(desk, mark, 'steps', formulaFonts))).toContain('x is a letter');
    expect(desk.done).toEqual([]);
    expect(desk.mark(mark.id)).toEqual(mark);
  });

  it('that are calculations get their steps below them, in one step and one group', async () => {
    const [desk, mark] = await withFormula('2\\cdot(3+4)');
    await workOutBelow(desk, mark, 'steps', formulaFonts);
    expect(desk.done).toHaveLength(1);
    const lines = desk.added as Formula[];
    expect(lines.map(({ tex }) => tex)).toEqual(['=2\\cdot 7', '=14']);
    expect(lines[1]!.alt).toBe('equals 14');
    expect(new Set(lines.map(({ group }) => group)).size).toBe(1);
    const boxes = [mark, ...lines].map(markBounds);
    boxes.slice(1).forEach((box, i) => {
      expect(box.x).toBeCloseTo(boxes[0]!.x, 1);
      expect(box.y).toBeGreaterThan(boxes[i]!.y + boxes[i]!.height);
      expect(box.height).toBeLessThan(boxes[0]!.height * 1.2);
    });
  });

  it('get only their result, or each step under a patch', async () => {
    const [desk, mark] = await withFormula('2\\cdot(3+4)');
    await workOutBelow(desk, mark, 'result', formulaFonts);
    expect(desk.added).toMatchObject([{ tex: '=14' }]);
    const [covered, calculation] = await withFormula('2\\cdot(3+4)');
    await workOutBelow(covered, calculation, 'covered', formulaFonts);
    const kinds = covered.added.map(({ kind }) => kind);
    expect(kinds).toEqual(['formula', 'formula', 'patch', 'patch']);
    const [first, , patch] = covered.added.map(markBounds);
    expect(patch!.x).toBeLessThan(first!.x);
    expect(patch!.y + patch!.height).toBeGreaterThan(first!.y + first!.height);
    expect(covered.added.every(isMark)).toBe(true);
  });

  it('are not changed where that is not taken, which is told to the field', async () => {
    const [desk, mark] = await withFormula('x+1');
    expect(await changeFormula(desk, mark, 'x+2', formulaFonts)).toBe(true);
    desk.refuses = true;
    expect(await changeFormula(desk, mark, 'x+3', formulaFonts)).toBe(false);
  });

  it('do not get more steps than a message has room for', async () => {
    const tex = Array.from({ length: 80 }, () => '888888').join('+');
    const [desk, mark] = await withFormula(tex);
    expect(await problemOf(workOutBelow(desk, mark, 'steps', formulaFonts))).toContain('the result alone');
    await workOutBelow(desk, mark, 'result', formulaFonts);
    expect(desk.added).toMatchObject([{ tex: '=71111040' }]);
  });

  it('go on beside the calculation where there is no room below it', async () => {
    const [desk, mark] = await withFormula('1+2+3+4+5', 520);
    await workOutBelow(desk, mark, 'steps', formulaFonts);
    for (const line of desk.added.map(markBounds)) expect(line.y + line.height).toBeLessThan(600);
    expect(markBounds(desk.added.at(-1)!).x).toBeGreaterThan(markBounds(mark).x + markBounds(mark).width);
  });
});
