import type { Table } from './profiles.js';

/** Shifts at which two tables overlap by less than this part say nothing. */
const LEAST_OVERLAP = 0.22;
/** A peak that is so much lower than the highest is not worth a look. */
const WORTH = 0.45;

/** A shift along an axis, rows of the table, and how well it fits, up to 1. */
export interface Peak {
  shift: number;
  score: number;
}

/** Part of a table, its columns about their means. Rows and columns beyond it are left out. */
export function centred(
  { rows, columns, values }: Table,
  from = 0,
  to = rows,
  first = 0,
  last = columns,
): Table {
  const [height, width] = [
    Math.max(0, Math.min(rows, to) - from),
    Math.max(0, Math.min(columns, last) - first),
  ];
  const part = new Float64Array(height * width);
  for (let column = 0; column < width; column++) {
    let mean = 0;
    for (let row = 0; row < height; row++) mean += values[(row + from) * columns + first + column]! / height;
    for (let row = 0; row < height; row++)
      part[row * width + column] = values[(row + from) * columns + first + column]! - mean;
  }
  return { rows: height, columns: width, values: part };
}

/**
 * The shifts at which `a` fits `b` best, best first: normalised correlation at each shift, its peaks to a part of a
 * row.
 */
export function bestShifts(a: Table, b: Table, count: number): Peak[] {
  const least = Math.max(1, Math.floor(LEAST_OVERLAP * Math.min(a.rows, b.rows)));
  const first = least - a.rows;
  const scores = new Float64Array(Math.max(0, b.rows - least - first + 1));
  const [energyA, energyB] = [energies(a), energies(b)];
  const width = a.columns;
  for (let shift = first; shift <= b.rows - least; shift++) {
    const from = Math.max(0, shift);
    const to = Math.min(b.rows, a.rows + shift);
    const energy = (energyA[to - shift]! - energyA[from - shift]!) * (energyB[to]! - energyB[from]!);
    if (energy <= 0) continue;
    const product = dot(a.values, (from - shift) * width, b.values, from * width, (to - from) * width);
    const overlap = (to - from) / Math.min(a.rows, b.rows);
    scores[shift - first] = (product / Math.sqrt(energy)) * Math.sqrt(Math.min(1, overlap));
  }
  return peaks(scores, first, count);
}

function dot(p: Float64Array, i: number, q: Float64Array, j: number, length: number): number {
  let [s0, s1, s2, s3] = [0, 0, 0, 0];
  const end = i + length - 3;
  for (; i < end; i += 4, j += 4) {
    s0 += p[i]! * q[j]!;
    s1 += p[i + 1]! * q[j + 1]!;
    s2 += p[i + 2]! * q[j + 2]!;
    s3 += p[i + 3]! * q[j + 3]!;
  }
  for (; i < end + 3; i++, j++) s0 += p[i]! * q[j]!;
  return s0 + s1 + s2 + s3;
}

/** Sums of squares of all rows before each. */
function energies({ rows, columns, values }: Table): Float64Array {
  const sums = new Float64Array(rows + 1);
  for (let row = 0; row < rows; row++) {
    let sum = sums[row]!;
    for (let at = row * columns; at < (row + 1) * columns; at++) sum += values[at]! * values[at]!;
    sums[row + 1] = sum;
  }
  return sums;
}

function peaks(scores: Float64Array, first: number, count: number): Peak[] {
  const found: Peak[] = [];
  for (let i = 0; i < scores.length; i++) {
    const score = scores[i]!;
    if (score <= 0 || score < (scores[i - 1] ?? 0) || score <= (scores[i + 1] ?? 0)) continue;
    found.push({ shift: first + vertex(scores, i), score });
  }
  found.sort((a, b) => b.score - a.score);
  return found.slice(0, count).filter(({ score }) => score >= WORTH * found[0]!.score);
}

/** Where the parabola through a highest score and its neighbours has its vertex. */
function vertex(scores: Float64Array, i: number): number {
  const [left, top, right] = [scores[i - 1] ?? 0, scores[i]!, scores[i + 1] ?? 0];
  const bend = left - 2 * top + right;
  return bend < 0 ? i + (0.5 * (left - right)) / bend : i;
}
