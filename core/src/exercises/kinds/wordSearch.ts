import { MOST_LINES } from '../../answers/ruleCheck.js';
import type { Rect } from '../../geometry/rect.js';
import { lettersOf } from '../crosswordLayout.js';
import type { Making } from '../making.js';
import { checkCount } from '../making.js';
import { beside, BOARD, cellsOf } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readRows } from '../rows.js';
import type { HiddenWord } from '../wordGrid.js';
import { layWordGrid } from '../wordGrid.js';

const MOST = 25;
const LONGEST = 18;

/** Words that are hidden in a square of letters, and found by drawing along them; what stands behind a word is shown instead of it. */
export function wordSearch({ paper, room, text, level, chance }: Making): void {
  const rows = readRows(text);
  checkCount(rows.length, 1, MOST);
  const words = rows.map(([word = '']) => lettersOf(word));
  const bad = words.findIndex((word) => word.length < 2 || word.length > LONGEST);
  if (bad >= 0) throw new ExerciseProblem('no-letters', { text: rows[bad]![0] ?? '', most: LONGEST });
  const grid = layWordGrid(words, level, chance);
  if (!grid) throw new ExerciseProblem('no-room');
  const [left, right] = beside(room, 0.66, paper.size * 2);
  const side = Math.min(left.width, left.height);
  const square = { x: left.x + (left.width - side) / 2, y: left.y, width: side, height: side };
  const step = side / grid.letters.length;
  const names = rows.map(() => paper.newId());
  const found = rows.map(() => [paper.newId(), paper.newId()]);
  const lines = [...grid.hidden, ...grid.others].slice(0, MOST_LINES).map((line) => ({
    ...endsOf(line, words[line.word]!.length, square, step),
    marks: found[line.word]!,
  }));
  paper.shape('rectangle', square, { fill: '#ffffff' }, { rule: { trace: { lines, step }, of: names } });
  for (const [y, row] of grid.letters.entries())
    for (const [x, letter] of row.entries())
      paper.words(
        letter,
        { x: square.x + x * step, y: square.y + y * step, width: step, height: step },
        { size: step * 0.56 },
      );
  for (const line of grid.hidden) {
    const { from, to } = endsOf(line, words[line.word]!.length, square, step);
    const look = { line: BOARD, width: step * 0.78, opacity: 0.3 };
    paper.path([...from, ...to], look, { id: found[line.word]![0]!, hidden: true, alt: words[line.word]! });
  }
  const cells = cellsOf(right, 1, Math.max(rows.length, 8));
  for (const [i, [word = '', clue]] of rows.entries()) {
    const said = clue === undefined || clue === '' ? word : clue;
    const cell = cells[i]!;
    if (paper.medium(said))
      paper.card(
        said,
        { ...cell, height: cell.height * 0.92 },
        { id: names[i]!, look: { line: null, fill: null } },
      );
    else paper.words(said, cell, { align: 'left' }, { id: names[i]! });
    const width = paper.medium(said) ? cell.width : Math.min(cell.width, paper.widthOf(said, paper.size));
    const y = cell.y + cell.height / 2;
    paper.path([cell.x, y, cell.x + width, y], {}, { id: found[i]![1]!, hidden: true, alt: word });
  }
}

function endsOf(
  { x, y, dx, dy }: HiddenWord,
  length: number,
  square: Rect,
  step: number,
): { from: [number, number]; to: [number, number] } {
  const at = (i: number): [number, number] => [
    square.x + (x + i * dx + 0.5) * step,
    square.y + (y + i * dy + 0.5) * step,
  ];
  return { from: at(0), to: at(length - 1) };
}
