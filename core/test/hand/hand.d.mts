import type { Random } from './random.mjs';

type Point = readonly [number, number];

export interface HandLook {
  ends?: number;
  corner?: number;
  tremor?: number;
}

/** A line as a hand draws it, as points of a stroke. `size` is that of the whole drawing, units. */
export function drawn(line: readonly Point[], size: number, random: Random, look?: HandLook): number[];
