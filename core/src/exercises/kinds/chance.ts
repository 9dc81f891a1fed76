import type { Rect } from '../../geometry/rect.js';
import type { Making } from '../making.js';
import { checkCount } from '../making.js';
import type { Paper } from '../paper.js';
import { beside, BOARD, cellsOf, columnsFor, fitted, inset, under } from '../paper.js';
import { readItems } from '../rows.js';

const MOST_NAMES = 60;
const MOST_SECTORS = 24;
const MOST_DICE = 5;
const MOST_TEAMS = 8;

/** Grounds of sectors, light enough for black words: the Okabe–Ito set (Color Universal Design, 2008) mixed with white. */
const GROUNDS = ['#f5cf8a', '#abdaf4', '#80cfb9', '#f8f1a1', '#80b8d8', '#eaaf80', '#e5bcd3', '#e4e0d3'];

/** A wheel whose hand points to one of its parts, by chance. */
export function spinner({ paper, room, text, words }: Making): void {
  const items = readItems(text);
  checkCount(items.length, 2, MOST_SECTORS);
  const side = Math.min(room.width, room.height);
  const radius = side / 2;
  const [cx, cy] = [room.x + room.width / 2, room.y + radius];
  const at = (turn: number, part: number): [number, number] => {
    const angle = 2 * Math.PI * turn - Math.PI / 2;
    return [cx + radius * part * Math.cos(angle), cy + radius * part * Math.sin(angle)];
  };
  for (const [i, item] of items.entries()) {
    const [from, to] = [i / items.length, (i + 1) / items.length];
    const rim = Array.from({ length: 17 }, (_, k) => at(from + ((to - from) * k) / 16, 1)).flat();
    paper.path([cx, cy, ...rim], { closed: true, fill: groundOf(i, items.length) }, { alt: item });
    const [x, y] = at((from + to) / 2, 0.68);
    const width = Math.min(radius * 0.55, 2 * Math.PI * 0.68 * radius * (to - from) * 0.9 + radius * 0.12);
    const height = Math.min(radius * 0.4, width);
    paper.item(item, { x: x - width / 2, y: y - height / 2, width, height });
  }
  const hands = items.map((item, i) => {
    const [x, y] = at((i + 0.5) / items.length, 0.42);
    return paper.path(
      [cx, cy, x, y],
      { heads: 'end', width: paper.size / 3, line: BOARD },
      { hidden: true, alt: item },
    );
  });
  const hub = radius * 0.34;
  button(
    paper,
    words.spin,
    { x: cx - hub / 2, y: cy - hub / 2, width: hub, height: hub },
    hands.map((id) => [id]),
    true,
  );
}

/** Neighbours differ, the last and the first as well. */
function groundOf(at: number, count: number): string {
  const isLast = at === count - 1 && at % GROUNDS.length === 0 && at > 0;
  return GROUNDS[(isLast ? 3 : at) % GROUNDS.length]!;
}

/** Where the pips of a die are, of its side: a throw of 1 to 6. */
const PIPS: readonly (readonly [number, number])[][] = [
  [[0.5, 0.5]],
  [
    [0.27, 0.27],
    [0.73, 0.73],
  ],
  [
    [0.27, 0.27],
    [0.5, 0.5],
    [0.73, 0.73],
  ],
  [
    [0.27, 0.27],
    [0.73, 0.27],
    [0.27, 0.73],
    [0.73, 0.73],
  ],
  [
    [0.27, 0.27],
    [0.73, 0.27],
    [0.5, 0.5],
    [0.27, 0.73],
    [0.73, 0.73],
  ],
  [
    [0.27, 0.25],
    [0.73, 0.25],
    [0.27, 0.5],
    [0.73, 0.5],
    [0.27, 0.75],
    [0.73, 0.75],
  ],
];

/** Dice that are thrown one by one or together. */
export function dice({ paper, room, count, words }: Making): void {
  checkCount(count, 1, MOST_DICE);
  const [above, below] = under(room, 0.75, paper.size);
  const sides = cellsOf(above, count, 1, paper.size * 2).map((cell) =>
    fitted({ width: 1, height: 1 }, inset(cell, paper.size)),
  );
  const thrown = sides.map((side) => {
    const die = paper.newId();
    const throws = PIPS.map((pips, i) => ({ pips, ids: pips.map(() => paper.newId()), isFirst: i === 0 }));
    const pick = { do: 'pick', sets: throws.map(({ ids }) => ids), again: true } as const;
    paper.shape(
      'rounded',
      side,
      { fill: '#ffffff', width: paper.size / 6 },
      { id: die, alt: words.roll, rule: { tap: { steps: [pick], once: false } } },
    );
    for (const { pips, ids, isFirst } of throws)
      for (const [i, [x, y]] of pips.entries())
        pip(paper, side, { x, y, id: ids[i]!, hidden: !isFirst, alt: String(pips.length) });
    return pick;
  });
  if (count > 1) {
    const size = { width: paper.size * 10, height: paper.size * 2.6 };
    paper.card(words.roll, fitted(size, below), { rule: { tap: { steps: thrown, once: false } } });
  }
}

function pip(
  paper: Paper,
  side: Rect,
  { x, y, id, hidden, alt }: { x: number; y: number; id: string; hidden: boolean; alt: string },
): void {
  const width = side.width * 0.17;
  const rect = {
    x: side.x + x * side.width - width / 2,
    y: side.y + y * side.height - width / 2,
    width,
    height: width,
  };
  paper.shape('ellipse', rect, { fill: '#1c241f' }, { id, hidden, alt });
}

/** Names that are drawn, nobody twice before all were. */
export function picker({ paper, room, text, words }: Making): void {
  const names = readItems(text);
  checkCount(names.length, 2, MOST_NAMES);
  const [above, below] = under(room, 0.62, paper.size);
  const [top, foot] = under(above, 0.7, paper.size);
  paper.shape('rounded', top, { width: paper.size / 6 });
  const shown = names.map((name) => {
    const group = paper.newId();
    const id = paper.shape(
      'rounded',
      inset(top, paper.size * 0.4),
      { fill: '#ffffff', line: null },
      { hidden: true, group, alt: name },
    );
    const large = inset(top, paper.size);
    const text = paper.words(name, large, { size: paper.size * 4, bold: true }, { hidden: true, group });
    return [id, text];
  });
  button(paper, words.pick, fitted({ width: paper.size * 10, height: paper.size * 2.8 }, foot), shown, false);
  const columns = columnsFor(names.length, below, 4);
  for (const [i, cell] of cellsOf(
    below,
    columns,
    Math.ceil(names.length / columns),
    paper.size * 0.3,
  ).entries())
    if (names[i] !== undefined) paper.words(names[i], cell, { size: paper.size * 0.8 });
}

function button(
  paper: Paper,
  text: string,
  rect: Rect,
  sets: readonly (readonly string[])[],
  again: boolean,
): void {
  const tap = { steps: [{ do: 'pick', sets, again }], once: false } as const;
  paper.card(text, rect, { rule: { tap }, look: { width: paper.size / 6 } });
}

/** Points of teams, counted by taps. */
export function score({ paper, room, text }: Making): void {
  const teams = readItems(text);
  checkCount(teams.length, 1, MOST_TEAMS);
  const columns = teams.length > 4 ? Math.ceil(teams.length / 2) : teams.length;
  const cells = cellsOf(room, columns, Math.ceil(teams.length / columns), paper.size);
  for (const [i, team] of teams.entries()) {
    const cell = cells[i]!;
    paper.shape('rounded', cell);
    const [head, rest] = under(inset(cell, paper.size), 0.25);
    const [number, buttons] = under(rest, 0.62, paper.size * 0.5);
    paper.item(team, head);
    const points = paper.words('0', number, { bold: true, size: number.height * 0.6 });
    const [less, more] = beside(buttons, 0.5, paper.size * 0.6);
    counter(paper, '−1', less, points, -1);
    counter(paper, '+1', more, points, 1);
  }
}

function counter(paper: Paper, text: string, rect: Rect, mark: string, by: number): void {
  paper.card(text, rect, { rule: { tap: { steps: [{ do: 'count', mark, by }], once: false } } });
}
