import search from 'approx-string-match';
import type { TextQuote } from '../annotation/textQuote.js';

/** Letters that may differ, as part of the words, and most in all. */
const MOST_CHANGED = 1 / 3;
const MOST_CHANGES = 64;
/** What of words and their surroundings may differ; the words count twice. */
const MOST_UNLIKE = 0.45;
/** Places that are compared; the nearest of more. */
const MOST_PLACES = 200;
/** What lies so far away, letters, counts as if this part of it differed: a page often says the same again. */
const FAR = 5000;
const FAR_COUNTS = 0.3;
/** Letters before and after in which words are looked for that may be more like others farther away. */
const NEAR = 400;

export interface FoundWords {
  start: number;
  end: number;
}

interface Candidate extends FoundWords {
  errors: number;
}

/**
 * Where the words of a quote stand in a text that may have been edited since: what is most alike, words and surroundings
 * together, and not far from where it was; undefined where they are gone. Words are compared by insertions, deletions and
 * substitutions of letters (Levenshtein 1966; found by G. Myers' bit-parallel search, 1999).
 */
export function findChanged(text: string, quote: TextQuote): FoundWords | undefined {
  const { exact, start } = quote;
  if (exact === '') return undefined;
  if (isUnchangedAt(text, start, quote)) return { start, end: start + exact.length };
  const places = occurrences(text, quote);
  let best = bestOf(text, quote, places);
  if (best === undefined || best.cost > 0) best = better(best, bestOf(text, quote, similar(text, quote)));
  return best && { start: best.start, end: best.end };
}

function isUnchangedAt(text: string, start: number, { exact, prefix, suffix }: TextQuote): boolean {
  return text.startsWith(prefix + exact + suffix, start - prefix.length);
}

/** Where the very words stand, the nearest ones. */
function occurrences(text: string, { exact, start }: TextQuote): Candidate[] {
  const places: number[] = [];
  for (let at = text.indexOf(exact); at >= 0; at = text.indexOf(exact, at + 1)) places.push(at);
  places.sort((a, b) => Math.abs(a - start) - Math.abs(b - start));
  return places.slice(0, MOST_PLACES).map((at) => ({ start: at, end: at + exact.length, errors: 0 }));
}

/** Where words stand that are like the very ones: anywhere, near where they were, and within surroundings like theirs. */
function similar(text: string, { exact, prefix, suffix, start }: TextQuote): Candidate[] {
  const near = part(text, start - NEAR, start + exact.length + NEAR);
  const whole = prefix + exact + suffix;
  const alike = search(text, whole, mostChanges(whole.length)).map((found) =>
    part(text, found.start, found.end),
  );
  return [part(text, 0, text.length), near, ...alike]
    .flatMap((where) => similarIn(where, exact))
    .slice(0, MOST_PLACES);
}

interface Part {
  from: number;
  text: string;
}

function part(text: string, from: number, to: number): Part {
  const start = Math.max(0, from);
  return { from: start, text: text.slice(start, to) };
}

function similarIn({ from, text }: Part, exact: string): Candidate[] {
  const most = mostChanges(exact.length);
  if (most === 0) return [];
  return search(text, exact, most).map(({ start, end, errors }) => ({
    start: from + start,
    end: from + end,
    errors,
  }));
}

const mostChanges = (length: number) => Math.min(MOST_CHANGES, Math.floor(length * MOST_CHANGED));

/** `cost`: how much differs, and how far away it is. */
type Judged = FoundWords & { unlike: number; cost: number };

function bestOf(text: string, quote: TextQuote, candidates: readonly Candidate[]): Judged | undefined {
  return candidates
    .map(({ start, end, errors }) => {
      const unlike = unlikeness(text, { start, end, errors }, quote);
      const far = Math.min(1, Math.abs(start - quote.start) / FAR);
      return { start, end, unlike, cost: unlike + FAR_COUNTS * far };
    })
    .filter(({ unlike }) => unlike <= MOST_UNLIKE)
    .reduce<Judged | undefined>(better, undefined);
}

function better(a: Judged | undefined, b: Judged | undefined): Judged | undefined {
  if (!a || !b) return a ?? b;
  return a.cost <= b.cost ? a : b;
}

/** How much of words and surroundings differs, 0 to about 1. */
function unlikeness(text: string, { start, end, errors }: Candidate, quote: TextQuote): number {
  const { exact, prefix, suffix } = quote;
  const before = edits(prefix, text.slice(Math.max(0, start - prefix.length), start));
  const after = edits(suffix, text.slice(end, end + suffix.length));
  return (2 * errors + before + after) / (2 * exact.length + prefix.length + suffix.length);
}

/** Letters to insert, delete or change to make one of the other (Wagner & Fischer 1974). */
function edits(a: string, b: string): number {
  if (a === b) return 0;
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const change = row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min(change, row[j]! + 1, next[j - 1]! + 1));
    }
    row = next;
  }
  return row[b.length]!;
}
