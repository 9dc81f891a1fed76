import fc from 'fast-check';
import { median as otherMedian } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { polygonArea } from '../src/geometry/polygon';
import type { ChartKind } from '../src/charts/chartRecipe';
import { CHART_KINDS, chartOf, readData } from '../src/charts/chartRecipe';
import { drawChart } from '../src/charts/drawChart';
import { classesOf, fiveNumbers, median } from '../src/charts/statistics';
import { boundsOfFlat } from '../src/geometry/path';
import { isMark } from '../src/marks/check';
import { formulaFonts } from './helpers/formulaFonts';
import { common } from './helpers/marks';

const TABLE = 'Month;Rain;Snow\nJan;12;30\nFeb;15,5;22\nMärz;31;8\nApr;40;0';
const recipe = (chart: ChartKind, text = TABLE) => ({ chart, ...readData(text), comma: false });
const drawn = (chart: ChartKind, text = TABLE) => drawChart(recipe(chart, text), 480, 360, formulaFonts);
const faultOf = (text: string) => {
  try {
    return readData(text);
  } catch (error) {
    const { fault, detail } = error as { fault: string; detail: object };
    return { fault, ...detail };
  }
};

describe('numbers of a list', () => {
  it('are those of the textbook', () => {
    // The example that is usually worked out for the quartiles of Moore and McCabe (from memory).
    expect(fiveNumbers([6, 7, 15, 36, 39, 40, 41, 42, 43, 47, 49])).toEqual({ least: 6, lower: 15, median: 40, upper: 43, most: 49 }); // prettier-ignore
    expect(fiveNumbers([7, 15, 36, 39, 40, 41])).toEqual({ least: 7, lower: 15, median: 37.5, upper: 40, most: 41 }); // prettier-ignore
    expect(fiveNumbers([4])).toEqual({ least: 4, lower: 4, median: 4, upper: 4, most: 4 });
  });

  it('have the median of another package, whatever they are', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -99, max: 99 }), { minLength: 1, maxLength: 30 }), (values) => {
        expect(median(values)).toBe(Number(otherMedian(values)));
        const { least, lower, upper, most } = fiveNumbers(values);
        expect(least <= lower && lower <= median(values) && median(values) <= upper && upper <= most).toBe(
          true,
        );
      }),
    );
  });

  it('are each in one class, and in the right one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -400, max: 400 }), { minLength: 1, maxLength: 60 }),
        (tenths) => {
          const values = tenths.map((value) => value / 10);
          const { from, width, counts } = classesOf(values);
          expect(counts.reduce((sum, count) => sum + count, 0)).toBe(values.length);
          counts.forEach((count, i) => {
            const [low, high] = [from + i * width, from + (i + 1) * width];
            const isLast = i === counts.length - 1;
            const inside = values.filter(
              (v) => v > low - 1e-7 && (isLast ? v < high + 1e-7 : v < high - 1e-7),
            );
            expect(count).toBe(inside.length);
          });
        },
      ),
    );
    // Sturges: eight values make four classes.
    expect(classesOf([0, 1, 2, 3, 4, 5, 6, 8])).toEqual({ from: 0, width: 2, counts: [2, 2, 2, 2] });
  });
});

describe('a table of data', () => {
  it('is read with names of rows and columns, or without', () => {
    expect(readData(TABLE)).toEqual({
      labels: ['Jan', 'Feb', 'März', 'Apr'],
      series: [{ name: 'Rain', values: [12, 15.5, 31, 40] }, { name: 'Snow', values: [30, 22, 8, 0] }], // prettier-ignore
    });
    expect(readData('3\n4\n\n5')).toEqual({
      labels: ['1', '2', '3'],
      series: [{ name: '', values: [3, 4, 5] }],
    });
    expect(readData('a\t1\nb\t')).toEqual({ labels: ['a', 'b'], series: [{ name: '', values: [1, null] }] });
    expect(readData('a,1\nb,−2.5').series[0]!.values).toEqual([1, -2.5]);
  });

  it('that cannot be read says where', () => {
    expect(faultOf(' \n')).toEqual({ fault: 'empty' });
    expect(faultOf('a;1\nb;two')).toEqual({ fault: 'number', line: 2, text: 'two' });
    expect(faultOf('1\n'.repeat(61))).toEqual({ fault: 'rows' });
    expect(faultOf('1;2;3;4;5;6;7\n1;2;3;4;5;6;7')).toEqual({ fault: 'series' });
    expect(faultOf(`${'long '.repeat(10)};1`)).toMatchObject({ fault: 'name' });
  });

  it('has to suit its chart', async () => {
    await expect(drawn('pie', 'a;1\nb;-1')).rejects.toMatchObject({ fault: 'negative' });
    await expect(drawn('points', '1\n2')).rejects.toMatchObject({ fault: 'places' });
    await expect(drawn('bars', 'a;\nb;')).rejects.toMatchObject({ fault: 'empty' });
  });
});

describe('a chart', () => {
  it.each(CHART_KINDS)('of the kind %s is a mark that may be sent, within its box', async (chart) => {
    const text = chart === 'points' ? 'x;y\n1;2\n2;3.5\n4;1' : TABLE;
    const drawing = await drawn(chart, text);
    const mark = { ...common(), kind: 'plot', x: 0, y: 0, width: 480, height: 360, rotation: 0, recipe: JSON.stringify(recipe(chart, text)), drawing, style: { opacity: 1 } }; // prettier-ignore
    expect(isMark(mark)).toBe(true);
    const flat = drawing.parts.flatMap((part) => ('line' in part ? [part.line] : part.rings)).flat();
    const { x, y, width, height } = boundsOfFlat(flat, 2);
    expect(Math.min(x, y)).toBeGreaterThanOrEqual(-1);
    expect(x + width).toBeLessThanOrEqual(481);
    expect(y + height).toBeLessThanOrEqual(361);
    expect(chartOf(mark.recipe)).toEqual(recipe(chart, text));
  });

  const filled = async (chart: ChartKind, colour: string) =>
    (await drawn(chart)).parts.flatMap((part) =>
      'rings' in part && part.colour === colour ? part.rings : [],
    );

  it('has bars as high as their values', async () => {
    // The first is the sample of the legend.
    const heights = (await filled('bars', '#0072b2')).map((ring) => boundsOfFlat(ring, 2).height).sort((a, b) => a - b); // prettier-ignore
    const bars = heights.slice(-4);
    [12, 15.5, 31, 40].forEach((value, i) => expect(bars[i]! / bars[3]!).toBeCloseTo(value / 40, 2));
  });

  it('has sectors as large as their parts', async () => {
    const area = async (colour: string) =>
      Math.max(
        ...(await filled('pie', colour)).map((ring) => {
          const corners = Array.from({ length: ring.length / 4 + 0.5 }, (_, i) => [ring[4 * i]!, ring[4 * i + 1]!] as const); // prettier-ignore
          return Math.abs(polygonArea(corners));
        }),
      );
    const [jan, feb] = [await area('#0072b2'), await area('#c14f00')];
    expect(jan / feb).toBeCloseTo(12 / 15.5, 2);
  });

  it('is nothing where somebody else has sent anything', () => {
    for (const text of ['', '{}', JSON.stringify({ ...recipe('bars'), chart: 'cake' })])
      expect(chartOf(text)).toBeUndefined();
  });
});
