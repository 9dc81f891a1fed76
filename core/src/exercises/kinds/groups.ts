import type { Making } from '../making.js';
import { checkCount, MOVES, taking } from '../making.js';
import { cellsOf, columnsFor, under } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readGroups } from '../rows.js';
import { shuffled } from '../seeded.js';

const MOST_GROUPS = 5;
const MOST_ITEMS = 40;

/** Columns with a heading each, and cards that belong into one of them. */
export function groups({ paper, room, text, level, chance }: Making): void {
  const all = readGroups(text);
  if (all.length < 2 || all.length > MOST_GROUPS) throw new ExerciseProblem('groups', { most: MOST_GROUPS });
  const items = all.flatMap((group) => group.items.map((item) => ({ item, group: group.name })));
  checkCount(items.length, 2, MOST_ITEMS);
  const gap = paper.size * 0.5;
  const [above, below] = under(room, 0.6, paper.size);
  const ids = items.map(() => paper.newId());
  // The same item in two groups belongs in either.
  const belongs = (name: string) => {
    const own = new Set(items.filter(({ group }) => group === name).map(({ item }) => item));
    return items.flatMap(({ item }, i) => (own.has(item) ? [ids[i]!] : []));
  };
  for (const [i, column] of cellsOf(above, all.length, 1, gap).entries()) {
    const { name } = all[i]!;
    const [head, place] = under(column, 0.16);
    paper.item(name, head);
    paper.place(place, taking(belongs(name), level), { alt: name });
  }
  const columns = columnsFor(items.length, below, 3);
  const cells = cellsOf(below, columns, Math.ceil(items.length / columns), gap);
  const most = (above.width / all.length) * 0.9;
  for (const [i, at] of shuffled([...items.keys()], chance).entries()) {
    const cell = cells[i]!;
    const height = Math.min(cell.height, paper.size * 3.2);
    paper.card(
      items[at]!.item,
      { ...cell, height, width: Math.min(cell.width, most) },
      { id: ids[at]!, rule: MOVES },
    );
  }
}
