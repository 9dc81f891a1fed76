import { STRIDE } from '../ink/points.js';

/** How far a point is drawn to the middle of its neighbours, and how often; corners sharper than this (cosine) stay. */
const PULL = 0.5;
const TIMES = 2;
const SHARP = 0.3;

/** A stroke whose tremor is taken out; its ends and sharp corners stay where they are. */
export function smoothed(points: readonly number[]): number[] {
  let line = [...points];
  for (let time = 0; time < TIMES; time++) {
    const before = line;
    line = [...before];
    for (let i = STRIDE; i + STRIDE < before.length; i += STRIDE) {
      const [ax, ay] = [before[i]! - before[i - STRIDE]!, before[i + 1]! - before[i - STRIDE + 1]!];
      const [bx, by] = [before[i + STRIDE]! - before[i]!, before[i + STRIDE + 1]! - before[i + 1]!];
      if (ax * bx + ay * by < SHARP * Math.hypot(ax, ay) * Math.hypot(bx, by)) continue;
      line[i] = before[i]! + (PULL * (bx - ax)) / 2;
      line[i + 1] = before[i + 1]! + (PULL * (by - ay)) / 2;
    }
  }
  return line;
}
