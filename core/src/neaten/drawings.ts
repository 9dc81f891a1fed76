import { pointSegmentDistanceSquared } from '../geometry/segment.js';
import type { Point } from './trace.js';
import { pointsOfStroke, sizeOf } from './trace.js';

/** Ends that lie so near another stroke belong to the same drawing, as part of the smaller one's size. */
const NEAR = 0.3;

/**
 * Which strokes make one drawing: those that end on each other. Gives the places of the strokes of each drawing, in their
 * order; a circle within a square is a drawing of its own.
 */
export function drawingsOf(strokes: readonly (readonly number[])[]): number[][] {
  const lines = strokes.map(pointsOfStroke);
  const drawing = lines.map((_, i) => i);
  lines.forEach((line, i) => {
    for (let k = 0; k < i; k++) if (drawing[i] !== drawing[k] && meet(line, lines[k]!)) join(drawing, i, k);
  });
  const groups = new Map<number, number[]>();
  drawing.forEach((of, i) => groups.set(of, [...(groups.get(of) ?? []), i]));
  return [...groups.values()];
}

function join(drawing: number[], i: number, k: number): void {
  const [from, to] = [drawing[i]!, drawing[k]!];
  drawing.forEach((of, at) => {
    if (of === from) drawing[at] = to;
  });
}

function meet(a: readonly Point[], b: readonly Point[]): boolean {
  const reach = NEAR * Math.min(sizeOf([a]), sizeOf([b]));
  const ends = (line: readonly Point[]) => [line[0]!, line.at(-1)!];
  const touches = (line: readonly Point[], other: readonly Point[]) =>
    ends(line).some(([x, y]) => distanceTo(other, x, y) <= reach * reach);
  return a.length > 0 && b.length > 0 && (touches(a, b) || touches(b, a));
}

function distanceTo(line: readonly Point[], x: number, y: number): number {
  let least = Infinity;
  for (let i = 1; i < line.length; i++)
    least = Math.min(least, pointSegmentDistanceSquared(x, y, ...line[i - 1]!, ...line[i]!));
  return least;
}
