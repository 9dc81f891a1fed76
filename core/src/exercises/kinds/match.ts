import type { Making } from '../making.js';
import { checkCount, likeItem, MOVES, taking } from '../making.js';
import { beside, cellsOf } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readRows } from '../rows.js';
import { mixedUp } from '../seeded.js';

const MOST = 10;

/** What stays at the left, each with a place for what belongs to it, which lies mixed up at the right. */
export function match({ paper, room, text, level, chance }: Making): void {
  const rows = readPairs(text);
  checkCount(rows.length, 2, MOST);
  const partners = rows.map(([, partner]) => partner);
  const gap = paper.size * 0.5;
  const [left, right] = beside(room, 0.64, paper.size * 2);
  const cards = rows.map(() => paper.newId());
  for (const [i, row] of cellsOf(left, 1, rows.length, gap).entries()) {
    const [stays, place] = beside(row, 0.5, gap);
    paper.card(rows[i]![0], stays, { look: { fill: null } });
    paper.place(
      place,
      taking(
        likeItem(partners, i).map((at) => cards[at]!),
        level,
      ),
    );
  }
  const cells = cellsOf(right, 1, rows.length, gap);
  for (const [i, at] of mixedUp([...rows.keys()], chance).entries()) {
    const cell = cells[i]!;
    const width = Math.min(cell.width, left.width / 2 - gap);
    paper.card(
      partners[at]!,
      { ...cell, width: width - gap, height: cell.height - gap },
      { id: cards[at]!, rule: MOVES },
    );
  }
}

/** Two to a row. Throws ExerciseProblem `no-pair` with the row that has only one. */
export function readPairs(text: string): [string, string][] {
  return readRows(text).map(([first = '', second = '']) => {
    if (first === '' || second === '') throw new ExerciseProblem('no-pair', { line: first + second });
    return [first, second];
  });
}
