import type { Candidate, Run, Standing } from './candidates.js';
import { candidatesOf, runOf } from './candidates.js';
import type { LetterNet } from './letterNet.js';
import type { Piece } from './pieces.js';
import { piecesOf } from './pieces.js';
import type { WordList } from './wordList.js';

/** A word as it is read, the likeliest first; and the strokes that it was written by, by their numbers. */
export interface ReadWord {
  readings: readonly string[];
  strokes: readonly number[];
}

export interface ReadLine extends Standing {
  words: readonly ReadWord[];
  left: number;
  right: number;
}

/** So many pieces make a character at most. */
const MOST_PIECES = 7;
/** What leads from one letter to the next is left out at that cost. */
const LINK_COST = 0.5;
/** A gap between pieces of one character, or pieces of two that lie over each other, costs so much per height of a small letter. */
const GAP_COST = { any: 2.5, part: 8, slack: 0.04 };
const OVERLAP_COST = 4;
/** Each character costs something, so that what is one letter is not read as several. */
const CHARACTER_COST = 0.15;
/** A dot or comma beside a letter is no part of it, at that cost. */
const SIGN_BESIDE = 3;
/** A run that is likelier no character at all costs so much of what that is likelier. */
const NONE_SHARE = 0.35;
/** A character that is so much broader than a small letter is high is none. */
const BROADEST = 2.4;
/**
 * Gaps between words are so many times wider than those between letters; never less than `least`, always where `sure`; `none` is within a letter, more than
 * `most` tells no more. Parts of the usual height of a stroke.
 */
const WORD_GAP = { none: 0.12, times: 1.9, least: 0.28, sure: 0.8, most: 1.2 };
/** Ways to read a word that are followed at once, and those that are offered. */
const BEAM = 32;
/** So many are looked at for being the beginning of a word. */
const MOST_LOOKED_AT = 160;
const OFFERED = 5;
/** What a word costs that is not in the list, and each rank of rarity. */
const UNKNOWN = 4.2;
const RARER = 0.35;
/** What unusual neighbours cost: capitals after small letters, figures in words, signs within. */
const NEIGHBOURS = { capital: 2.5, figure: 2.2, sign: 2.2, startSign: 0.8, afterSign: 1.5 };
/** Heights of a small letter that are tried, as parts of the usual height of a stroke. */
const TRIED = [0.5, 0.58, 0.66, 0.75, 0.85, 0.95, 1.08, 1.25];

interface Cell extends Candidate {
  from: number;
  to: number;
}

/** Reads one written line; undefined where there is nothing to read. */
export function readLine(
  strokes: readonly (readonly number[])[],
  net: LetterNet,
  words: WordList | undefined,
): ReadLine | undefined {
  const usual = usualHeight(strokes);
  if (usual === undefined) return undefined;
  const pieces = piecesOf(strokes, usual * 0.75);
  const runs = runsOf(pieces, usual, net);
  const standing = bestStanding(pieces, runs, usual, net);
  const cells = cellsOf(runs, pieces, standing, net);
  const spans = wordSpans(pieces, usual);
  return {
    ...standing,
    left: Math.min(...pieces.map(({ box }) => box.left)),
    right: Math.max(...pieces.map(({ box }) => box.left + box.width)),
    words: joined(
      spans.map(([from, to]) => ({
        readings: readWord(cells, from, to, from === 0, words),
        strokes: [...new Set(pieces.slice(from, to).map(({ stroke }) => stroke))],
      })),
    ),
  };
}

/** A letter that fits what is to be copied so badly is another one. */
const UNLIKE = { letter: 7, mean: 3.2 };

/**
 * The strokes of each character of a known text, in its order, that was copied as one line; undefined where what was written is
 * something else.
 */
export function alignedTo(
  text: string,
  strokes: readonly (readonly number[])[],
  net: LetterNet,
): { character: string; glyph: number[][] }[] | undefined {
  const characters = [...text].filter((character) => character.trim() !== '');
  const usual = usualHeight(strokes);
  if (usual === undefined) return undefined;
  const pieces = piecesOf(strokes, usual * 0.75);
  const runs = runsOf(pieces, usual, net);
  const standing = bestStanding(pieces, runs, usual, net);
  const costs = characters.map(() => new Float64Array(pieces.length + 1).fill(Infinity));
  const runTo = characters.map(() => new Array<Run | undefined>(pieces.length + 1));
  for (const [n, character] of characters.entries()) {
    const c = net.characters.indexOf(character);
    for (const run of runs) {
      const before = n === 0 ? (run.from === 0 ? 0 : Infinity) : costs[n - 1]![run.from]!;
      const like = Math.min(UNLIKE.letter, c < 0 ? 2 : run.judged.costs[c]!);
      const cost = before + like + shapeCost(pieces, run.from, run.to, standing.xHeight);
      if (cost < costs[n]![run.to]!) [costs[n]![run.to], runTo[n]![run.to]] = [cost, run];
    }
  }
  const total = costs.at(-1)?.[pieces.length] ?? Infinity;
  if (total > UNLIKE.mean * characters.length) return undefined;
  let at = pieces.length;
  return characters
    .map((character, n) => ({ character, n }))
    .reverse()
    .map(({ character, n }) => {
      const { from, to } = runTo[n]![at]!;
      at = from;
      return { character, glyph: pieces.slice(from, to).map(({ line }) => [...line]) };
    })
    .reverse();
}

/** The middle one of the heights of strokes that are no dots or dashes, page units. */
function usualHeight(strokes: readonly (readonly number[])[]): number | undefined {
  const heights = piecesOf(strokes, Infinity).map(({ box }) => box.height);
  const most = Math.max(0, ...heights);
  const sorted = heights.filter((height) => height > 0.25 * most).sort((a, b) => a - b);
  return most > 0 ? sorted[Math.floor(sorted.length / 2)] : undefined;
}

function runsOf(pieces: readonly Piece[], usual: number, net: LetterNet): Run[] {
  const runs: Run[] = [];
  for (let from = 0; from < pieces.length; from++)
    for (let to = from + 1; to <= Math.min(pieces.length, from + MOST_PIECES); to++) {
      const some = pieces.slice(from, to);
      const left = Math.min(...some.map(({ box }) => box.left));
      const right = Math.max(...some.map(({ box }) => box.left + box.width));
      if (to > from + 1 && right - left > BROADEST * usual) break;
      runs.push(runOf(pieces, from, to, net));
    }
  return runs;
}

/** Where the line stands: what makes its characters likeliest. */
function bestStanding(
  pieces: readonly Piece[],
  runs: readonly Run[],
  usual: number,
  net: LetterNet,
): Standing {
  const feet = pieces
    .filter(({ box }) => box.height > 0.4 * usual)
    .map(({ box }) => box.top + box.height)
    .sort((a, b) => a - b);
  const foot = feet[Math.floor(feet.length / 2)] ?? 0;
  let [best, least] = [{ base: foot, xHeight: usual * 0.75 }, Infinity];
  for (const part of TRIED)
    for (const shift of [-0.12, 0, 0.12]) {
      const standing = { base: foot + shift * usual, xHeight: part * usual };
      const cost = cheapest(cellsOf(runs, pieces, standing, net), pieces.length);
      if (cost < least) [best, least] = [standing, cost];
    }
  return best;
}

/** What the likeliest reading of the whole line costs, letter by letter. */
function cheapest(cells: readonly Cell[][], count: number): number {
  const costs = new Float64Array(count + 1).fill(Infinity);
  costs[0] = 0;
  for (let at = 0; at < count; at++)
    for (const { to, cost } of cells[at]!) costs[to] = Math.min(costs[to]!, costs[at]! + cost);
  return costs[count]!;
}

/** What may begin at each piece. */
function cellsOf(
  runs: readonly Run[],
  pieces: readonly Piece[],
  standing: Standing,
  net: LetterNet,
): Cell[][] {
  const cells: Cell[][] = pieces.map(() => []);
  for (const run of runs) {
    const { from, to } = run;
    const shape = shapeCost(pieces, from, to, standing.xHeight) + CHARACTER_COST;
    for (const { character, cost } of candidatesOf(run, standing, net)) {
      const none = Math.max(0, cost - run.judged.none) * NONE_SHARE;
      cells[from]!.push({ from, to, character, cost: cost + none + shape });
    }
  }
  for (const [from, { isLink }] of pieces.entries())
    if (isLink) cells[from]!.push({ from, to: from + 1, character: '', cost: LINK_COST });
  return cells;
}

/** What it costs to take pieces together that lie apart, and to part from the next what lies over it. */
function shapeCost(pieces: readonly Piece[], from: number, to: number, xHeight: number): number {
  let cost = 0;
  let right = -Infinity;
  for (const { box } of pieces.slice(from, to).sort((a, b) => a.box.left - b.box.left)) {
    const gap = (box.left - right) / xHeight;
    if (gap < Infinity && gap > GAP_COST.slack) cost += GAP_COST.any + GAP_COST.part * gap;
    right = Math.max(right, box.left + box.width);
  }
  if (to > from + 1 && hasSignBeside(pieces.slice(from, to), xHeight)) cost += SIGN_BESIDE;
  const next = pieces[to];
  if (next) {
    const shared = Math.min(right, next.box.left + next.box.width) - next.box.left;
    const narrower = Math.max(1e-6, Math.min(next.box.width, right - pieces[from]!.box.left));
    cost += OVERLAP_COST * Math.max(0, Math.min(1, shared / narrower) - 0.25);
  }
  return cost;
}

/** Whether a comma or dot stands to the right of the rest, low: then it is no part of a letter. */
function hasSignBeside(pieces: readonly Piece[], xHeight: number): boolean {
  const bottom = Math.max(...pieces.map(({ box }) => box.top + box.height));
  return pieces.some(({ box }) => {
    const others = pieces.filter((piece) => piece.box !== box);
    const right = Math.max(...others.map((other) => other.box.left + other.box.width));
    const isTiny = Math.max(box.width, box.height) < 0.4 * xHeight;
    const top = Math.min(...others.map((other) => other.box.top));
    // Under what it belongs to, such as in a question mark, it does not stand beside it.
    return isTiny && box.left > right - 0.1 * xHeight && box.top > (top + bottom) / 2;
  });
}

/** Pieces that belong to a word: from and to. */
function wordSpans(pieces: readonly Piece[], usual: number): [number, number][] {
  let right = -Infinity;
  const between = pieces.map(({ box }) => {
    const gap = (box.left - right) / usual;
    right = Math.max(right, box.left + box.width);
    return Math.min(WORD_GAP.most, gap);
  });
  const least = leastWordGap(between.slice(1).filter((gap) => gap > WORD_GAP.none));
  const spans: [number, number][] = [];
  for (const [i, gap] of between.entries()) {
    if (i === 0 || gap >= least) spans.push([i, i + 1]);
    else spans.at(-1)![1] = i + 1;
  }
  return spans;
}

/** The gap that best parts wide gaps from narrow ones (Otsu 1979); none where all are alike. */
function leastWordGap(gaps: readonly number[]): number {
  const sorted = gaps.toSorted((a, b) => a - b);
  let [best, most] = [Infinity, 0];
  for (let n = 1; n < sorted.length; n++) {
    const [low, high] = [mean(sorted.slice(0, n)), mean(sorted.slice(n))];
    const between = n * (sorted.length - n) * (high - low) ** 2;
    if (between > most && high > WORD_GAP.times * low)
      [best, most] = [(sorted[n - 1]! + sorted[n]!) / 2, between];
  }
  return Math.max(WORD_GAP.least, Math.min(best, WORD_GAP.sure));
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

interface Way {
  text: string;
  cost: number;
}

/** The likeliest readings of a word. */
function readWord(
  cells: readonly Cell[][],
  from: number,
  to: number,
  isFirst: boolean,
  words: WordList | undefined,
): string[] {
  const ways: Way[][] = Array.from({ length: to - from + 1 }, () => []);
  ways[0]!.push({ text: '', cost: 0 });
  for (let at = from; at < to; at++) {
    const here = kept(ways[at - from]!, words);
    for (const cell of cells[at]!) {
      if (cell.to > to) continue;
      for (const way of here)
        ways[cell.to - from]!.push({
          text: way.text + cell.character,
          cost: way.cost + cell.cost + neighbourCost(way.text, cell.character),
        });
    }
  }
  const whole = kept(ways[to - from]!, words).map(({ text, cost }) => ({
    text,
    cost: cost + listCost(text, words) + beginningCost(text, isFirst),
  }));
  return whole
    .sort((a, b) => a.cost - b.cost)
    .map(({ text }) => text)
    .slice(0, OFFERED);
}

/** Signs that end a sentence or a part of one belong to the word before them, however far off they are. */
function joined(words: readonly ReadWord[]): ReadWord[] {
  const all: ReadWord[] = [];
  for (const word of words) {
    const last = all.at(-1);
    const [sign] = word.readings;
    if (last && sign !== undefined && /^[.,;:!?]$/.test(sign))
      all[all.length - 1] = {
        readings: last.readings.map((reading) => reading + sign),
        strokes: [...last.strokes, ...word.strokes],
      };
    else all.push(word);
  }
  return all;
}

/** A line more often begins with a capital, a word within it with a small letter. */
function beginningCost(text: string, isFirst: boolean): number {
  const first = lettersOf(text)[0] ?? '';
  return isFirst ? (isSmall(first) ? 0.9 : 0) : isCapital(first) ? 1.5 : 0;
}

/** The likeliest ways, each text once; as many again that may become words of the list. */
function kept(ways: readonly Way[], words: WordList | undefined): Way[] {
  const byText = new Map<string, Way>();
  for (const way of ways) if (way.cost < (byText.get(way.text)?.cost ?? Infinity)) byText.set(way.text, way);
  const sorted = [...byText.values()].sort((a, b) => a.cost - b.cost);
  const first = sorted.slice(0, BEAM);
  if (!words) return first;
  const more = sorted.slice(BEAM, MOST_LOOKED_AT).filter(({ text }) => words.begins(lettersOf(text)));
  return [...first, ...more.slice(0, BEAM)];
}

/** A word without the signs round it. */
function lettersOf(text: string): string {
  return text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
}

function listCost(text: string, words: WordList | undefined): number {
  const word = lettersOf(text);
  if (!words || !/\p{L}/u.test(word)) return 0;
  const rank = isMixed(word) ? undefined : words.rankOf(word);
  return rank === undefined ? UNKNOWN + 0.25 * word.length : RARER * rank;
}

/** Capitals after small letters, or small letters after more than one capital. */
const isMixed = (word: string) => /\p{Ll}\p{Lu}|\p{Lu}\p{Lu}\p{Ll}/u.test(word);
const isCapital = (text: string) => /\p{Lu}/u.test(text);
const isSmall = (text: string) => /\p{Ll}/u.test(text);
const isFigure = (text: string) => /\p{N}/u.test(text);

function neighbourCost(before: string, next: string): number {
  if (next === '') return 0;
  const last = before.at(-1);
  const isSign = !isCapital(next) && !isSmall(next) && !isFigure(next);
  if (last === undefined) return isSign ? NEIGHBOURS.startSign : 0;
  if (isSmall(last) && isCapital(next)) return NEIGHBOURS.capital;
  if (isFigure(last) !== isFigure(next) && !isSign && /[\p{L}\p{N}]/u.test(last)) return NEIGHBOURS.figure;
  if (isCapital(last) && isCapital(next)) return before.length > 1 ? 0.2 : 0.9;
  if (isSign) return /[,.!?;:'%-]/.test(next) ? 0.4 : NEIGHBOURS.sign;
  if (!/[\p{L}\p{N}]/u.test(last)) return /['(-]/.test(last) ? 0.2 : NEIGHBOURS.afterSign;
  return 0;
}
