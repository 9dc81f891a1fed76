import { shuffled } from './seeded.js';

export type Way = 'across' | 'down';

/** Where a word begins, in cells from the left and the top, and which way it goes. */
export interface PlacedWord {
  /** Which of the words it is, from 0. */
  word: number;
  x: number;
  y: number;
  way: Way;
}

/** How often the words are laid anew; the best is taken. More often while some word crosses nothing. */
const TRIES = 40;
const MORE_TRIES = 240;
/** By how much chance outweighs what is best at first: little, and more once that has led nowhere. */
const CALM = 1;
const WILD = 8;
/** So much wider than high is best beside a list of clues. */
const RATIO = 1.1;

/**
 * Lays words so that they cross wherever they meet, all of them, as densely as of several tries by chance is found. Each try
 * puts the longest first and every other one where it crosses most and the whole grows least; what crosses nothing begins
 * below the rest. Words are of at least two letters.
 */
export function layCrossword(words: readonly string[], chance: () => number): PlacedWord[] {
  let best: Layout | undefined;
  for (let i = 0; i < (best && best.parts > 1 ? MORE_TRIES : TRIES); i++) {
    const layout = tried(words, chance, i < TRIES ? CALM : WILD);
    if (!best || layout.worth() > best.worth()) best = layout;
  }
  return best?.normal() ?? [];
}

function tried(words: readonly string[], chance: () => number, wildness: number): Layout {
  const layout = new Layout(words);
  const mixed = shuffled([...words.keys()], chance);
  let left = mixed.sort((a, b) => words[b]!.length - words[a]!.length + (chance() - 0.5) * 3);
  while (left.length > 0) {
    const waiting = left.filter((word) => !layout.cross(word, () => wildness * chance()));
    if (waiting.length === left.length) layout.apart(waiting.shift()!);
    left = waiting;
  }
  return layout;
}

interface Cell {
  letter: string;
  across: boolean;
  down: boolean;
}

/** Far enough that no word reaches beyond, so that a cell is one number. */
const WIDE = 4096;
const keyOf = (x: number, y: number) => (x + WIDE / 2) * WIDE + y + WIDE / 2;

class Layout {
  readonly placed: PlacedWord[] = [];
  private readonly cells = new Map<number, Cell & { x: number; y: number }>();
  private readonly byLetter = new Map<string, { x: number; y: number }[]>();
  private left = 0;
  private top = 0;
  private right = 0;
  private bottom = 0;
  private crossings = 0;
  /** Of words that do not hang together; one where all do. */
  parts = 0;

  constructor(private readonly words: readonly string[]) {}

  /** Puts a word where it crosses best. Returns whether there is such a place. */
  cross(word: number, noise: () => number): boolean {
    let best: { at: PlacedWord; worth: number } | undefined;
    for (const [i, letter] of [...this.words[word]!].entries()) {
      for (const { x, y } of this.byLetter.get(letter) ?? []) {
        const way = this.cells.get(keyOf(x, y))!.across ? 'down' : 'across';
        const at: PlacedWord = {
          word,
          way,
          x: way === 'across' ? x - i : x,
          y: way === 'across' ? y : y - i,
        };
        const crossings = this.crossingsOf(at);
        if (crossings === undefined) continue;
        const worth = 3 * crossings - this.growth(at) + noise();
        if (!best || worth > best.worth) best = { at, worth };
      }
    }
    if (best) this.put(best.at);
    return best !== undefined;
  }

  /** Puts a word under all others. */
  apart(word: number): void {
    this.parts += 1;
    this.put({ word, x: this.left, y: this.placed.length === 0 ? 0 : this.bottom + 2, way: 'across' });
  }

  /** How good it is: dense, about as wide as wanted, of one part. */
  worth(): number {
    const [width, height] = [this.right - this.left + 1, this.bottom - this.top + 1];
    const side = Math.max(width / RATIO, height);
    return this.cells.size / (side * side * RATIO) + (0.5 * this.crossings) / this.words.length - this.parts;
  }

  /** Where the words are, counted from the left and the top of all. */
  normal(): PlacedWord[] {
    return this.placed.map(({ x, y, ...rest }) => ({ ...rest, x: x - this.left, y: y - this.top }));
  }

  /** How many words one would cross; undefined where it would touch another without crossing it. */
  private crossingsOf({ word, x, y, way }: PlacedWord): number | undefined {
    const letters = this.words[word]!;
    const [dx, dy] = way === 'across' ? [1, 0] : [0, 1];
    if (this.has(x - dx, y - dy) || this.has(x + dx * letters.length, y + dy * letters.length))
      return undefined;
    let crossings = 0;
    for (const [i, letter] of [...letters].entries()) {
      const [cx, cy] = [x + dx * i, y + dy * i];
      const cell = this.cells.get(keyOf(cx, cy));
      if (cell) {
        if (cell.letter !== letter || cell[way]) return undefined;
        crossings += 1;
      } else if (this.has(cx + dy, cy + dx) || this.has(cx - dy, cy - dx)) return undefined;
    }
    return crossings;
  }

  private has(x: number, y: number): boolean {
    return this.cells.has(keyOf(x, y));
  }

  /** By how many rows and columns the whole becomes larger. */
  private growth({ word, x, y, way }: PlacedWord): number {
    const last = this.words[word]!.length - 1;
    const [ex, ey] = way === 'across' ? [x + last, y] : [x, y + last];
    const out = (low: number, high: number, from: number, to: number) =>
      Math.max(0, low - from) + Math.max(0, to - high);
    return out(this.left, this.right, x, ex) + out(this.top, this.bottom, y, ey);
  }

  private put(at: PlacedWord): void {
    const { word, x, y, way } = at;
    const isFirst = this.placed.length === 0;
    this.placed.push(at);
    for (const [i, letter] of [...this.words[word]!].entries()) {
      const [cx, cy] = way === 'across' ? [x + i, y] : [x, y + i];
      const known = this.cells.get(keyOf(cx, cy));
      if (known) {
        known[way] = true;
        this.crossings += 1;
        continue;
      }
      this.cells.set(keyOf(cx, cy), { x: cx, y: cy, letter, across: way === 'across', down: way === 'down' });
      const same = this.byLetter.get(letter);
      if (same) same.push({ x: cx, y: cy });
      else this.byLetter.set(letter, [{ x: cx, y: cy }]);
      const starts = isFirst && i === 0;
      this.left = starts ? cx : Math.min(this.left, cx);
      this.right = starts ? cx : Math.max(this.right, cx);
      this.top = starts ? cy : Math.min(this.top, cy);
      this.bottom = starts ? cy : Math.max(this.bottom, cy);
    }
  }
}

/** The letters of what goes into cells: capitals, without spaces and signs. */
export function lettersOf(word: string): string {
  return (
    word
      .normalize('NFC')
      .toLocaleUpperCase()
      .match(/[\p{L}\p{N}]/gu) ?? []
  ).join('');
}
