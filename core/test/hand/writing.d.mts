import type { HandLook } from './hand.mjs';
import type { Random } from './random.mjs';

interface WritingOptions {
  face: string;
  /** Height of the em, page units. */
  size: number;
  random: Random;
  x?: number;
  y?: number;
  look?: HandLook;
}

export const FACES: readonly string[];
export const LEARNED_FACES: readonly string[];
export const UNSEEN_FACES: readonly string[];
export function sentence(random: Random): string;
export function joinedStrokes(
  letters: readonly { character: string; strokes: number[][] }[],
  chance: number,
  random: Random,
): number[][];

/** Letters of a text one after the other, each with its strokes. */
export function writtenLetters(
  text: string,
  options: WritingOptions,
): { character: string; strokes: number[][] }[];

export const COMMON_WORDS: readonly string[];
export const LESS_COMMON_WORDS: readonly string[];
