import { describe, expect, it } from 'vitest';
import { evenOut } from '../src/neaten/index.js';
import type { Random } from './hand/random.mjs';
import { seeded } from './hand/random.mjs';
import { writtenLetters } from './hand/writing.mjs';

/** Letters that stand on the base line and are as high as an x. */
const SMALL = /[aceimnorsuvwxz]/;
const TEXTS = ['measure the beam', 'some rivers curve', 'a new arc', 'sum is seven'];

type Letters = ReturnType<typeof writtenLetters>;

/** Writing of a hand in a hurry: the line climbs, letters dance, lean and grow as they like. */
function hurried(text: string, random: Random, tilt = random.between(-5, 5)): Letters {
  const letters = writtenLetters(text, { face: 'EMSReadability', size: 70, random });
  const slope = Math.tan((tilt * Math.PI) / 180);
  let push = 0;
  return letters.map(({ character, strokes }) => {
    const [lift, lean, grow] = [random.normal(3.5), random.normal(0.14), random.between(0.86, 1.14)];
    push += random.between(-4, 6);
    const [left] = strokes[0]!;
    const move = (points: number[]) =>
      points.map((value, i) => {
        if (i % 4 > 1) return value;
        const [x, y] = i % 4 === 0 ? [value, points[i + 1]!] : [points[i - 1]!, value];
        const [u, v] = [left! + (x - left!) * grow - lean * (y - 300) * grow, 300 + (y - 300) * grow];
        return i % 4 === 0 ? u + push : v + lift + (u - 100) * slope;
      });
    return { character, strokes: strokes.map(move) };
  });
}

function evened(letters: Letters): Letters {
  const even = evenOut(letters.flatMap(({ strokes }) => strokes));
  let at = 0;
  return letters.map(({ character, strokes }) => ({
    character,
    strokes: even.slice(at, (at += strokes.length)),
  }));
}

const spread = (values: readonly number[]) => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
};
const only = (strokes: readonly number[][], axis: 0 | 1) =>
  strokes.flatMap((points) => points.filter((_, i) => i % 4 === axis));
const small = (letters: Letters) => letters.filter(({ character }) => SMALL.test(character));
const bottoms = (letters: Letters) => small(letters).map(({ strokes }) => Math.max(...only(strokes, 1)));
// The i has a dot, which is no part of its height.
const heights = (letters: Letters) =>
  small(letters)
    .filter(({ character }) => character !== 'i')
    .map(({ strokes }) => Math.max(...only(strokes, 1)) - Math.min(...only(strokes, 1)));

/** How far the near upright pieces of each letter lean. */
const leans = (letters: Letters) =>
  small(letters).flatMap(({ strokes }) => {
    let [across, down] = [0, 0];
    for (const points of strokes)
      for (let i = 4; i < points.length; i += 4) {
        const [dx, dy] = [points[i]! - points[i - 4]!, points[i + 1]! - points[i - 3]!];
        if (Math.abs(dx) > 0.75 * Math.abs(dy)) continue;
        across += -dx * Math.sign(dy);
        down += Math.abs(dy);
      }
    return down > 0 ? [across / down] : [];
  });

describe('writing evened out', () => {
  const cases = TEXTS.flatMap((text, i) => [1, 2, 3].map((n) => [text, 100 * i + n] as const));
  const all = cases.map(([text, seed]) => {
    const before = hurried(text, seeded(seed));
    return { before, after: evened(before) };
  });
  const ratio = (of: (letters: Letters) => number[]) => {
    const sum = (which: 'before' | 'after') => all.reduce((total, one) => total + spread(of(one[which])), 0);
    return sum('after') / sum('before');
  };

  it('stands on a straight and level base line', () => {
    expect(ratio(bottoms)).toBeLessThan(0.2);
  });

  it('leans alike, and is of like size', () => {
    expect(ratio(leans)).toBeLessThan(0.6);
    expect(ratio(heights)).toBeLessThan(0.5);
  });

  it('is still the same hand: as many points, each letter much as it was, in the same order', () => {
    for (const { before, after } of all) {
      before.forEach(({ strokes }, i) => {
        const now = after[i]!.strokes;
        expect(now.map(({ length }) => length)).toEqual(strokes.map(({ length }) => length));
        const [x0, x1] = [Math.min(...only(strokes, 0)), Math.min(...only(now, 0))];
        expect(Math.abs(x1 - x0)).toBeLessThan(60);
        const [w0, w1] = [strokes, now].map((of) => Math.max(...only(of, 1)) - Math.min(...only(of, 1)));
        expect(w1! / w0!).toBeGreaterThan(0.6);
        expect(w1! / w0!).toBeLessThan(1.6);
      });
      const lefts = after.map(({ strokes }) => Math.min(...only(strokes, 0)));
      expect(lefts).toEqual(lefts.toSorted((a, b) => a - b));
    }
  });

  it('keeps the direction of a line that is meant to climb', () => {
    const before = hurried('measure the beam', seeded(9), 25);
    const feet = bottoms(evened(before));
    expect(Math.abs(feet.at(-1)! - feet[0]!)).toBeGreaterThan(60);
  });

  it('keeps lines apart, pressure and time as they were, and takes what is hardly writing', () => {
    const first = hurried('some rivers', seeded(4), 0);
    const second = hurried('a new arc', seeded(5), 0).map(({ character, strokes }) => ({
      character,
      strokes: strokes.map((points) => points.map((value, i) => (i % 4 === 1 ? value + 160 : value))),
    }));
    const both = evened([...first, ...second]);
    expect(spread(bottoms(both.slice(0, first.length)))).toBeLessThan(2);
    expect(spread(bottoms(both.slice(first.length)))).toBeLessThan(2);
    const [points] = first[0]!.strokes;
    expect(evenOut([points!])[0]!.filter((_, i) => i % 4 > 1)).toEqual(points!.filter((_, i) => i % 4 > 1));
    expect(evenOut([])).toEqual([]);
    expect(evenOut([[5, 5, 0.5, 0]])).toEqual([[5, 5, 0.5, 0]]);
  });
});
