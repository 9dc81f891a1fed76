import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import type { HandSample, LetterNet } from '../src/handwriting/index.js';
import {
  areSamples,
  featuresOf,
  glyphOf,
  impressionsOf,
  learnedNet,
  readWriting,
  samplesOf,
  WordList,
} from '../src/handwriting/index.js';
import { seeded } from './hand/random.mjs';
import {
  COMMON_WORDS,
  LEARNED_FACES,
  LESS_COMMON_WORDS,
  sentence,
  UNSEEN_FACES,
  writtenLetters,
} from './hand/writing.mjs';

let net: LetterNet;
const words = new WordList([COMMON_WORDS, LESS_COMMON_WORDS]);

beforeAll(async () => {
  net = await learnedNet();
});

function written(
  text: string,
  face: string,
  seed: number,
  place: { x?: number; y?: number } = {},
): number[][] {
  const letters = writtenLetters(text, { face, size: 60, random: seeded(seed), ...place });
  return letters.flatMap(({ strokes }) => strokes);
}

function read(strokes: number[][], list?: WordList): string[] {
  return readWriting(strokes, net, list).map((line) =>
    line.words.map(({ readings }) => readings[0]).join(' '),
  );
}

describe('what a character looks like', () => {
  const place = fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }));
  const stroke = fc.array(place, { minLength: 2, maxLength: 12 });

  it('is the same wherever it is written, however large, in whichever order and direction', () => {
    fc.assert(
      fc.property(
        fc.array(stroke, { minLength: 1, maxLength: 3 }),
        fc.double({ min: 0.3, max: 9, noNaN: true }),
        (strokes, scale) => {
          // prettier-ignore
          const plain = featuresOf(strokes.map((places) => places.flat()));
          const other = featuresOf(
            strokes.map((places) => places.toReversed().flatMap(([x, y]) => [x * scale + 70, y * scale - 30])).toReversed(), // prettier-ignore
          );
          plain.forEach((value, i) => expect(other[i]).toBeCloseTo(value, 3));
        },
      ),
    );
  });
});

describe('reading handwriting', () => {
  it('is tried on faces from which nothing was learned (hersheytext: Hershey’s and the EMS series)', () => {
    expect(UNSEEN_FACES.length).toBeGreaterThan(1);
    for (const face of UNSEEN_FACES) expect(LEARNED_FACES).not.toContain(face);
  });

  it('finds nearly all words of lines of common words, and among the next readings still more', () => {
    let [all, first, offered] = [0, 0, 0];
    for (const face of UNSEEN_FACES)
      for (let seed = 0; seed < 4; seed++) {
        const text = sentence(seeded(4000 + seed));
        const lines = readWriting(written(text, face, 40 + seed), net, words);
        const got = lines.flatMap((line) => line.words.map(({ readings }) => readings));
        for (const word of text.split(' ')) {
          all += 1;
          if (got.some(([best]) => best === word)) first += 1;
          if (got.some((readings) => readings.includes(word))) offered += 1;
        }
      }
    expect(first / all).toBeGreaterThan(0.85);
    expect(offered).toBeGreaterThanOrEqual(first);
    expect(offered / all).toBeGreaterThan(0.9);
  });

  it('keeps lines apart, and says which strokes each word was written by', () => {
    const strokes = [
      ...written('Two lines', 'HersheySans1', 3),
      ...written('of words', 'HersheySans1', 4, { y: 420 }),
    ];
    const lines = readWriting(strokes, net, words);
    expect(lines.map((line) => line.words.map(({ readings }) => readings[0]))).toEqual([
      ['Two', 'lines'],
      ['of', 'words'],
    ]);
    const used = lines.flatMap((line) => line.words.flatMap((word) => word.strokes));
    expect(used.toSorted((a, b) => a - b)).toEqual(strokes.map((_, i) => i));
    expect(lines[1]!.base - lines[0]!.base).toBeGreaterThan(90);
  });

  it('reads signs over letters as one letter with them (Unicode NFC, UAX #15)', () => {
    const first = (word: string, face: string) => read(written(word, face, 12)).join(' ');
    expect(first('über', 'HersheySans1')).toBe('über'.normalize('NFC'));
    expect(first('köln', 'HersheySans1')).toBe('köln'.normalize('NFC'));
    expect(first('señor', 'EMSTech')).toBe('señor'.normalize('NFC'));
  });

  it('is helped by a list of words, which does not know better where a word is in none', () => {
    const strokes = written('common words', 'HersheySans1', 8);
    expect(read(strokes, words)).toEqual(['common words']);
    expect(words.rankOf('The')).toBe(0);
    expect(words.begins('comm')).toBe(true);
    expect(words.rankOf('xqz')).toBeUndefined();
  });

  it('leaves no trace on the ink, and reads nothing from nothing', () => {
    const strokes = written('again', 'EMSTech', 5);
    const before = structuredClone(strokes);
    read(strokes);
    expect(strokes).toEqual(before);
    expect(read([])).toEqual([]);
    expect(read([[10, 10, 0.5, 0, 10, 10, 0.5, 5]])).toEqual([]);
  });
});

describe('a hand that was taught', () => {
  const LINES = ['The quick brown fox', 'jumps over the lazy dog', '0123456789 ? !', 'ABCDEFGHIJKLM'];
  const copied = (face: string) =>
    LINES.flatMap((text, n) => samplesOf(written(text, face, 90 + n), text, net) ?? []);

  it('gives a sample of each letter of a copied line, which can be kept', () => {
    const samples = samplesOf(written(LINES[0]!, 'HersheySans1', 90), LINES[0]!, net)!;
    expect(samples.map(({ character }) => character).join('')).toBe('Thequickbrownfox');
    expect(areSamples(JSON.parse(JSON.stringify(copied('EMSTech'))))).toBe(true);
    expect(JSON.stringify(copied('EMSTech')).length).toBeLessThan(60_000);
  });

  it('is no sample where something else was written', () => {
    expect(samplesOf(written('Hello', 'HersheySans1', 90), LINES[0]!, net)).toBeUndefined();
    expect(samplesOf(written(LINES[1]!, 'HersheySans1', 90), '0123456789', net)).toBeUndefined();
    expect(samplesOf([], 'a', net)).toBeUndefined();
  });

  it('is read better than before', () => {
    const wrong = () => {
      let count = 0;
      for (let seed = 0; seed < 6; seed++) {
        const text = sentence(seeded(7000 + seed));
        const [got = ''] = read(written(text, 'EMSTech', 60 + seed));
        count += text.split(' ').filter((word) => !got.split(' ').includes(word)).length;
      }
      return count;
    };
    const before = wrong();
    net.teach(impressionsOf(copied('EMSTech'), net));
    const after = wrong();
    net.teach([]);
    expect(after).toBeLessThan(before);
  });

  it('is not taken from outside where it is no list of samples', () => {
    const sample: HandSample = { character: 'a', strokes: [[1, 2, 3, 4]] };
    expect(areSamples([sample])).toBe(true);
    const wrong: unknown[] = [
      {},
      [null],
      [{ ...sample, character: 'abc' }],
      [{ ...sample, strokes: [[1]] }],
      [{ ...sample, strokes: [[1, Number.NaN]] }],
      [{ ...sample, strokes: 'x' }],
      Array.from({ length: 999 }, () => sample),
    ];
    for (const each of wrong) expect(areSamples(each)).toBe(false);
  });

  it('compares letters by what they look like, not by where they are', () => {
    const [a] = writtenLetters('a', { face: 'EMSTech', size: 50, random: seeded(1) });
    const [same] = writtenLetters('a', { face: 'EMSTech', size: 90, random: seeded(1), x: 400 });
    const [one, other] = [a!, same!].map(({ strokes }) => net.judge(featuresOf(glyphOf(strokes))).impression);
    const like = one!.reduce((sum, value, i) => sum + value * other![i]!, 0);
    expect(like).toBeGreaterThan(0.85);
  });
});
