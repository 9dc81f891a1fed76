import Papa from 'papaparse';
import { ExerciseProblem } from './problem.js';

/** Longest list that is read, letters. */
export const MOST_LETTERS = 20_000;
/** Longest text of one item, letters. */
export const MOST_OF_ITEM = 300;

/**
 * The rows of a typed or pasted list, a line each, and their cells: parted by tabs or semicolons as spreadsheets have them
 * (RFC 4180, with quotation marks), else by the first `=` and then by `|`.
 *
 * @throws ExerciseProblem `too-long`.
 */
export function readRows(text: string): string[][] {
  const lines = text.slice(0, MOST_LETTERS).split(/\r?\n/);
  const isMostly = (sign: string) => 2 * lines.filter((line) => line.includes(sign)).length > filled(lines);
  const delimiter = ['\t', ';'].find(isMostly);
  const rows = delimiter ? tableOf(text.slice(0, MOST_LETTERS), delimiter) : lines.map(cellsOf);
  const kept = rows
    .map((row) => row.map((cell) => cell.trim()))
    .filter((row) => row.some((cell) => cell !== ''));
  const long = kept.flat().find((cell) => cell.length > MOST_OF_ITEM);
  if (long !== undefined) throw new ExerciseProblem('too-long', { text: `${long.slice(0, 40)} …` });
  return kept;
}

/** One item to a row: what stands first in it. Throws ExerciseProblem `too-long`. */
export function readItems(text: string): string[] {
  return readRows(text).map((row) => row.find((cell) => cell !== '')!);
}

const filled = (lines: readonly string[]) => lines.filter((line) => line.trim() !== '').length;

const tableOf = (text: string, delimiter: string): string[][] =>
  Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' }).data;

function cellsOf(line: string): string[] {
  const at = line.indexOf('=');
  if (at < 0) return [line];
  return [line.slice(0, at), ...line.slice(at + 1).split('|')];
}

/** A file that a spreadsheet saved (RFC 4180), as a list that can be typed on. Cells are parted by tabs. */
export function listOfTable(text: string): string {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  return data.map((row) => row.map((cell) => cell.replace(/\s+/g, ' ').trim()).join('\t')).join('\n');
}

/** Groups of a list: `name: one, another`, or a row for each with its name in front. */
export function readGroups(text: string): { name: string; items: string[] }[] {
  const groups = new Map<string, string[]>();
  for (const line of readRows(text)) {
    const [head = '', ...rest] = line;
    const named = rest.length === 0 ? /^([^:]+):(.*)$/.exec(head) : null;
    const name = (named?.[1] ?? head).trim();
    const items = named ? named[2]!.split(',') : rest;
    const kept = items.map((item) => item.trim()).filter((item) => item !== '');
    groups.set(name, [...(groups.get(name) ?? []), ...kept]);
  }
  return [...groups].map(([name, items]) => ({ name, items }));
}
