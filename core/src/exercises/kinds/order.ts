import type { Rect } from '../../geometry/rect.js';
import type { Making } from '../making.js';
import { checkCount, likeItem, MOVES, taking } from '../making.js';
import { beside, cellsOf, columnsFor, under } from '../paper.js';
import { readItems, readRows } from '../rows.js';
import { mixedUp } from '../seeded.js';

const MOST = 12;

/** Cards beside numbered places, a list from its first to its last. */
export function order(making: Making): void {
  const items = readItems(making.text);
  checkCount(items.length, 2, MOST);
  inPlaces(making, items, making.room, (at) => likeItem(items, at));
}

/** The same, but whoever orders says what is first: every place takes every card. */
export function rank(making: Making): void {
  const { paper, room, words } = making;
  const items = readItems(making.text);
  checkCount(items.length, 2, MOST);
  const line = paper.lineOf(paper.size);
  const [left] = beside(room, 0.5);
  paper.words(words.most, { ...left, height: line }, { bold: true });
  paper.words(words.least, { ...left, y: room.y + room.height - line, height: line }, { bold: true });
  const rest = { ...room, y: room.y + 1.2 * line, height: room.height - 2.4 * line };
  inPlaces(making, items, rest, () => items.map((_, i) => i));
}

function inPlaces(
  { paper, level, chance }: Making,
  items: readonly string[],
  room: Rect,
  rightAt: (at: number) => number[],
): void {
  const gap = paper.size * 0.4;
  const [left, right] = beside(room, 0.5, paper.size * 3);
  const cards = items.map(() => paper.newId());
  for (const [i, row] of cellsOf(left, 1, items.length, gap).entries()) {
    const number = { ...row, width: paper.size * 2 };
    const place = { ...row, x: row.x + number.width, width: row.width - number.width };
    paper.words(`${i + 1}.`, number, { bold: true });
    paper.place(
      place,
      taking(
        rightAt(i).map((at) => cards[at]!),
        level,
      ),
    );
  }
  const mixed = mixedUp([...items.keys()], chance);
  const cells = cellsOf(right, 1, items.length, gap);
  for (const [i, at] of mixed.entries()) {
    const cell = cells[i]!;
    const width = cell.width - paper.size * 2;
    paper.card(items[at]!, { ...cell, x: cell.x + paper.size * 2, width }, { id: cards[at]!, rule: MOVES });
  }
}

const MOST_EVENTS = 8;

/** Events that go onto a line in their order; what stands before the event, such as its date, is under its place. */
export function events({ paper, room, text, level, chance }: Making): void {
  const rows = readRows(text);
  checkCount(rows.length, 2, MOST_EVENTS);
  const items = rows.map((row) => row[1] ?? row[0] ?? '');
  const gap = paper.size * 0.5;
  const [above, below] = under(room, 0.52, paper.size * 1.5);
  const [up, dates] = under(above, 0.8, 0);
  const cards = items.map(() => paper.newId());
  paper.path([room.x, dates.y + gap, room.x + room.width, dates.y + gap], { heads: 'end' });
  for (const [i, place] of cellsOf(up, items.length, 1, gap).entries()) {
    const middle = place.x + place.width / 2;
    paper.place(
      place,
      taking(
        likeItem(items, i).map((at) => cards[at]!),
        level,
      ),
    );
    paper.path([middle, dates.y, middle, dates.y + 2 * gap]);
    const [date, event] = rows[i]!;
    if (event !== undefined)
      paper.words(date!, {
        x: place.x,
        y: dates.y + 2.2 * gap,
        width: place.width,
        height: dates.height - 2.2 * gap,
      });
  }
  const columns = columnsFor(items.length, below, up.width / items.length / up.height);
  const cells = cellsOf(below, columns, Math.ceil(items.length / columns), gap);
  for (const [i, at] of mixedUp([...items.keys()], chance).entries()) {
    const size = {
      width: Math.min(cells[i]!.width, up.width / items.length - gap * 1.5),
      height: Math.min(cells[i]!.height, up.height - gap),
    };
    paper.card(items[at]!, { ...cells[i]!, ...size }, { id: cards[at]!, rule: MOVES });
  }
}
