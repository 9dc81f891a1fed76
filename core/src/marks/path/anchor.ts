import { applyMatrix } from '../../geometry/matrix.js';
import { boxMatrix } from '../../geometry/turnedBox.js';
import { markBox } from '../bounds.js';
import type { PatchOf } from '../kind.js';
import type { Mark } from '../mark.js';
import { hasBox } from '../mark.js';
import type { Anchor, PathMark } from './pathMark.js';

/** Where a line's end at a point of a mark sticks to it; undefined for marks without a box. */
export function anchorAt(mark: Mark, x: number, y: number): Anchor | undefined {
  if (!hasBox(mark)) return undefined;
  const box = markBox(mark);
  const back = boxMatrix({ ...box, rotation: -box.rotation, flip: false });
  const [px, py] = back ? applyMatrix(back, x, y) : [x, y];
  const part = (value: number) => Math.min(1, Math.max(0, Math.round(value * 1000) / 1000));
  return { mark: mark.id, x: part((px - box.x) / box.width), y: part((py - box.y) / box.height) };
}

/** The point that an anchor means on its mark as it is now. */
export function anchorPoint(anchor: Anchor, mark: Mark): [number, number] | undefined {
  if (!hasBox(mark)) return undefined;
  const box = markBox(mark);
  const matrix = boxMatrix({ ...box, flip: false });
  const [x, y] = [box.x + anchor.x * box.width, box.y + anchor.y * box.height];
  return matrix ? applyMatrix(matrix, x, y) : [x, y];
}

/** The patch that brings a line's ends back to the marks they stick to; undefined where they are there. */
export function followAnchors(
  line: PathMark,
  find: (id: string) => Mark | undefined,
): PatchOf<PathMark> | undefined {
  const points = [...line.points];
  const put = (anchor: Anchor | null, at: number) => {
    const mark = anchor && find(anchor.mark);
    const place = mark && anchorPoint(anchor, mark);
    if (place)
      [points[at], points[at + 1]] = place.map((value) => Math.round(value * 100) / 100) as [number, number];
  };
  const last = points.length - 2;
  put(line.from, 0);
  put(line.to, last);
  // What bends it goes along.
  for (let i = 2; i < last && line.course !== 'straight'; i++) {
    const [far, axis] = [(i - (i % 2)) / last, i % 2];
    const shift = (at: number) => points[at + axis]! - line.points[at + axis]!;
    points[i]! += (1 - far) * shift(0) + far * shift(last);
  }
  return points.some((value, i) => value !== line.points[i]) ? { points } : undefined;
}
