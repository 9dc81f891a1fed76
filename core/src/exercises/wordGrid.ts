import type { Level } from './making.js';

/** A word in a grid: its first letter, and the step from letter to letter. */
export interface HiddenWord {
  word: number;
  x: number;
  y: number;
  dx: number;
  dy: number;
}

export interface WordGrid {
  /** Rows of letters. */
  letters: string[][];
  hidden: HiddenWord[];
  /** Other lines along which a word can be read as well. */
  others: HiddenWord[];
}

const RIGHT = [1, 0] as const;
const DOWN = [0, 1] as const;
const SLANTED = [
  [1, 1],
  [1, -1],
] as const;
const WAYS: Readonly<Record<Level, readonly (readonly [number, number])[]>> = {
  easy: [RIGHT, DOWN],
  medium: [RIGHT, DOWN, ...SLANTED],
  hard: [RIGHT, DOWN, ...SLANTED, [-1, 0], [0, -1], [-1, -1], [-1, 1]],
};
/** Part of the cells that words fill at most. */
const FULL = 0.55;
const TRIES_OF_WORD = 200;
const LARGEST = 24;
const REFILLS = 30;
const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Hides words in a square of letters, which otherwise has letters of these words and of the alphabet; undefined where they do not fit. */
export function layWordGrid(
  words: readonly string[],
  level: Level,
  chance: () => number,
): WordGrid | undefined {
  const total = words.reduce((sum, word) => sum + word.length, 0);
  const least = Math.max(...words.map((word) => word.length), Math.ceil(Math.sqrt(total / FULL)), 5);
  for (let size = least; size <= LARGEST; size++) {
    const laid = tried(words, size, WAYS[level], chance);
    if (laid) return filled(words, laid, chance);
  }
  return undefined;
}

interface Laid {
  letters: (string | undefined)[][];
  hidden: HiddenWord[];
}

function tried(
  words: readonly string[],
  size: number,
  ways: readonly (readonly [number, number])[],
  chance: () => number,
): Laid | undefined {
  const letters: (string | undefined)[][] = Array.from({ length: size }, () =>
    Array.from({ length: size }, () => undefined),
  );
  const hidden: HiddenWord[] = [];
  const longest = [...words.keys()].sort((a, b) => words[b]!.length - words[a]!.length);
  for (const word of longest) {
    const at = placeOf(words[word]!, { letters, ways, chance });
    if (!at) return undefined;
    hidden.push({ word, ...at });
    for (const [i, letter] of [...words[word]!].entries())
      letters[at.y + i * at.dy]![at.x + i * at.dx] = letter;
  }
  return { letters, hidden };
}

interface Room {
  letters: readonly (readonly (string | undefined)[])[];
  ways: readonly (readonly [number, number])[];
  chance: () => number;
}

function placeOf(word: string, { letters, ways, chance }: Room): Omit<HiddenWord, 'word'> | undefined {
  const size = letters.length;
  const any = (most: number) => Math.floor(chance() * most);
  for (let i = 0; i < TRIES_OF_WORD; i++) {
    const [dx, dy] = ways[any(ways.length)]!;
    const reach = word.length - 1;
    const start = (step: number) => (step === 0 ? any(size) : any(size - reach) + (step < 0 ? reach : 0));
    const at = { x: start(dx), y: start(dy), dx, dy };
    const isFree = [...word].every((letter, k) => {
      const there = letters[at.y + k * dy]?.[at.x + k * dx];
      return there === undefined || there === letter;
    });
    if (isFree) return at;
  }
  return undefined;
}

/** Letters for the rest, so that no word is there once more if that can be had. */
function filled(words: readonly string[], { letters, hidden }: Laid, chance: () => number): WordGrid {
  const own = words.join('');
  const from = /[A-Z]/.test(own) ? own + ALPHABET : own;
  const anyLetter = () => from[Math.floor(chance() * from.length)]!;
  let best: WordGrid | undefined;
  for (let i = 0; i < REFILLS; i++) {
    const all = letters.map((row) => row.map((letter) => letter ?? anyLetter()));
    const others = words
      .flatMap((word, at) => readingsOf(word, at, all))
      .filter((found) => !isSameLine(found, hidden, words));
    if (!best || others.length < best.others.length) best = { letters: all, hidden, others };
    if (others.length === 0) break;
  }
  return best!;
}

/** All lines along which a word is read, any way. */
export function readingsOf(
  word: string,
  index: number,
  letters: readonly (readonly string[])[],
): HiddenWord[] {
  const found: HiddenWord[] = [];
  for (const [y, row] of letters.entries())
    for (const x of row.keys())
      for (const [dx, dy] of WAYS.hard)
        if ([...word].every((letter, i) => letters[y + i * dy]?.[x + i * dx] === letter))
          found.push({ word: index, x, y, dx, dy });
  return found;
}

/** Whether a line is one along which its word was hidden, read from either end. */
function isSameLine(line: HiddenWord, hidden: readonly HiddenWord[], words: readonly string[]): boolean {
  return hidden.some((other) => {
    if (other.word !== line.word) return false;
    const reach = words[line.word]!.length - 1;
    const isAhead = other.x === line.x && other.y === line.y && other.dx === line.dx && other.dy === line.dy;
    const isBack =
      other.x + reach * other.dx === line.x &&
      other.y + reach * other.dy === line.y &&
      other.dx === -line.dx &&
      other.dy === -line.dy;
    return isAhead || isBack;
  });
}
