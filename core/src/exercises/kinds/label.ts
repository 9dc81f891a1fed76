import type { Rect } from '../../geometry/rect.js';
import type { Making } from '../making.js';
import { checkCount, likeItem, MOVES, taking } from '../making.js';
import type { Paper } from '../paper.js';
import { beside, cellsOf, fitted, under } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readItems } from '../rows.js';
import { shuffled } from '../seeded.js';

const MOST = 14;

/** A picture whose parts are named: the first line is the picture, each other one a name. */
export function label({ paper, room, text, level, chance, points }: Making): void {
  const [name = '', ...items] = readItems(text);
  const medium = paper.medium(name);
  if (medium?.kind !== 'picture') throw new ExerciseProblem('no-picture');
  checkCount(items.length, 1, MOST);
  const [above, below] = under(room, 0.8, paper.size);
  const [left, rest] = beside(above, 0.22, paper.size * 2);
  const [middle, right] = beside(rest, 0.72, paper.size * 2);
  const rect = fitted(medium, middle);
  paper.item(name, rect);
  const at = pointsOn(items.length, points).map(
    ([x, y]) => [rect.x + x * rect.width, rect.y + y * rect.height] as const,
  );
  const ids = items.map(() => paper.newId());
  const places = sides(at, rect, { left, right }, paper);
  for (const [i, place] of places.entries()) {
    const [x, y] = at[i]!;
    const edge = place.x < x ? place.x + place.width : place.x;
    paper.path([edge, place.y + place.height / 2, x, y]);
    const dot = paper.size * 0.4;
    paper.shape('ellipse', { x: x - dot / 2, y: y - dot / 2, width: dot, height: dot }, { fill: '#ffffff' });
    paper.place(
      place,
      taking(
        likeItem(items, i).map((one) => ids[one]!),
        level,
      ),
      { alt: String(i + 1) },
    );
  }
  const columns = Math.min(items.length, 7);
  const cells = cellsOf(below, columns, Math.ceil(items.length / columns), paper.size * 0.4);
  const size = {
    width: Math.min(cells[0]!.width, left.width * 0.94),
    height: Math.min(cells[0]!.height, paper.size * 2),
  };
  for (const [i, one] of shuffled([...items.keys()], chance).entries())
    paper.card(items[one]!, { ...cells[i]!, ...size }, { id: ids[one]!, rule: MOVES });
}

/** Where the words belong; those that nobody has placed yet lie evenly round the middle. */
export function pointsOn(count: number, points: Making['points']): (readonly [number, number])[] {
  return Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / count;
    return points[i] ?? ([0.5 + 0.3 * Math.cos(angle), 0.5 + 0.3 * Math.sin(angle)] as const);
  });
}

/** A place for each point, at the side that it is nearer to and in the order of their heights, so that no lines cross. */
function sides(
  points: readonly (readonly [number, number])[],
  rect: Rect,
  columns: { left: Rect; right: Rect },
  paper: Paper,
): Rect[] {
  const byX = [...points.keys()].sort((a, b) => points[a]![0] - points[b]![0]);
  const middle = rect.x + rect.width / 2;
  const near = byX.filter((i) => points[i]![0] < middle).length;
  // Neither side gets more than it has room for.
  const half = Math.ceil(points.length / 2);
  const split = Math.min(Math.max(near, points.length - half - 1), half + 1);
  const places: Rect[] = [];
  for (const [side, own] of [
    ['left', byX.slice(0, split)],
    ['right', byX.slice(split)],
  ] as const) {
    const column = columns[side];
    const rows = cellsOf(column, 1, Math.max(1, own.length), paper.size * 0.5);
    const height = Math.min(rows[0]!.height, paper.size * 2.4);
    const down = [...own].sort((a, b) => points[a]![1] - points[b]![1]);
    for (const [row, i] of down.entries())
      places[i] = { ...rows[row]!, y: rows[row]!.y + (rows[row]!.height - height) / 2, height };
  }
  return places;
}
