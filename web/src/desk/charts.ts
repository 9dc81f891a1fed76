import type { Drawing, MarkOf } from '@doodla/core';
import type { ChartRecipe } from '@doodla/core/charts';
import { CHART_KINDS, chartOf, DataError, drawChart, MOST_CHART, readData } from '@doodla/core/charts';
import { language, t } from '../words';
import { formulaFonts, formulaProblem } from './formulas';
import type { PlotDesk } from './plots';
import { changeBox, newBox, PLOT_SIZE } from './plots';

type Plot = MarkOf<'plot'>;

/** What is chosen and typed for a chart. */
export interface ChartForm {
  chart: ChartRecipe['chart'];
  data: string;
}

/** A chart with what it is made of. */
export interface MadeChart {
  recipe: ChartRecipe;
  drawing: Drawing;
}

const MAX_ALT = 1000;

/** Draws what a form says. Throws what `chartProblem` says. */
export async function chartIn({ chart, data }: ChartForm): Promise<MadeChart> {
  const recipe = { chart, ...readData(data), comma: language() === 'de' || /\d,\d/.test(data) };
  return { recipe, drawing: await drawChart(recipe, PLOT_SIZE.width, PLOT_SIZE.height, formulaFonts) };
}

/** Puts a chart in the place of one, or makes a new one with its corner at 0, 0. */
export const newChart = (desk: PlotDesk, made: MadeChart): Plot | undefined => newBox(desk, lookOf(made));

export const changeChart = (desk: PlotDesk, mark: Plot, made: MadeChart): boolean =>
  changeBox(desk, mark, lookOf(made));

/** The form of a chart that is there; undefined where a mark is none. */
export function chartFormOf(recipe: string): ChartForm | undefined {
  const read = chartOf(recipe);
  if (!read) return undefined;
  const { chart, labels, series, comma } = read;
  const said = (value: number | null) =>
    value === null ? '' : comma ? String(value).replace('.', ',') : String(value);
  const isNumbered = labels.every((label, i) => label === String(i + 1));
  const head = series.some(({ name }) => name !== '')
    ? [[...(isNumbered ? [] : ['']), ...series.map(({ name }) => name)]]
    : [];
  const rows = labels.map((label, i) => [...(isNumbered ? [] : [label]), ...series.map(({ values }) => said(values[i] ?? null))]); // prettier-ignore
  return { chart, data: [...head, ...rows].map((cells) => cells.join('; ')).join('\n') };
}

/** A form as it was kept while it was typed; undefined where it is none. */
export function keptChart(text: string | undefined): ChartForm | undefined {
  try {
    const { chart, data } = JSON.parse(text ?? '') as ChartForm;
    return CHART_KINDS.includes(chart) && typeof data === 'string' ? { chart, data } : undefined;
  } catch {
    // Nothing was kept, or by another version.
    return undefined;
  }
}

function lookOf({ recipe, drawing }: MadeChart) {
  return { recipe: JSON.stringify(recipe), drawing, alt: inWords(recipe) };
}

/** A chart in words: its kind, and all that it says. */
function inWords({ chart, labels, series }: ChartRecipe): string {
  const what = series
    .map(({ name, values }) => {
      const all = values.map((value, i) => `${labels[i]} ${value ?? '–'}`).join(', ');
      return name === '' ? all : `${name}: ${all}`;
    })
    .join('; ');
  return t('charts.chartOf', { kind: t(`charts.${chart}`), what }).slice(0, MAX_ALT);
}

/** What keeps a chart from being drawn, as a sentence that says what to do. */
export function chartProblem(error: unknown): string {
  if (!(error instanceof DataError)) return formulaProblem(error);
  const { line = 0, text = '' } = error.detail;
  return {
    empty: t('charts.empty'),
    number: t('charts.number', { line, text }),
    rows: t('charts.rows', { most: MOST_CHART.rows }),
    series: t('charts.series', { most: MOST_CHART.series }),
    negative: t('charts.negative'),
    places: t('charts.places'),
    name: t('charts.name', { text, most: MOST_CHART.name }),
  }[error.fault];
}
