import { isSameName, namesOfLines } from '../people/classList.js';

/** A class list as a table: what its columns are called, and a row for each student. */
export interface ClassTable {
  columns: readonly string[];
  rows: readonly (readonly string[])[];
  /** The columns that seem to hold the names. */
  names: NameColumns;
}

/** Where the names are; a column that is left out is not there. Whole names are in `first`. */
export interface NameColumns {
  first?: number | undefined;
  last?: number | undefined;
}

/** The names in these columns, as a class list has them. */
export function namesOfTable({ rows }: ClassTable, { first, last }: NameColumns): string[] {
  const cell = (row: readonly string[], column: number | undefined) =>
    column === undefined ? '' : (row[column] ?? '');
  return namesOfLines(
    rows.map((row) =>
      last === undefined ? cell(row, first) : `${cell(row, first)} ${cell(row, last)}`.replace(/,/g, ' '),
    ),
  );
}

/** A class list with those names after its own that it does not have. */
export function withNames(list: readonly string[], more: readonly string[]): string[] {
  const isNew = (name: string) => !list.some((own) => isSameName(own, name));
  return [...list, ...more.filter(isNew)];
}
