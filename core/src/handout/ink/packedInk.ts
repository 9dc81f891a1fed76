import type { Ink } from '../../ink/outline.js';
import { outlineCorners } from '../../ink/outline.js';
import { NATURES } from '../../marks/stroke/strokeMark.js';
import { AsciiWriter } from './asciiWriter.js';
import { fillInk } from './fillInk.js';

/** Numbers of a packed stroke before its points: its nature, its width and how many numbers its points are. */
const HEAD = 3;

/** What fills strokes in a content stream, one after the other, and where that of each ends. */
export interface WrittenInk {
  bytes: Uint8Array;
  ends: Uint32Array;
}

/** Strokes as flat numbers, which another thread can be given without a copy of each. */
export function packInk(strokes: readonly Ink[]): Float64Array<ArrayBuffer> {
  const length = strokes.reduce((sum, { points }) => sum + HEAD + points.length, 0);
  const packed = new Float64Array(length);
  let at = 0;
  for (const { points, style } of strokes) {
    packed[at] = NATURES.indexOf(style.nature);
    packed[at + 1] = style.width;
    packed[at + 2] = points.length;
    packed.set(points, at + HEAD);
    at += HEAD + points.length;
  }
  return packed;
}

/** What fills the strokes of `packInk`, as `fillInk` writes each of them. */
export function writeInk(packed: Float64Array): WrittenInk {
  const content = new AsciiWriter();
  const ends: number[] = [];
  for (let at = 0; at < packed.length;) {
    const points = at + HEAD;
    const after = points + packed[at + 2]!;
    const style = { nature: NATURES[packed[at]!]!, width: packed[at + 1]! };
    fillInk(content, outlineCorners({ points: packed.subarray(points, after), style }));
    ends.push(content.bytes().length);
    at = after;
  }
  return { bytes: content.bytes(), ends: Uint32Array.from(ends) };
}
