import { STRIDE } from '../ink/points.js';
import type { MarkOf } from '../marks/mark.js';
import { countWhile } from '../ops/countWhile.js';

/** How long the hand took for a stroke, milliseconds. */
export function durationOf({ points }: MarkOf<'stroke'>): number {
  return points.length === 0 ? 0 : points[points.length - 1]!;
}

/** A stroke as far as it was drawn so many milliseconds after its first point; undefined before it. */
export function inkUntil(stroke: MarkOf<'stroke'>, time: number): MarkOf<'stroke'> | undefined {
  const { points } = stroke;
  if (time < 0 || points.length === 0) return undefined;
  const count = drawnBy(points, time);
  if (count * STRIDE === points.length) return stroke;
  const at = count * STRIDE;
  const drawn = points.slice(0, at);
  const [before, after] = [points[at - 1]!, points[at + 3]!];
  if (count > 0 && after > before) {
    const share = (time - before) / (after - before);
    for (let i = 0; i < 3; i++)
      drawn.push(points[at - STRIDE + i]! + share * (points[at + i]! - points[at - STRIDE + i]!));
    drawn.push(time);
  }
  return { ...stroke, points: drawn };
}

/** How many points were there at a time. */
function drawnBy(points: readonly number[], time: number): number {
  const count = countWhile(points.length / STRIDE, (i) => points[i * STRIDE + 3]! <= time);
  return Math.max(1, count);
}
