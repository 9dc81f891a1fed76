import type { Mark, MarkOf } from '@doodla/core';
import { isChart, isMark, markBounds } from '@doodla/core';
import { DataError, readData } from '@doodla/core/charts';
import { recipeOf } from '@doodla/core/plots';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formulaFonts } from '../../core/test/helpers/formulaFonts';
import './helpers/withStorage';
import './helpers/speakEnglish';
import { changeChart, chartFormOf, chartProblem, keptChart, newChart } from '../src/desk/charts';
import { changePlot, newPlot, plotProblem } from '../src/desk/plots';
import { tableMarks } from '../src/desk/plotTable';
import {
  formOf,
  keptForm,
  lettersFor,
  newCurve,
  newForm,
  pointsIn,
  recipeIn,
} from '../src/plotting/plotForm';
import { middleBeside } from '../src/plotting/placeBeside';
import { moved, zoomed } from '../src/plotting/plotWindow';
import { TestDesk } from './helpers/testDesk';

const DRAWING = { width: 480, height: 360, parts: [{ line: [0, 0, 480, 360], colour: '#0072b2', width: 2, dash: 0 }] }; // prettier-ignore
const said = (attempt: () => unknown): string => {
  try {
    attempt();
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

describe('the form of a graph', () => {
  it('is the graph again that was made of it', () => {
    const form = { ...newForm('y=x^2'), points: '1; 2\n3; 4.5' };
    const recipe = recipeIn(form);
    expect(recipe.points).toEqual([1, 2, 3, 4.5]);
    expect(formOf(JSON.stringify(recipe))).toEqual(form);
    expect(formOf('x')).toBeUndefined();
    // Half typed it comes back as it was left.
    const half = { ...newForm(), points: '1; ' };
    expect(keptForm(JSON.stringify(half))).toEqual(half);
    for (const text of [undefined, 'x', '{}', JSON.stringify({ ...half, points: 1 })])
      expect(keptForm(text)).toBeUndefined();
  });

  it('leaves out curves in which nothing is typed, and says where there is nothing at all', () => {
    const form = newForm();
    expect(said(() => recipeIn(form))).toContain('at least one curve');
    const two = { ...form, curves: [...form.curves, newCurve(form.curves, 'y=x')] };
    expect(recipeIn(two).curves.map(({ tex }) => tex)).toEqual(['y=x']);
    const turned = { ...two, window: { ...two.window, x: { from: 3, to: 3 } } };
    expect(said(() => recipeIn(turned))).toContain('has to be larger');
  });

  it('gives each curve a look of its own', () => {
    const curves = [0, 1, 2, 3, 4].reduce<ReturnType<typeof newCurve>[]>(
      (all) => [...all, newCurve(all)],
      [],
    );
    expect(new Set(curves.map(({ colour }) => colour)).size).toBe(5);
    expect(curves.slice(0, 3).map(({ dash }) => dash)).toEqual(['solid', 'dashed', 'dotted']);
  });

  it('reads points as they are typed and as they are pasted from a table', () => {
    const pairs = [1.5, -2, 3, 4];
    for (const text of [
      '1.5; -2\n3; 4',
      '1,5; −2\n3;4',
      '(1.5, -2)\n\n(3, 4)',
      '1.5\t-2\n3\t4',
      '1.5 -2\n3,4',
    ])
      expect(pointsIn(text)).toEqual(pairs);
    expect(said(() => pointsIn('1; 2\nthree; 4'))).toContain('Line 2');
    expect(said(() => pointsIn('1; 2; 3'))).toContain('Line 1');
    expect(said(() => pointsIn('1; 1\n'.repeat(201)))).toContain('At most 200');
  });

  it('has a value for each letter, and keeps those that were set', () => {
    const curves = [newCurve([], 'y=ax^2+b'), newCurve([], 'y=\\frac{'), newCurve([], '')];
    expect(lettersFor({ curves, letters: { a: 3, z: 9 } })).toEqual({ a: 3, b: 1 });
  });
});

describe('what is in sight', () => {
  const window = { x: { from: -6, to: 6 }, y: { from: -4.5, to: 4.5 } };

  it('is moved by what a hand drags, and stays as large', () => {
    expect(moved(window, 0.5, -0.25)).toEqual({ x: { from: 0, to: 12 }, y: { from: -6.75, to: 2.25 } });
  });

  it('is zoomed about the place that is pointed at, which stays where it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (factor, part) => {
          const { x } = zoomed(window, factor, part, 0.5);
          expect(x.to - x.from).toBeCloseTo(12 * factor, 2);
          expect(x.from + (x.to - x.from) * part).toBeCloseTo(-6 + 12 * part, 2);
        },
      ),
    );
  });
});

describe('what is made of a formula', () => {
  const room = { x: 0, y: 0, width: 800, height: 600 };
  const size = { width: 300, height: 200 };

  it('lies right of it, else under it, and within the page', () => {
    expect(middleBeside(size, { x: 100, y: 50, width: 100, height: 40 }, room)).toEqual({ x: 374, y: 150 });
    expect(middleBeside(size, { x: 100, y: 550, width: 100, height: 40 }, room)).toEqual({ x: 374, y: 500 });
    expect(middleBeside(size, { x: 450, y: 50, width: 100, height: 40 }, room)).toEqual({ x: 600, y: 214 });
    expect(middleBeside(size, { x: 600, y: 50, width: 100, height: 40 }, room)).toEqual({ x: 650, y: 214 });
  });

  it('has no place of its own where there is no room', () => {
    expect(middleBeside(size, { x: 600, y: 450, width: 100, height: 40 }, room)).toBeUndefined();
    expect(
      middleBeside({ width: 900, height: 700 }, { x: 0, y: 0, width: 10, height: 10 }, room),
    ).toBeUndefined();
  });
});

describe('a graph', () => {
  it('is a mark with its curves in words, and is changed in one step', () => {
    const desk = new TestDesk([]);
    const plot = newPlot(desk, recipeIn(newForm('y=x^2')), DRAWING)!;
    expect(isMark({ ...plot, id: 'plot' })).toBe(true);
    expect(plot.alt).toBe('Graph of y equals x squared');
    const on = new TestDesk([plot]);
    expect(changePlot(on, plot, recipeIn(newForm('y=x')), DRAWING)).toBe(true);
    expect(on.done).toHaveLength(1);
    const changed = on.mark(plot.id) as MarkOf<'plot'>;
    expect(recipeOf(changed.recipe)!.curves[0]!.tex).toBe('y=x');
    expect(markBounds(changed)).toEqual(markBounds(plot));
  });

  it('says what keeps it from being drawn', async () => {
    const { statementOf } = await import('@doodla/core/plots');
    const problem = (tex: string) => {
      try {
        return statementOf(tex).is;
      } catch (error) {
        return plotProblem(error);
      }
    };
    expect(problem('x^2+y^2=1')).toContain('alone on one side');
    expect(problem('1<y<2')).toContain('one sign');
    expect(problem('y=\\frac{1}{')).toContain('cannot be read');
  });
});

describe('a table of values', () => {
  const rows = [
    { x: '1', y: '2' },
    { x: '2', y: '\\frac{1}{2}' },
  ];
  const head = { x: 'x', y: 'y' };
  const table = (cells: 'covered' | 'empty' | 'shown') =>
    tableMarks(new TestDesk([]), head, rows, cells, formulaFonts);
  const of = <K extends Mark['kind']>(marks: readonly Mark[], kind: K) =>
    marks.filter((mark): mark is MarkOf<K> => mark.kind === kind);

  it('is lines and formulas of one group, each in its cell', async () => {
    const marks = await table('shown');
    expect(marks.every(isMark)).toBe(true);
    expect(new Set(marks.map(({ group }) => group)).size).toBe(1);
    expect(of(marks, 'formula').map(({ tex }) => tex)).toEqual(['x', 'y', '1', '2', '2', '\\frac{1}{2}']);
    const levels = of(marks, 'path')
      .filter(({ points }) => points[1] === points[3])
      .map(({ points }) => points[1]!);
    expect(levels).toHaveLength(4);
    of(marks, 'formula').forEach((mark, i) => {
      const { y, height } = markBounds(mark);
      const row = Math.floor(i / 2);
      expect(y).toBeGreaterThan(levels[row]!);
      expect(y + height).toBeLessThan(levels[row + 1]!);
    });
  });

  it('has patches over its values, or leaves them to be filled in', async () => {
    const covered = await table('covered');
    const patches = of(covered, 'patch');
    expect(patches).toHaveLength(2);
    const values = of(covered, 'formula').filter((_, i) => i > 2 && i % 2 === 1);
    values.forEach((value, i) => {
      const [inner, outer] = [markBounds(value), markBounds(patches[i]!)];
      expect(inner.x).toBeGreaterThan(outer.x);
      expect(inner.y + inner.height).toBeLessThan(outer.y + outer.height);
    });
    expect(of(await table('empty'), 'formula').map(({ tex }) => tex)).toEqual(['x', 'y', '1', '2']);
  });
});

describe('a chart', () => {
  const made = (data: string) => ({
    recipe: { chart: 'bars' as const, ...readData(data), comma: false },
    drawing: DRAWING,
  });

  it('is a mark that says all its numbers, and its form is the table again', () => {
    const data = '; Rain; Snow\nJan; 12; 3\nFeb; 15.5; ';
    const chart = newChart(new TestDesk([]), made(data))!;
    expect(isMark({ ...chart, id: 'chart' })).toBe(true);
    expect(isChart(chart)).toBe(true);
    expect(chart.alt).toBe('Bars of Rain: Jan 12, Feb 15.5; Snow: Jan 3, Feb –');
    expect(chartFormOf(chart.recipe)).toEqual({ chart: 'bars', data });
    expect(chartFormOf(JSON.stringify(made('3\n4').recipe))!.data).toBe('3\n4');
    expect(keptChart(JSON.stringify({ chart: 'pie', data: '1; ' }))).toEqual({ chart: 'pie', data: '1; ' });
    for (const text of [undefined, '{"chart":"cake","data":""}', '{"chart":"pie"}'])
      expect(keptChart(text)).toBeUndefined();
    const desk = new TestDesk([chart]);
    expect(changeChart(desk, chart, made('5'))).toBe(true);
    expect((desk.mark(chart.id) as MarkOf<'plot'>).alt).toBe('Bars of 1 5');
    expect(isChart({ recipe: JSON.stringify(recipeIn(newForm('y=x'))) })).toBe(false);
  });

  it('says what is wrong with its table, and what to do', () => {
    expect(chartProblem(new DataError('number', { line: 3, text: 'two' }))).toContain(
      'Line 3: two is no number',
    );
    expect(chartProblem(new DataError('negative'))).toContain('Take bars');
    expect(chartProblem(new DataError('rows'))).toContain('At most 60');
  });
});
