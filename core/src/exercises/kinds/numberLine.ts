import type { Making } from '../making.js';
import { checkCount, likeItem, MOVES, taking } from '../making.js';
import type { Paper } from '../paper.js';
import { cellsOf, under } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readItems } from '../rows.js';
import { mixedUp } from '../seeded.js';

const MOST = 12;
/** Largest number that goes onto a line, and what is left of one by so much is the smallest. */
const LARGEST = 1e6;
/** So many steps a line has at most. */
const MOST_STEPS = 12;

/** Numbers that go onto a line where they belong. At the hardest the line does not show where that is. */
export function numberLine({ paper, room, text, level, chance }: Making): void {
  const items = readItems(text);
  checkCount(items.length, 1, MOST);
  const values = items.map(valueOf);
  const { from, to, step } = rangeOf(values);
  const [above, below] = under(room, 0.66, paper.size);
  const width = above.width - 4 * paper.size;
  const left = above.x + 2 * paper.size;
  const y = above.y + above.height * 0.72;
  const at = (value: number) => left + (width * (value - from)) / (to - from);
  line(paper, { at, y, from, to, step });
  const ids = items.map(() => paper.newId());
  const box = { width: Math.min(paper.size * 3.6, width / 7), height: paper.size * 2 };
  if (level === 'hard') {
    // Whoever lays a number beside its place is wrong.
    const all = { x: above.x, y: y - box.height * 1.6, width: above.width, height: box.height * 1.6 };
    paper.place(all, taking([], level), { look: { line: null }, alt: '—' });
  }
  const rows = rowsOf(values.map(at), box.width + paper.size * 0.3);
  for (const [i, value] of values.entries()) {
    const things = likeItem(values.map(String), i).map((one) => ids[one]!);
    const x = at(value);
    if (level === 'hard') {
      const near = Math.min(box.width, (width * step) / (to - from) / 2);
      paper.place(
        { x: x - near / 2, y: y - box.height * 1.4, width: near, height: box.height * 1.4 },
        taking(things, level),
        { look: { line: null }, alt: '—' },
      );
      continue;
    }
    const top = y - paper.size * 1.2 - (rows[i]! + 1) * (box.height + paper.size * 0.3);
    paper.path([x, y, x, top + box.height]);
    paper.place({ x: x - box.width / 2, y: top, ...box }, taking(things, level), { alt: String(i + 1) });
  }
  const cells = cellsOf(below, Math.min(items.length, 6), Math.ceil(items.length / 6), paper.size * 0.5);
  for (const [i, one] of mixedUp([...items.keys()], chance).entries())
    paper.card(
      items[one]!,
      { ...cells[i]!, width: box.width * 0.9, height: Math.min(cells[i]!.height, box.height * 0.9) },
      { id: ids[one]!, rule: MOVES },
    );
}

interface Line {
  at(value: number): number;
  y: number;
  from: number;
  to: number;
  step: number;
}

function line(paper: Paper, { at, y, from, to, step }: Line): void {
  const tick = paper.size * 0.5;
  paper.path([at(from) - paper.size, y, at(to) + paper.size, y], { heads: 'end' });
  const steps = Math.round((to - from) / step);
  for (let i = 0; i <= steps; i++) {
    const value = from + i * step;
    const x = at(value);
    paper.path([x, y - tick, x, y + tick]);
    const width = paper.size * 4;
    paper.words(
      say(value, step),
      { x: x - width / 2, y: y + tick, width, height: paper.size * 1.8 },
      { size: paper.size * 0.85 },
    );
  }
}

function say(value: number, step: number): string {
  const places = Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
  return value.toFixed(places).replace('-', '−');
}

/** A number, fraction, mixed number or percentage. Throws ExerciseProblem `no-number`. */
export function valueOf(text: string): number {
  const plain = text
    .trim()
    .replace('−', '-')
    .replace(/,/g, '.')
    .replace(/\s*\/\s*/, '/');
  const mixed = /^(-)?(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(plain);
  const percent = /^(-?[\d.]+)\s*%$/.exec(plain);
  const value = mixed
    ? (mixed[1] ? -1 : 1) * (Number(mixed[2] ?? 0) + Number(mixed[3]) / Number(mixed[4]))
    : percent
      ? Number(percent[1]) / 100
      : Number(plain === '' ? 'x' : plain);
  const size = Math.abs(value);
  if (!Number.isFinite(value) || size > LARGEST || (size > 0 && size < 1 / LARGEST))
    throw new ExerciseProblem('no-number', { text });
  return value;
}

/** The line that numbers are put onto: its steps are 1, 2 or 5 times a power of ten, and it begins and ends at one. */
export function rangeOf(values: readonly number[]): { from: number; to: number; step: number } {
  const [least, most] = [Math.min(0, ...values), Math.max(...values, Math.min(0, ...values))];
  const isFarOff =
    Math.min(...values) > 0 && Math.min(...values) > 2 * (Math.max(...values) - Math.min(...values));
  const low = isFarOff && values.length > 1 ? Math.min(...values) : least;
  const span = most - low || Math.abs(most) || 1;
  const power = 10 ** Math.floor(Math.log10(span / MOST_STEPS));
  const step = [1, 2, 5, 10].map((by) => by * power).find((one) => span / one <= MOST_STEPS)!;
  const from = Math.floor(low / step + 1e-9) * step;
  const to = Math.max(from + step, Math.ceil(most / step - 1e-9) * step);
  return { from, to, step };
}

/** In which row over the line each place is, so that none lies on another. */
function rowsOf(middles: readonly number[], width: number): number[] {
  const rows: number[] = [];
  const ends: number[] = [];
  for (const i of [...middles.keys()].sort((a, b) => middles[a]! - middles[b]!)) {
    const from = middles[i]! - width / 2;
    const free = ends.findIndex((end) => end <= from);
    const row = free < 0 ? ends.length : free;
    ends[row] = from + width;
    rows[i] = row;
  }
  return rows;
}
