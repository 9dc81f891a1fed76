import Papa from 'papaparse';
import type { ClassTable, NameColumns } from './classTable.js';

/** Most rows of a class list that are read. */
const MOST_ROWS = 2000;
const MOST_COLUMNS = 60;

/** Thrown where a file is no table of text, or an empty one. */
export class UnreadableTable extends Error {
  override name = 'UnreadableTable';
}

// How school offices head their columns, in English and German: common practice, no source.
const FIRST = /^(first|given|fore|vor|ruf)[\s_-]?names?$/i;
const LAST = /^(last|family|sur|nach|familien)[\s_-]?names?$/i;
const WHOLE = /^((full|display|student'?s?)[\s_-]?)?names?$|^(students?|pupils?|schüler(in|innen)?)$/i;

/**
 * Reads a class list that a spreadsheet or a school office saved as CSV (RFC 4180, with any of the usual separators), in
 * UTF-8, UTF-16 with its mark, or else Windows-1252.
 *
 * @throws UnreadableTable where it is something else or has no rows.
 */
export function readClassTable(bytes: Uint8Array): ClassTable {
  const text = textOf(bytes);
  if (text.includes('\0')) throw new UnreadableTable('This is no table of text.');
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: MOST_ROWS + 1 });
  const rows = data.map((row) => row.slice(0, MOST_COLUMNS).map((cell) => cell.trim()));
  const [heading = []] = rows;
  const named = namedColumns(heading);
  const body = named ? rows.slice(1) : rows;
  if (body.length === 0) throw new UnreadableTable('This table is empty.');
  const width = Math.max(...rows.map((row) => row.length));
  const columns = Array.from({ length: width }, (_, i) => (named && heading[i]) || (body[0]![i] ?? ''));
  return { columns, rows: body, names: named ?? likelyColumns(body) };
}

function textOf(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Spreadsheets of western systems save CSV in their own letters.
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Where a heading says the names are; undefined where the row is no heading. */
function namedColumns(heading: readonly string[]): NameColumns | undefined {
  const columnOf = (words: RegExp) => {
    const found = heading.findIndex((cell) => words.test(cell));
    return found < 0 ? undefined : found;
  };
  const first = columnOf(FIRST);
  const whole = columnOf(WHOLE);
  // A column that is only called "name" beside one of first names holds the family names.
  const last = columnOf(LAST) ?? (first === undefined ? undefined : whole);
  if (first !== undefined || last !== undefined) return { first, last };
  return whole === undefined ? undefined : { first: whole };
}

/** Without a heading: the first two columns of words, the family name first as registers have it. */
function likelyColumns(rows: readonly (readonly string[])[]): NameColumns {
  const isOfWords = (column: number) =>
    rows.filter((row) => /^\p{L}[^\d@]+$/u.test(row[column] ?? '')).length > rows.length / 2;
  const [one, two] = Array.from(rows[0]!, (_, column) => column).filter(isOfWords);
  if (one === undefined) return { first: 0 };
  return two === undefined ? { first: one } : { first: two, last: one };
}
