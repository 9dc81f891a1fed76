import type { Check } from '../checks/fields.js';
import { each, isNumberIn, oneOf, orNull, shaped, textUpTo } from '../marks/fields.js';

export const CHART_KINDS = ['bars', 'line', 'points', 'pie', 'histogram', 'box'] as const;
export type ChartKind = (typeof CHART_KINDS)[number];

export interface Series {
  name: string;
  /** By row; null where there is no value. */
  values: readonly (number | null)[];
}

/** What a chart is made of. */
export interface ChartRecipe {
  chart: ChartKind;
  /** What the rows are called. */
  labels: readonly string[];
  series: readonly Series[];
  /** Whether a comma parts decimals. */
  comma: boolean;
}

export const MOST_CHART = { rows: 60, series: 6, name: 40 };
const FARTHEST = 1e12;

const isName = textUpTo(MOST_CHART.name);
const isNumber: Check = (value) => isNumberIn(value, -FARTHEST, FARTHEST);
const isRecipe = shaped({
  chart: oneOf(CHART_KINDS),
  labels: each(isName, MOST_CHART.rows),
  series: each(shaped({ name: isName, values: each(orNull(isNumber), MOST_CHART.rows) }), MOST_CHART.series),
  comma: (value) => typeof value === 'boolean',
});

/** What a chart was made of, from its mark; undefined where that is none. */
export function chartOf(text: string): ChartRecipe | undefined {
  try {
    const read: unknown = JSON.parse(text);
    return isRecipe(read) ? (read as ChartRecipe) : undefined;
  } catch {
    // No JSON is no recipe.
    return undefined;
  }
}

/** What is wrong with a table of data: nothing is in it, a cell is no number, there is too much, or it does not suit its chart. */
export type DataFault = 'empty' | 'number' | 'rows' | 'series' | 'negative' | 'places' | 'name';

export class DataError extends Error {
  constructor(
    readonly fault: DataFault,
    /** The line, from 1, or what stands there. */
    readonly detail: { line?: number; text?: string } = {},
  ) {
    super(`data: ${fault}`);
    this.name = 'DataError';
  }
}

/**
 * A table as it is typed or pasted: cells parted by tabs or semicolons, else by commas; a first line without numbers names the
 * columns, a first column without numbers the rows. Throws a `DataError`.
 */
export function readData(text: string): Pick<ChartRecipe, 'labels' | 'series'> {
  const lines = text.split(/\r?\n/).map((line, i) => ({ line: i + 1, cells: cellsOf(line, text) })).filter(({ cells }) => cells.some((cell) => cell !== '')); // prettier-ignore
  if (lines.length === 0) throw new DataError('empty');
  const columns = Math.max(...lines.map(({ cells }) => cells.length));
  const isHead = lines.length > 1 && lines[0]!.cells.slice(columns > 1 ? 1 : 0).every((cell) => numberOf(cell) === undefined); // prettier-ignore
  const rows = isHead ? lines.slice(1) : lines;
  const hasNames =
    columns > 1 && rows.some(({ cells }) => cells[0] !== '' && numberOf(cells[0]!) === undefined);
  const first = hasNames ? 1 : 0;
  if (rows.length > MOST_CHART.rows) throw new DataError('rows');
  if (columns - first > MOST_CHART.series) throw new DataError('series');
  const series = Array.from({ length: columns - first }, (_, i): Series => {
    const values = rows.map(({ line, cells }) => valueIn(cells[i + first] ?? '', line));
    return { name: isHead ? named(lines[0]!.cells[i + first] ?? '') : '', values };
  });
  return { labels: rows.map(({ cells }, i) => (hasNames ? named(cells[0]!) : String(i + 1))), series };
}

function cellsOf(line: string, text: string): string[] {
  const sign = text.includes('\t') ? '\t' : text.includes(';') ? ';' : ',';
  return line.split(sign).map((cell) => cell.trim());
}

function valueIn(cell: string, line: number): number | null {
  if (cell === '') return null;
  const value = numberOf(cell);
  if (value === undefined) throw new DataError('number', { line, text: cell });
  return value;
}

function named(text: string): string {
  if (text.length > MOST_CHART.name) throw new DataError('name', { text });
  return text;
}

/** A number with a point or a comma; undefined where it is none. */
function numberOf(text: string): number | undefined {
  const value = Number(text.replace('−', '-').replace(',', '.'));
  return text === '' || !(Math.abs(value) <= FARTHEST) ? undefined : value;
}

/** All values of a series that there are. */
export const valuesOf = ({ values }: Series): number[] => values.filter((value) => value !== null);

/** Sees to it that a table suits its chart. Throws a `DataError`. */
export function suits({ chart, series }: ChartRecipe): void {
  if (series.flatMap(valuesOf).length === 0) throw new DataError('empty');
  if (chart === 'pie' && valuesOf(series[0]!).some((value) => value < 0)) throw new DataError('negative');
  if (chart === 'points' && series.length < 2) throw new DataError('places');
}
