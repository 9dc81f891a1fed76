import type { ChartConfiguration, ChartDataset, ChartItem, Plugin } from 'chart.js';
import {
  ArcElement,
  BarController,
  BarElement,
  BasicPlatform,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PieController,
  PointElement,
  ScatterController,
} from 'chart.js';
import type { FormulaFonts } from '../formulas/fonts.js';
import type { Drawing } from '../marks/plot/plotMark.js';
import type { ChartRecipe, Series } from './chartRecipe.js';
import { suits, valuesOf } from './chartRecipe.js';
import { measureBy, outlinesOf } from './outlines.js';
import { Recorder } from './recorder.js';
import { classesOf, fiveNumbers } from './statistics.js';

Chart.register(ArcElement, BarController, BarElement, CategoryScale, Legend, LinearScale, LineController, LineElement, PieController, PointElement, ScatterController); // prettier-ignore

/** Apart for colour-blind viewers (Okabe and Ito 2008, darkened to be seen on paper). */
const COLOURS = ['#0072b2', '#c14f00', '#007a5e', '#9b4f80', '#8a6d00', '#33413d'];
const INK = '#33413d';
const GRID = '#cfd6d4';
const POINT_STYLES = ['circle', 'rect', 'triangle', 'rectRot', 'crossRot', 'star'] as const;

/**
 * A chart of a table as lines and outlines, in a box of a size in page units: Chart.js draws it on a recorder. Throws a `DataError`,
 * a `FormulaError` where a sign is in no font, and what the source of fonts throws.
 */
export async function drawChart(
  recipe: ChartRecipe,
  width: number,
  height: number,
  fonts: FormulaFonts,
): Promise<Drawing> {
  suits(recipe);
  const measure = await measureBy(fonts);
  const recorder = new Recorder(width, height, measure);
  const size = Math.min(22, Math.max(10, Math.min(width, height) / 22));
  const item = recorder.canvas as unknown as ChartItem;
  const chart = new Chart(item, { ...configOf(recipe, size), platform: BasicPlatform });
  // It is drawn once, at its end: what came before of it is dropped.
  recorder.clearRect();
  chart.draw();
  const parts = [...recorder.parts, ...(await outlinesOf(recorder.texts, fonts))];
  chart.destroy();
  return { width, height, parts };
}

type Config = Pick<ChartConfiguration, 'data' | 'options' | 'plugins' | 'type'>;

/** Charts whose rows or columns have names that are said beside them. */
const HAS_LEGEND: Readonly<Record<ChartRecipe['chart'], boolean>> = {
  bars: true,
  line: true,
  points: true,
  pie: true,
  histogram: false,
  box: false,
};

function configOf(recipe: ChartRecipe, size: number): Config {
  const { type, labels, datasets, plugins = [] } = dataOf(recipe, size);
  const { chart, series, comma } = recipe;
  const isNamed = chart === 'pie' || series.some(({ name }) => name !== '');
  const font = { size, family: 'serif' };
  const legend = {
    display: HAS_LEGEND[chart] && isNamed,
    labels: {
      ...{ color: INK, font, boxWidth: size * 1.6, boxHeight: size * 0.8 },
      usePointStyle: chart === 'line' || chart === 'points',
    },
  };
  const config = {
    type,
    data: { labels: [...labels], datasets },
    plugins,
    options: {
      animation: false,
      responsive: false,
      devicePixelRatio: 1,
      events: [],
      layout: { padding: size / 2 },
      plugins: { legend },
      ...(chart !== 'pie' && { scales: scalesOf(chart, comma, font) }),
    },
  };
  // Its types tell kinds of charts apart that are known only here.
  return config as Config;
}

function scalesOf(chart: ChartRecipe['chart'], comma: boolean, font: { size: number; family: string }) {
  const ticks = { color: INK, font };
  const numbers = { ...ticks, callback: (value: number | string) => said(Number(value), comma) };
  const axis = { grid: { color: GRID, lineWidth: 1 }, border: { color: INK, width: 1.6 } };
  return {
    x: chart === 'points' ? { type: 'linear', ticks: numbers, ...axis } : { ticks, ...axis },
    y: {
      beginAtZero: chart !== 'points' && chart !== 'box',
      ticks: { ...numbers, ...(chart === 'histogram' && { precision: 0 }) },
      ...axis,
    },
  };
}

interface ChartParts {
  type: ChartConfiguration['type'];
  labels: readonly string[];
  datasets: ChartDataset[];
  plugins?: Plugin[];
}

function dataOf(recipe: ChartRecipe, size: number): ChartParts {
  const { chart, labels, series } = recipe;
  const colour = (i: number) => COLOURS[i % COLOURS.length]!;
  const bars = (i: number) => ({ backgroundColor: colour(i), borderWidth: 0 });
  const dots = (i: number) => ({ backgroundColor: colour(i), borderColor: colour(i), pointStyle: POINT_STYLES[i % POINT_STYLES.length], pointRadius: size / 3, pointBorderWidth: 1 }); // prettier-ignore
  switch (chart) {
    case 'bars':
      return { type: 'bar', labels, datasets: series.map(({ name, values }, i) => ({ label: name, data: [...values], ...bars(i) })) }; // prettier-ignore
    case 'line':
      // With segments of their own lines are drawn point by point; otherwise a browser keeps them where no recorder sees them.
      return { type: 'line', labels, datasets: series.map(({ name, values }, i) => ({ label: name, data: [...values], borderWidth: 2.6, borderDash: i % 2 ? [8, 8] : [], segment: {}, ...dots(i) })) }; // prettier-ignore
    case 'points': {
      const [first, ...others] = series as [Series, ...Series[]];
      return { type: 'scatter', labels: [], datasets: others.map(({ name, values }, i) => ({ label: name, data: placesOf(first, values), ...dots(i) })) }; // prettier-ignore
    }
    case 'pie':
      return { type: 'pie', labels: labels.map((label, i) => `${label}: ${said(series[0]!.values[i] ?? 0, recipe.comma)}`), datasets: [{ data: series[0]!.values.map((value) => value ?? 0), backgroundColor: labels.map((_, i) => colour(i)), borderColor: '#ffffff', borderWidth: 2 }] }; // prettier-ignore
    case 'histogram': {
      const { from, width, counts } = classesOf(series.flatMap(valuesOf));
      const edge = (i: number) => said(Number((from + i * width).toPrecision(10)), recipe.comma);
      const names = counts.map((_, i) => `${edge(i)} – ${edge(i + 1)}`);
      return { type: 'bar', labels: names, datasets: [{ label: series[0]!.name, data: [...counts], ...bars(0), barPercentage: 1, categoryPercentage: 0.985 }] }; // prettier-ignore
    }
    case 'box':
      return boxes(series, colour);
  }
}

function placesOf(first: Series, values: Series['values']): { x: number; y: number }[] {
  return values.flatMap((y, i) => {
    const x = first.values[i];
    return typeof x === 'number' && y !== null ? [{ x, y }] : [];
  });
}

/** Boxes from the lower to the upper quartile, with a line at the median and whiskers to the least and the most. */
function boxes(series: readonly Series[], colour: (i: number) => string): ChartParts {
  const numbers = series.map((each) => fiveNumbers(valuesOf(each)));
  const boxed = numbers.map(({ lower, upper }): [number, number] => [lower, upper]);
  const whiskers: Plugin = {
    id: 'whiskers',
    afterDatasetsDraw({ ctx, scales: { x, y } }) {
      numbers.forEach(({ least, lower, median, upper, most }, i) => {
        const [middle, half] = [x!.getPixelForValue(i), x!.width / series.length / 5];
        const line = (ax: number, ay: number, bx: number, by: number, width: number) => {
          ctx.beginPath();
          ctx.lineWidth = width;
          ctx.strokeStyle = INK;
          ctx.moveTo(ax, y!.getPixelForValue(ay));
          ctx.lineTo(bx, y!.getPixelForValue(by));
          ctx.stroke();
        };
        line(middle, least, middle, lower, 2);
        line(middle, upper, middle, most, 2);
        for (const end of [least, most]) line(middle - half / 2, end, middle + half / 2, end, 2);
        line(middle - half, median, middle + half, median, 3);
        for (const edge of [lower, upper]) line(middle - half, edge, middle + half, edge, 2);
        for (const side of [middle - half, middle + half]) line(side, lower, side, upper, 2);
      });
    },
  };
  const data = {
    label: '',
    data: boxed,
    backgroundColor: numbers.map((_, i) => `${colour(i)}66`),
    borderWidth: 0,
    barPercentage: 1,
    categoryPercentage: 0.4,
  };
  // The axis has to hold the whiskers too.
  const unseen = (value: (five: (typeof numbers)[number]) => number) => ({ type: 'line' as const, label: '', data: numbers.map(value), showLine: false, pointRadius: 0, borderWidth: 0 }); // prettier-ignore
  return {
    type: 'bar',
    labels: series.map(({ name }, i) => name || String(i + 1)),
    datasets: [data, unseen(({ least }) => least), unseen(({ most }) => most)] as ChartDataset[],
    plugins: [whiskers],
  };
}

const said = (value: number, comma: boolean): string => {
  const text = String(Number(value.toPrecision(10)));
  return comma ? text.replace('.', ',') : text;
};
