import type { Accepted } from '../marks/answerRule.js';

/** Words so long may have one slip in them, and two; shorter ones have to be right. Common practice, no source. */
const SLIPS = [
  { from: 9, slips: 2 },
  { from: 5, slips: 1 },
];

/** Whether anything may be written, as on a blank card. */
export const isFree = (accepted: Accepted): boolean =>
  accepted.as === 'words' && accepted.answers.length === 0;

/** Whether what somebody has filled in is right. Case, spaces and the form of quotation marks do not count. */
export function isAccepted(accepted: Accepted, typed: string): boolean {
  if (accepted.as === 'number') return isNumberAccepted(accepted, typed);
  const words = plain(typed);
  return accepted.answers.some((answer) => {
    const right = plain(answer);
    const slips = accepted.typos ? (SLIPS.find(({ from }) => right.length >= from)?.slips ?? 0) : 0;
    return words === right || (slips > 0 && slipsBetween(words, right, slips) <= slips);
  });
}

function isNumberAccepted({ value, within, unit }: Accepted & { as: 'number' }, typed: string): boolean {
  const read = readQuantity(typed);
  if (!read || plain(read.unit) !== plain(unit)) return false;
  // What is exactly as far off as it may be is right, whatever binary fractions say.
  return Math.abs(read.value - value) <= within + 1e-9 * Math.max(1, Math.abs(value));
}

/**
 * A number with its unit as somebody types it: with a comma or a point for decimals, spaces or the other of the two between
 * thousands, and a power of ten. Undefined where it is none.
 */
export function readQuantity(typed: string): { value: number; unit: string } | undefined {
  const found =
    /^([+\-−]?)([\d.,\s\u00a0\u202f'’]*\d)(?:\s*(?:e|[x×·*]\s*10\s*\^)\s*([+\-−]?\d+))?\s*(\D.*)?$/i.exec(
      typed.trim(),
    );
  if (!found) return undefined;
  const [, sign, digits, power, unit] = found;
  const decimal = decimalOf(digits!);
  if (decimal === undefined) return undefined;
  const exponent = power === undefined ? '' : `e${power.replace('−', '-')}`;
  const value = Number(`${decimal}${exponent}`) * (sign === '' || sign === '+' ? 1 : -1);
  return Number.isFinite(value) ? { value, unit: (unit ?? '').trim() } : undefined;
}

/** Digits as JavaScript reads them: of commas and points the last is that of the decimals, unless there are several of it. */
function decimalOf(digits: string): string | undefined {
  const text = digits.replace(/[\s\u00a0\u202f'’]/g, '');
  const marks = [...text].filter((sign) => sign === ',' || sign === '.');
  const last = marks.at(-1);
  if (last === undefined) return text;
  const many = marks.filter((sign) => sign === last).length > 1;
  if (many) return new Set(marks).size === 1 && isGrouped(text, last) ? text.replaceAll(last, '') : undefined;
  const other = last === ',' ? '.' : ',';
  const [whole, part] = text.split(last);
  if (whole!.includes(other) && !isGrouped(whole!, other)) return undefined;
  return `${whole!.replaceAll(other, '') || '0'}.${part}`;
}

/** Whether digits are in threes, but for the first. */
function isGrouped(text: string, sign: string): boolean {
  const [first, ...others] = text.split(sign);
  return first!.length > 0 && first!.length <= 3 && others.every((three) => three.length === 3);
}

function plain(text: string): string {
  return text
    .normalize('NFC')
    .replace(/[\u2018\u2019\u201b\u2032`´]/g, "'")
    .replace(/[\u201c-\u201f\u00ab\u00bb]/g, '"')
    .replace(/[\u2010-\u2015−]/g, '-')
    .replace(/\s+/g, ' ')
    .trim()
    .toLocaleLowerCase('und');
}

/**
 * How many letters have to be put in, taken out, changed or swapped with their neighbour to make one word of another; more
 * than `most` are not told apart. Optimal string alignment (Damerau, CACM 7, 1964; Wagner and Fischer, JACM 21, 1974).
 */
export function slipsBetween(a: string, b: string, most = Infinity): number {
  const [from, to] = [[...a], [...b]];
  if (Math.abs(from.length - to.length) > most) return Infinity;
  let before: number[] = [];
  let last = Array.from({ length: to.length + 1 }, (_, j) => j);
  for (let i = 1; i <= from.length; i++) {
    const row = [i];
    for (let j = 1; j <= to.length; j++) {
      const other = from[i - 1] === to[j - 1] ? 0 : 1;
      row[j] = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + other);
      const isSwapped = i > 1 && j > 1 && from[i - 1] === to[j - 2] && from[i - 2] === to[j - 1];
      if (isSwapped) row[j] = Math.min(row[j]!, before[j - 2]! + 1);
    }
    [before, last] = [last, row];
  }
  return last.at(-1)!;
}
