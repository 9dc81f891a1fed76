import { STRIDE } from '../ink/points.js';
import { smoothed } from './smoothed.js';
import type { Letter } from './writtenLines.js';
import { writtenLines } from './writtenLines.js';

/** A letter that stands so far from the base line does not stand on it: it goes below, or is a sign above; part of the x-height. */
const STANDS = 0.45;
/** What is taken for near vertical when the slant is read, as tangent. */
const STEEPEST = 0.75;
/** A letter becomes larger or smaller by at most this factor. */
const MOST_GROWTH = 1.25;
/** A gap that is so many times as wide as most, and this part of the x-height, parts words. */
const WORD_GAP = { times: 2.2, part: 0.55 };

/**
 * Handwriting made even, still the person's own hand: the base line straight and level if it nearly was, letters on it,
 * upright or slanting alike, of like size and at like distances, lines smooth. Takes and gives back the points of strokes
 * (`STRIDE` numbers each), each with as many points as before. No letter is recognised.
 */
export function evenOut(strokes: readonly (readonly number[])[]): number[][] {
  const result = strokes.map((points) => smoothed(points));
  for (const line of writtenLines(result)) {
    line.level();
    standOnBase(line.letters, line.base, line.xHeight);
    slantAlike(line.letters, line.base);
    growAlike(line.letters, line.base, line.xHeight);
    spaceAlike(line.letters, line.xHeight);
  }
  return result.map((points) =>
    points.map((value, i) => (i % STRIDE < 2 ? Math.round(value * 100) / 100 : value)),
  );
}

/** Puts letters on the base line; those that do not stand on it go along with their neighbours. */
function standOnBase(letters: readonly Letter[], base: number, xHeight: number): void {
  const offs = letters.map((letter) => {
    const off = base - letter.box().bottom;
    return Math.abs(off) <= STANDS * xHeight ? off : undefined;
  });
  letters.forEach((letter, i) => letter.map((x, y) => [x, y + (offs[i] ?? nearestOff(offs, i))]));
}

function nearestOff(offs: readonly (number | undefined)[], i: number): number {
  for (let far = 1; far < offs.length; far++) {
    const known = [offs[i - far], offs[i + far]].filter((off) => off !== undefined);
    if (known.length > 0) return known.reduce((sum, off) => sum + off, 0) / known.length;
  }
  return 0;
}

/** Shears each letter about the base line so that its upright lines lean as those of the whole line do. */
function slantAlike(letters: readonly Letter[], base: number): void {
  const slants = letters.map(slantOf);
  const known = slants.flatMap(({ slant, weight }) => (weight > 0 ? [{ slant, weight }] : []));
  const all = known.reduce((sum, { weight }) => sum + weight, 0);
  if (all === 0) return;
  const mean = known.reduce((sum, { slant, weight }) => sum + slant * weight, 0) / all;
  letters.forEach((letter, i) => {
    const { slant, weight } = slants[i]!;
    if (weight > 0) letter.map((x, y) => [x + (mean - slant) * (base - y), y]);
  });
}

/** How far a letter's near upright pieces lean to the right, as tangent, and how long they are. */
function slantOf(letter: Letter): { slant: number; weight: number } {
  let [sum, weight] = [0, 0];
  for (const points of letter.strokes)
    for (let i = STRIDE; i + 1 < points.length; i += STRIDE) {
      const [dx, dy] = [points[i]! - points[i - STRIDE]!, points[i + 1]! - points[i - STRIDE + 1]!];
      if (Math.abs(dx) > STEEPEST * Math.abs(dy) || dy === 0) continue;
      sum += (-dx / dy) * Math.abs(dy);
      weight += Math.abs(dy);
    }
  return { slant: weight > 0 ? sum / weight : 0, weight };
}

/** Gives small letters one height and tall ones another. */
function growAlike(letters: readonly Letter[], base: number, xHeight: number): void {
  const isTall = (letter: Letter) => base - letter.box().top > 1.35 * xHeight;
  for (const tall of [false, true]) {
    const alike = letters.filter((letter) => {
      const { top, bottom } = letter.box();
      return (
        isTall(letter) === tall && Math.abs(bottom - base) < STANDS * xHeight && base - top > 0.6 * xHeight
      );
    });
    const wanted = median(alike.map((letter) => base - letter.box().top));
    for (const letter of alike) {
      const growth = wanted / (base - letter.box().top);
      if (growth > MOST_GROWTH || growth < 1 / MOST_GROWTH) continue;
      const { left } = letter.box();
      letter.map((x, y) => [left + (x - left) * growth, base + (y - base) * growth]);
    }
  }
}

/** Makes gaps between letters alike, and those between words. */
function spaceAlike(letters: readonly Letter[], xHeight: number): void {
  const gaps = letters.slice(1).map((letter, i) => letter.box().left - letters[i]!.box().right);
  const usual = median(gaps);
  const isWide = (gap: number) =>
    gap > Math.max(WORD_GAP.times * Math.max(usual, 0), usual + WORD_GAP.part * xHeight);
  const [between, among] = [median(gaps.filter(isWide)), median(gaps.filter((gap) => !isWide(gap)))];
  let shift = 0;
  letters.slice(1).forEach((letter, i) => {
    shift += (isWide(gaps[i]!) ? between : among) - gaps[i]!;
    const by = shift;
    letter.map((x, y) => [x + by, y]);
  });
}

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
