import type { Rect } from '../../geometry/rect.js';
import type { Making } from '../making.js';
import { checkCount } from '../making.js';
import { BOARD, cellsOf, inset } from '../paper.js';
import { readRows } from '../rows.js';
import { shuffled } from '../seeded.js';

const MOST = 18;
/** Width of cards against their height. */
const RATIO = 1.3;

/** Cards that lie covered, two and two of which belong together: what is alone in its row is there twice. */
export function pairs({ paper, room, text, chance }: Making): void {
  const rows = readRows(text);
  checkCount(rows.length, 2, MOST);
  const edge = paper.size * 1.4;
  const grid = { x: room.x + edge, y: room.y + edge, width: room.width - edge, height: room.height - edge };
  const cards = rows.flatMap(([one = '', other], pair) => [
    { item: one, pair },
    { item: other === undefined || other === '' ? one : other, pair },
  ]);
  const columns = evenColumns(cards.length, grid);
  const count = Math.ceil(cards.length / columns);
  const cells = cellsOf(grid, columns, count, paper.size * 0.5);
  const mixed = shuffled([...cards.keys()], chance);
  const covers = cards.map(() => paper.newId());
  // Columns have letters and rows have numbers, by which a class says which card it means.
  for (let i = 0; i < columns; i++)
    paper.words(String.fromCharCode(65 + i), { ...cells[i]!, y: room.y, height: edge }, { bold: true });
  for (let i = 0; i < count; i++)
    paper.words(String(i + 1), { ...cells[i * columns]!, x: room.x, width: edge }, { bold: true });
  for (const [i, at] of mixed.entries())
    paper.card(cards[at]!.item, inset(cells[i]!, paper.size * 0.1), { look: { fill: '#ffffff' } });
  for (const [i, at] of mixed.entries()) {
    const other = at % 2 === 0 ? at + 1 : at - 1;
    const name = `${String.fromCharCode(65 + (i % columns))}${Math.floor(i / columns) + 1}`;
    paper.shape(
      'rounded',
      cells[i]!,
      { fill: BOARD, line: BOARD },
      { id: covers[at]!, alt: name, rule: { pair: { with: covers[other]! } } },
    );
  }
}

/** Columns that leave no gap in the last row and make cards about as wide as wanted against their height. */
function evenColumns(count: number, { width, height }: Rect): number {
  const off = (columns: number) =>
    Math.abs(Math.log((width * (count / columns)) / (height * columns) / RATIO));
  const all = Array.from({ length: count }, (_, i) => i + 1).filter((columns) => count % columns === 0);
  return all.sort((a, b) => off(a) - off(b))[0]!;
}
