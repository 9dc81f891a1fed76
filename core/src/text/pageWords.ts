import type { TextQuote } from '../annotation/textQuote.js';
import { MAX_QUOTE, quoteOf } from '../annotation/textQuote.js';
import type { Rect } from '../geometry/rect.js';
import { rectContains, unionRect } from '../geometry/rect.js';
import { wordsFound } from './searchWords.js';

/** A word of a page and where it lies, page units. */
export interface PlacedWord extends Rect {
  text: string;
}

/** Words of a page by what they say, and where they lie. */
export interface PlacedQuote extends TextQuote {
  /** Flat x, y, width, height for each line, page units. */
  rects: number[];
}

/** How far beside a word a pointer may go down and still mean it, times the word's height. */
const NEAR = 0.35;

/** The words of a page in the order in which they are read. */
export class PageWords {
  /** The words, a space between each two. */
  readonly text: string;
  private readonly starts: number[] = [];

  constructor(private readonly words: readonly PlacedWord[]) {
    let length = 0;
    for (const { text } of words) {
      this.starts.push(length);
      length += text.length + 1;
    }
    this.text = words.map(({ text }) => text).join(' ');
  }

  get isEmpty(): boolean {
    return this.words.length === 0;
  }

  /** The lines of the page in the order in which they are read, and where they lie. */
  lines(): (Rect & { text: string })[] {
    const lines: (Rect & { text: string })[] = [];
    for (const word of this.words) {
      const line = lines.at(-1);
      if (!line || !isOfLine(line, word)) lines.push({ ...word });
      else lines[lines.length - 1] = { ...unionRect(line, word), text: `${line.text} ${word.text}` };
    }
    return lines;
  }

  /** The words of which a word begins with one of those that are looked for (`searchWords`). */
  beginningWith(words: readonly string[]): PlacedWord[] {
    return this.words.filter(({ text }) => wordsFound(text, words).length > 0);
  }

  /** The words whose middle lies in a part of the page. */
  within(part: Rect): PlacedWord[] {
    return this.words.filter(({ x, y, width, height }) => rectContains(part, x + width / 2, y + height / 2));
  }

  /** Whether there is a word at a point. */
  hasAt(x: number, y: number): boolean {
    const near = this.nearest(x, y);
    return near >= 0 && distance(this.words[near]!, x, y) <= NEAR * this.words[near]!.height;
  }

  /** The whole words from one point to another; undefined where the page has none. */
  between(a: { x: number; y: number }, b: { x: number; y: number }): PlacedQuote | undefined {
    const ends = [this.nearest(a.x, a.y), this.nearest(b.x, b.y)];
    const [first, last] = [Math.min(...ends), Math.max(...ends)];
    if (first < 0) return undefined;
    const start = this.starts[first]!;
    let to = last;
    while (to > first && this.starts[to]! + this.words[to]!.text.length - start > MAX_QUOTE) to -= 1;
    const quote = quoteOf(this.text, start, this.starts[to]! + this.words[to]!.text.length);
    return { ...quote, rects: linesOf(this.words.slice(first, to + 1)) };
  }

  /** The word nearest to a point: one of its line before one that is nearer above or below. */
  private nearest(x: number, y: number): number {
    let [best, least] = [-1, Infinity];
    for (const [i, word] of this.words.entries()) {
      const far = distance(word, x, y);
      if (far < least) [best, least] = [i, far];
    }
    return best;
  }
}

function distance({ x, y, width, height }: Rect, px: number, py: number): number {
  const dx = Math.max(x - px, 0, px - x - width);
  const dy = Math.max(y - py, 0, py - y - height);
  return Math.hypot(dx, 3 * dy);
}

/** One rectangle for the words of each line, flat, to a hundredth. */
function linesOf(words: readonly PlacedWord[]): number[] {
  const round = (value: number) => Math.round(value * 100) / 100;
  return new PageWords(words).lines().flatMap(({ x, y, width, height }) => [x, y, width, height].map(round));
}

function isOfLine(line: Rect, { x, y, height }: Rect): boolean {
  const apart = Math.abs(line.y + line.height / 2 - y - height / 2);
  // A word that lies far before the end of the line begins a line of another column.
  return apart < Math.max(line.height, height) / 2 && x > line.x;
}
