import { glyphOf } from '../handwriting/features.js';
import type { LetterNet } from '../handwriting/letterNet.js';
import type { Element, ElementReading } from './elements.js';
import { elementOf } from './elements.js';
import type { Frame } from './frames.js';
import { partsIn, widestFrame } from './frames.js';
import type { Part } from './parts.js';
import { boxRound, middleY, partOf, usualSize } from './parts.js';
import type { RowReading } from './rows.js';
import { readRow } from './rows.js';
import { groupingsOf } from './signs.js';

/** A formula that ink may mean, as TeX; less cost is likelier. */
export interface FormulaReading {
  tex: string;
  cost: number;
}

/** So many readings of what is inside a fraction or root are followed. */
const INSIDE = 3;
const READINGS = 6;
/** Strokes that are kept have few points; to see what they touch there are so many to the usual size. */
const DENSE = 14;

/** A formula of more strokes is not read: it would take too long. */
export const MOST_STROKES = 200;

/** What formula strokes (`STRIDE` numbers a point) may be, the likeliest first; empty where there are none, or too many. */
export function readFormula(strokes: readonly (readonly number[])[], net: LetterNet): FormulaReading[] {
  const sparse = glyphOf(strokes)
    .filter(({ length }) => length > 0)
    .map(partOf);
  if (sparse.length === 0 || sparse.length > MOST_STROKES) return [];
  const usual = usualSize(sparse);
  const parts = sparse.map(({ line }) => partOf(filled(line, usual / DENSE)));
  return readRegion(parts, usual, net).map(({ tex, cost }) => ({ tex: tex.trim(), cost }));
}

/** What stands in one region of the paper: fractions and roots first, as wholes, then rows. */
function readRegion(parts: readonly Part[], around: number, net: LetterNet): RowReading[] {
  const usual = parts.length > 2 ? Math.min(around, 1.3 * usualSize(parts)) : around;
  let rest = parts;
  const wholes: Element[] = [];
  for (let frame = widestFrame(rest, usual); frame; frame = widestFrame(rest, usual)) {
    const taken = new Set(partsIn(frame));
    wholes.push(wholeOf(frame, usual, net));
    rest = rest.filter((part) => !taken.has(part));
  }
  const readings = groupingsOf(rest, usual, net).flatMap(({ signs, cost }) => {
    const own = signs.reduce((sum, { labels }) => sum + labels[0]!.cost, 0);
    const elements = [...signs.map((sign) => elementOf(sign, net)), ...wholes];
    // What a grouping costs beside its signs: how many there are.
    return readRow(elements, usual).map((reading) => ({ ...reading, cost: reading.cost + cost - own }));
  });
  return likeliest(readings, READINGS);
}

function likeliest(readings: readonly RowReading[], most: number): RowReading[] {
  const by = new Map<string, RowReading>();
  for (const reading of [...readings].sort((a, b) => a.cost - b.cost))
    if (!by.has(reading.tex)) by.set(reading.tex, reading);
  return [...by.values()].slice(0, most);
}

function wholeOf(frame: Frame, usual: number, net: LetterNet): Element {
  const box = boxRound(partsIn(frame).map((part) => part.box));
  const read = (parts: readonly Part[]) =>
    parts.length === 0 ? [{ tex: '', cost: 0 }] : likeliest(readRegion(parts, usual, net), INSIDE);
  if (frame.is === 'root') {
    const readings = pairs(read(frame.of), read(frame.degree)).map(([of, degree]): ElementReading => ({
      tex: `\\sqrt${degree.tex ? `[${degree.tex}]` : ''}{${of.tex}}`,
      cost: of.cost + degree.cost,
      stand: { is: 'tall' },
      role: 'whole',
    }));
    return { box: frame.sign.box, readings };
  }
  const readings = pairs(read(frame.over), read(frame.under)).map(([over, under]): ElementReading => ({
    tex: `\\frac{${over.tex}}{${under.tex}}`,
    cost: over.cost + under.cost,
    stand: { is: 'middle' },
    role: 'whole',
  }));
  // It stands by its bar.
  const y = middleY(frame.bar.box);
  return { box: { ...box, top: y - 1, height: 2 }, readings };
}

function pairs<T>(first: readonly T[], second: readonly T[]): (readonly [T, T])[] {
  return first.flatMap((a) => second.map((b) => [a, b] as const));
}

/** The same line with a place at least every `step`. */
function filled(line: readonly number[], step: number): number[] {
  const flat = [line[0]!, line[1]!];
  for (let i = 2; i < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!];
    const count = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / step));
    for (let k = 1; k <= count; k++) flat.push(ax + ((bx - ax) * k) / count, ay + ((by - ay) * k) / count);
  }
  return flat;
}
