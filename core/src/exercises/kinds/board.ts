import type { Rect } from '../../geometry/rect.js';
import type { AnswerRule } from '../../marks/answerRule.js';
import type { Making } from '../making.js';
import { checkCount, MOVES } from '../making.js';
import type { Paper } from '../paper.js';
import { beside, cellsOf, inset, under } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readGroups } from '../rows.js';

const MOST_COLUMNS = 6;
const MOST_CARDS = 40;

/** An item that is a card to be written on by the class. */
export const BLANK = '_';
/** How wide the handle of a card is that is written on, against the letters. */
const HANDLE = 0.9;

/** Columns in which cards lie one below the other; each card goes into any of them. */
export const board = (making: Making): void => drawBoard(making, 'put');

/** The same, with votes on the cards: those with most stand first. */
export const voteBoard = (making: Making): void => drawBoard(making, 'most');

function drawBoard({ paper, room, text }: Making, stack: 'put' | 'most'): void {
  const columns = readGroups(text);
  if (columns.length < 2 || columns.length > MOST_COLUMNS)
    throw new ExerciseProblem('columns', { most: MOST_COLUMNS });
  const cards = columns.flatMap(({ items }, column) =>
    items.map((item) => ({ item, column, id: paper.newId() })),
  );
  checkCount(cards.length, 1, MOST_CARDS);
  const things = cards.map(({ id }) => id);
  const cells = cellsOf(room, columns.length, 1, paper.size * 0.6);
  const places = cells.map((cell, i) => {
    const [head, place] = under(cell, 0.11, paper.size * 0.3);
    paper.words(columns[i]!.name, head, { bold: true });
    const rule: AnswerRule = { takes: { things, sendsBack: false, snaps: true, stack } };
    paper.shape('rectangle', place, { fill: '#f1ede1' }, { rule, alt: columns[i]!.name });
    return place;
  });
  for (const [i, place] of places.entries()) {
    const own = cards.filter(({ column }) => column === i);
    for (const [row, rect] of rowsIn(paper, place, own.length).entries())
      putCard(paper, rect, { ...own[row]!, name: `${columns[i]!.name} ${row + 1}`, votes: stack === 'most' });
  }
}

/** Cards one below the other from the top of a column, closer where there are many. */
function rowsIn(paper: Paper, place: Rect, count: number): Rect[] {
  const gap = paper.size * 0.32;
  const height = paper.size * 2.5;
  const free = place.height - 2 * gap - height;
  const step = count > 1 ? Math.min(height + gap, free / (count - 1)) : 0;
  const { x, width } = inset(place, gap);
  return Array.from({ length: count }, (_, i) => ({ x, y: place.y + gap + i * step, width, height }));
}

interface Card {
  item: string;
  id: string;
  /** What a blank one is called. */
  name: string;
  votes: boolean;
}

function putCard(paper: Paper, rect: Rect, { item, id, name, votes }: Card): void {
  const isBlank = item === BLANK;
  if (!votes && !isBlank) {
    paper.card(item, rect, { id, rule: MOVES });
    return;
  }
  const group = paper.newId();
  const alt = isBlank ? name : item;
  paper.shape('rounded', rect, { fill: '#faf5e8' }, { id, group, alt, rule: MOVES });
  const room = inset(rect, paper.size * 0.25);
  const [words, counter] = votes ? beside(room, 0.72, paper.size * 0.3) : [room, undefined];
  if (isBlank) putField(paper, words, { group, alt });
  else paper.item(item, words, group);
  if (counter) putCounter(paper, counter, { group, alt });
}

/** Room for words of the class, beside a handle by which the card is moved. */
function putField(paper: Paper, { x, y, width, height }: Rect, own: { group: string; alt: string }): void {
  const handle = paper.size * HANDLE;
  for (const part of [0.3, 0.6]) {
    const at = x + handle * part;
    paper.path([at, y + height * 0.2, at, y + height * 0.8], { line: '#8a8474' }, { group: own.group });
  }
  const rect = { x: x + handle, y, width: width - handle, height: paper.lineOf(paper.size) };
  const fill = { as: 'words', answers: [], typos: false } as const;
  paper.words('', rect, { align: 'left' }, { ...own, rule: { fill } });
}

function putCounter(paper: Paper, rect: Rect, { group, alt }: { group: string; alt: string }): void {
  const number = paper.newId();
  const rule: AnswerRule = { tap: { steps: [{ do: 'count', mark: number, by: 1 }], once: false } };
  paper.shape(
    'rounded',
    rect,
    { fill: '#f2c230', width: paper.size / 16 },
    { group, rule, alt: `${alt}: +1` },
  );
  paper.words('0', rect, { bold: true }, { id: number, group });
}
