import { writtenLines } from '../neaten/writtenLines.js';
import { featuresOf } from './features.js';
import type { LetterNet, TaughtSample } from './letterNet.js';
import type { ReadLine } from './readLine.js';
import { alignedTo, readLine } from './readLine.js';
import type { WordList } from './wordList.js';

/** A written line as it was read, and which strokes it was written by. */
export interface WrittenText extends ReadLine {
  strokes: readonly number[];
}

/** A character of somebody's own hand, as it is kept: where its strokes pass, in hundredths of its line's letters. */
export interface HandSample {
  character: string;
  strokes: readonly (readonly number[])[];
}

/**
 * Reads handwriting: strokes (`STRIDE` numbers a point) as lines of words from the top, each word with what else it may be. What
 * is left of a page of Latin writing that nothing is read from is left out.
 */
export function readWriting(
  strokes: readonly (readonly number[])[],
  net: LetterNet,
  words: WordList | undefined,
): WrittenText[] {
  const copies = strokes.map((points) => [...points]);
  const numbers = new Map(copies.map((points, i) => [points, i]));
  return writtenLines(copies).flatMap((line) => {
    line.level();
    const own = line.letters.flatMap((letter) => letter.strokes);
    const read = readLine(own, net, words);
    if (!read || read.words.every(({ readings }) => readings.length === 0)) return [];
    const number = (n: number) => numbers.get(own[n]!)!;
    return [
      {
        ...read,
        strokes: own.map((points) => numbers.get(points)!),
        words: read.words.map((word) => ({ ...word, strokes: word.strokes.map(number) })),
      },
    ];
  });
}

/** Samples of a hand from a line that was copied from a known text; undefined where something else was written. */
export function samplesOf(
  strokes: readonly (readonly number[])[],
  text: string,
  net: LetterNet,
): HandSample[] | undefined {
  return alignedTo(text, strokes, net)?.map(({ character, glyph }) => ({
    character,
    strokes: glyph.map((line) => kept(line)),
  }));
}

/** Samples as a net compares them. */
export function impressionsOf(samples: readonly HandSample[], net: LetterNet): TaughtSample[] {
  return samples.map(({ character, strokes }) => ({
    character,
    impression: net.judge(featuresOf(strokes)).impression,
  }));
}

/** Places of a stroke to a tenth of a page unit, no more than are needed to know it again. */
function kept(flat: readonly number[]): number[] {
  const count = flat.length / 2;
  const every = Math.max(1, Math.ceil(count / MOST_PLACES));
  const places = Array.from({ length: count }, (_, i) => i).filter((i) => i % every === 0 || i === count - 1);
  return places.flatMap((i) => [flat[2 * i]!, flat[2 * i + 1]!].map((value) => Math.round(value * 10) / 10));
}

/** Whether a value from outside is a list of samples. */
export function areSamples(value: unknown): value is HandSample[] {
  return (
    Array.isArray(value) &&
    value.length <= MOST_SAMPLES &&
    value.every((sample: unknown) => {
      if (typeof sample !== 'object' || sample === null) return false;
      const { character, strokes } = sample as { character?: unknown; strokes?: unknown };
      return (
        typeof character === 'string' &&
        character.length <= 2 &&
        Array.isArray(strokes) &&
        strokes.length <= 8 &&
        strokes.every(isLine)
      );
    })
  );
}

const MOST_SAMPLES = 200;
/** Places of a stroke that are kept. */
const MOST_PLACES = 20;
const MOST_NUMBERS = 100;

function isLine(value: unknown): boolean {
  return (
    Array.isArray(value) &&
    value.length <= MOST_NUMBERS &&
    value.length % 2 === 0 &&
    value.every((number) => typeof number === 'number' && Number.isFinite(number))
  );
}
