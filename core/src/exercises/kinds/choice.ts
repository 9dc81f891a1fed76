import type { Rect } from '../../geometry/rect.js';
import type { Making } from '../making.js';
import { checkCount } from '../making.js';
import type { Paper } from '../paper.js';
import { beside, BOARD, cellsOf } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readRows } from '../rows.js';
import { shuffled } from '../seeded.js';

const MOST = 10;
const MOST_CHOICES = 6;

interface Option {
  text: string;
  isRight: boolean;
}

/** Questions with answers to choose from; the first of each row is right. */
export function choice({ paper, room, text, chance }: Making): void {
  const rows = readRows(text);
  checkCount(rows.length, 1, MOST);
  const cells = cellsOf(room, 1, rows.length, paper.size * 0.6);
  for (const [i, [question = '', ...answers]] of rows.entries()) {
    const texts = answers.filter((answer) => answer !== '');
    if (texts.length < 2) throw new ExerciseProblem('no-pair', { line: question });
    checkCount(texts.length, 2, MOST_CHOICES);
    const options = texts.map((one, at) => ({ text: one, isRight: at === 0 }));
    put(paper, cells[i]!, { number: i + 1, question, options: shuffled(options, chance) });
  }
}

/** Words that say that something is so, and that it is not. */
const TRUE = ['true', 't', 'yes', 'y', 'right', '+', '1', 'wahr', 'w', 'richtig', 'r', 'ja', 'j', '✓'];
const FALSE = ['false', 'f', 'no', 'n', 'wrong', '-', '−', '0', 'falsch', 'nein', '✗'];

/** Statements that are true or false. */
export function trueFalse({ paper, room, text, words }: Making): void {
  const rows = readRows(text);
  checkCount(rows.length, 1, MOST);
  const cells = cellsOf(room, 1, rows.length, paper.size * 0.6);
  for (const [i, [question = '', said = '']] of rows.entries()) {
    const isTrue = TRUE.includes(said.toLowerCase());
    if (!isTrue && !FALSE.includes(said.toLowerCase()))
      throw new ExerciseProblem('no-truth', { line: question });
    const options = [
      { text: words.isTrue, isRight: isTrue },
      { text: words.isFalse, isRight: !isTrue },
    ];
    put(paper, cells[i]!, { number: i + 1, question, options });
  }
}

function put(
  paper: Paper,
  cell: Rect,
  { number, question, options }: { number: number; question: string; options: Option[] },
): void {
  const gap = paper.size * 0.6;
  const [left, right] = beside(cell, 0.45, gap);
  const start = { ...left, width: paper.size * 2 };
  paper.words(`${number}.`, start, { bold: true, size: paper.size * 1.3 });
  const asked = { ...left, x: left.x + start.width, width: left.width - start.width };
  const questionId = paper.newId();
  if (paper.medium(question)) {
    paper.card(question, asked, { id: questionId, look: { line: null, fill: null } });
  } else paper.words(question, asked, { align: 'left', size: paper.size * 1.3 }, { id: questionId });
  const rings = options.map(() => paper.newId());
  const columns = options.length > 3 ? 2 : options.length;
  const cells = cellsOf(right, columns, Math.ceil(options.length / columns), gap);
  const boxes = options.map((_, i) => {
    const box = cells[i]!;
    const height = Math.min(box.height, paper.size * 4);
    return { ...box, y: box.y + (box.height - height) / 2, height };
  });
  for (const [i, { text, isRight }] of options.entries()) {
    const others = rings.filter((_, at) => at !== i);
    const steps = [
      { do: 'show', marks: [rings[i]!] },
      ...(others.length > 0 ? [{ do: 'hide', marks: others } as const] : []),
    ] as const;
    const tap = { steps, once: false, is: isRight ? 'right' : 'wrong' } as const;
    paper.card(text, boxes[i]!, { rule: { tap, of: [questionId] } });
  }
  for (const [i, box] of boxes.entries()) ring(paper, box, rings[i]!);
}

/** What is chosen has a thick edge, until something else is. */
function ring(paper: Paper, box: Rect, id: string): void {
  const look = { line: BOARD, width: paper.size / 4 };
  paper.shape('rounded', box, look, { id, hidden: true, alt: '✓' });
}
