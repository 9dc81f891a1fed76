import { FigureError } from './figure.js';
import { ELEMENTS } from './elements.js';

const SYMBOLS: ReadonlySet<string> = new Set(ELEMENTS.map(({ symbol }) => symbol));
const MOST_PARTS = 12;

/** A side of an equation each: formulas, and how often each is there. */
export interface Balanced {
  left: { count: number; formula: string }[];
  right: { count: number; formula: string }[];
}

/** Atoms of a formula such as Ca(OH)2 or CuSO4·5H2O. Throws FigureError `formula`. */
export function atomsOf(formula: string): Map<string, number> {
  const atoms = new Map<string, number>();
  for (const part of formula.split(/[·*]/)) {
    const [, times = '', rest = ''] = /^(\d*)(.+)$/.exec(part) ?? [];
    addGroup(rest, times === '' ? 1 : Number(times), atoms, formula);
  }
  if (atoms.size === 0) throw new FigureError('formula', formula);
  return atoms;
}

function addGroup(text: string, times: number, atoms: Map<string, number>, whole: string): void {
  const parts = text.match(/\([^()]*(?:\([^()]*\)[^()]*)*\)\d*|[A-Z][a-z]?\d*/g) ?? [];
  if (text === '' || parts.join('') !== text) throw new FigureError('formula', whole);
  for (const part of parts) {
    const group = /^\((.*)\)(\d*)$/.exec(part);
    const count = times * Number((group ? group[2] : part.replace(/^[A-Za-z]+/, '')) || 1);
    if (group) addGroup(group[1]!, count, atoms, whole);
    else {
      const symbol = part.replace(/\d+$/, '');
      if (!SYMBOLS.has(symbol)) throw new FigureError('formula', whole);
      atoms.set(symbol, (atoms.get(symbol) ?? 0) + count);
    }
  }
}

/**
 * An equation such as "H2 + O2 -> H2O" with the smallest whole numbers by which all atoms stay: the null space of the matrix of
 * atoms, by Gauss's elimination over whole numbers. Numbers that were typed do not count. Throws FigureError `formula`, or
 * `unbalanced` where no numbers or several sets of them do.
 */
export function balanced(text: string): Balanced {
  const sides = text
    .split(/->|→|=/)
    .map((side) => side.split('+').map((part) => part.trim().replace(/^\d+\s*(?=[A-Z(])/, '')));
  const [left, right] = sides;
  if (sides.length !== 2 || !left || !right) throw new FigureError('formula', text);
  const formulas = [...left, ...right];
  if (formulas.length > MOST_PARTS) throw new FigureError('formula', text);
  const atoms = formulas.map(atomsOf);
  const elements = [...new Set(atoms.flatMap((one) => [...one.keys()]))];
  const matrix = elements.map((symbol) =>
    atoms.map((one, i) => BigInt((one.get(symbol) ?? 0) * (i < left.length ? 1 : -1))),
  );
  const counts = nullVector(matrix, formulas.length);
  if (!counts) throw new FigureError('unbalanced', text);
  const counted = formulas.map((formula, i) => ({ formula, count: counts[i]! }));
  return { left: counted.slice(0, left.length), right: counted.slice(left.length) };
}

/** The one direction, in smallest positive whole numbers, that a matrix makes nothing of; undefined where there is not just one. */
function nullVector(rows: bigint[][], columns: number): number[] | undefined {
  const pivots: number[] = [];
  let at = 0;
  for (let column = 0; column < columns && at < rows.length; column++) {
    const found = rows.findIndex((row, i) => i >= at && row[column] !== 0n);
    if (found < 0) continue;
    [rows[at], rows[found]] = [rows[found]!, rows[at]!];
    const pivot = rows[at]!;
    for (const [i, row] of rows.entries()) {
      const factor = row[column]!;
      if (i === at || factor === 0n) continue;
      rows[i] = reduced(row.map((value, k) => value * pivot[column]! - factor * pivot[k]!));
    }
    pivots.push(column);
    at += 1;
  }
  const free = Array.from({ length: columns }, (_, i) => i).filter((column) => !pivots.includes(column));
  if (free.length !== 1) return undefined;
  const [last] = free;
  const lead = pivots.map((column, i) => rows[i]![column]!);
  const all = lead.reduce((product, value) => product * value, 1n);
  const solution = Array.from({ length: columns }, (_, column) => {
    const i = pivots.indexOf(column);
    return i < 0 ? all : (-rows[i]![last!]! * all) / lead[i]!;
  });
  const small = reduced(solution);
  const signed = small.some((value) => value < 0n) ? small.map((value) => -value) : small;
  return signed.every((value) => value > 0n) ? signed.map(Number) : undefined;
}

/** The same with no factor in common. */
function reduced(values: bigint[]): bigint[] {
  const common = values.reduce((a, b) => gcd(a, b), 0n);
  return common > 1n ? values.map((value) => value / common) : values;
}

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y > 0n) [x, y] = [y, x % y];
  return x;
}
