import type { Rect } from '../../geometry/rect.js';
import type { PlacedWord, Way } from '../crosswordLayout.js';
import { layCrossword, lettersOf } from '../crosswordLayout.js';
import type { Making } from '../making.js';
import { checkCount } from '../making.js';
import type { Paper } from '../paper.js';
import { beside } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readPairs } from './match.js';

const MOST = 40;
const LONGEST = 20;

/** A word of the puzzle with its number and the mark of its clue. */
interface Entry extends PlacedWord {
  letters: string;
  clue: string;
  number: number;
  clueId: string;
}

/** Words that cross, with clues; cells take a letter each. At the easiest first letters are given. */
export function crossword({ paper, room, text, level, chance, words }: Making): void {
  const rows = readPairs(text);
  checkCount(rows.length, 2, MOST);
  const letters = rows.map(([word]) => lettersOf(word));
  const bad = letters.findIndex((word) => word.length < 2 || word.length > LONGEST);
  if (bad >= 0) throw new ExerciseProblem('no-letters', { text: rows[bad]![0], most: LONGEST });
  const placed = layCrossword(letters, chance);
  const numbers = numbered(placed);
  const entries = placed
    .map((at): Entry => ({
      ...at,
      letters: letters[at.word]!,
      clue: rows[at.word]![1],
      number: numbers.get(`${at.x} ${at.y}`)!,
      clueId: paper.newId(),
    }))
    .sort((a, b) => a.number - b.number);
  const [left, right] = beside(room, 0.6, paper.size * 1.5);
  cells(paper, left, entries, level === 'easy');
  clues(paper, right, entries, words);
}

/** Numbers of the cells in which words begin, row by row. */
function numbered(placed: readonly PlacedWord[]): Map<string, number> {
  const starts = new Map(placed.map(({ x, y }) => [`${x} ${y}`, { x, y }]));
  const sorted = [...starts].sort(([, a], [, b]) => a.y - b.y || a.x - b.x);
  return new Map(sorted.map(([key], i) => [key, i + 1]));
}

interface Square {
  x: number;
  y: number;
  letter: string;
  of: string[];
  number?: number;
}

function cells(paper: Paper, room: Rect, entries: readonly Entry[], isEasy: boolean): void {
  const squares = new Map<string, Square>();
  for (const { x, y, way, letters, number, clueId } of entries)
    for (const [i, letter] of [...letters].entries()) {
      const at = way === 'across' ? { x: x + i, y } : { x, y: y + i };
      const square = squares.get(`${at.x} ${at.y}`) ?? { ...at, letter, of: [] };
      square.of.push(clueId);
      if (i === 0) square.number = number;
      squares.set(`${at.x} ${at.y}`, square);
    }
  const all = [...squares.values()].sort((a, b) => a.y - b.y || a.x - b.x);
  const [columns, rows] = [Math.max(...all.map(({ x }) => x)) + 1, Math.max(...all.map(({ y }) => y)) + 1];
  const side = Math.min(room.width / columns, room.height / rows, paper.size * 3.4);
  const origin = {
    x: room.x + (room.width - side * columns) / 2,
    y: room.y + (room.height - side * rows) / 2,
  };
  for (const square of all) {
    const rect = { x: origin.x + square.x * side, y: origin.y + square.y * side, width: side, height: side };
    cell(paper, rect, square, isEasy && square.number !== undefined);
  }
}

function cell(paper: Paper, rect: Rect, { letter, of, number }: Square, isGiven: boolean): void {
  paper.shape('rectangle', rect, { fill: '#ffffff', width: paper.size / 16 });
  if (number !== undefined) {
    const corner = {
      x: rect.x + rect.width * 0.06,
      y: rect.y,
      width: rect.width * 0.6,
      height: rect.height * 0.36,
    };
    paper.words(String(number), corner, { align: 'left', size: rect.height * 0.24 });
  }
  const size = rect.height * 0.52;
  const room = { ...rect, y: rect.y + rect.height * 0.16, height: rect.height * 0.84 };
  if (isGiven) return void paper.words(letter, room, { size, bold: true });
  const fill = { as: 'words', answers: [letter], typos: false } as const;
  paper.words(' ', room, { size }, { rule: { fill, of }, alt: String(number ?? '') || ' ' });
}

function clues(paper: Paper, room: Rect, entries: readonly Entry[], words: Making['words']): void {
  const lists = (['across', 'down'] as const).map((way) => ({
    way,
    own: entries.filter((entry) => entry.way === way),
  }));
  const weights = lists.map(({ own }) =>
    own.reduce((sum, { clue }) => sum + weightOf(paper, clue, room.width), own.length > 0 ? 1.2 : 0),
  );
  const line = room.height / weights.reduce((sum, weight) => sum + weight, 0);
  const height = Math.min(line, paper.size * 1.9);
  let { y } = room;
  const next = (lines: number) => {
    const rect = { x: room.x, y, width: room.width, height: lines * height };
    y += rect.height;
    return rect;
  };
  for (const { way, own } of lists) {
    if (own.length > 0) paper.words(headOf(way, words), next(1.2), { bold: true, align: 'left' });
    for (const entry of own) put(paper, next(weightOf(paper, entry.clue, room.width)), entry);
  }
}

const headOf = (way: Way, words: Making['words']) => (way === 'across' ? words.across : words.down);

/** How many lines a clue takes: pictures and sounds three. */
function weightOf(paper: Paper, clue: string, width: number): number {
  if (paper.medium(clue)) return 3;
  return Math.max(1, Math.ceil(paper.widthOf(`99. ${clue}`, paper.size) / (width * 0.94)));
}

function put(paper: Paper, rect: Rect, { number, clue, clueId, letters }: Entry): void {
  const medium = paper.medium(clue);
  const name = `${number}. ${clue} (${letters.length})`;
  if (!medium) return void paper.words(name, rect, { align: 'left' }, { id: clueId });
  paper.words(
    `${number}.`,
    { ...rect, width: paper.size * 2.4 },
    { align: 'left' },
    { id: clueId, alt: name },
  );
  const box = {
    x: rect.x + paper.size * 2.4,
    y: rect.y + rect.height * 0.05,
    width: rect.height * 1.4,
    height: rect.height * 0.9,
  };
  paper.shown(clue, box);
}
