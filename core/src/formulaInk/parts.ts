import type { GlyphBox } from '../handwriting/features.js';
import { boxOfGlyph } from '../handwriting/features.js';

/** A stroke of a formula: flat x, y. */
export interface Part {
  line: readonly number[];
  box: GlyphBox;
}

export const rightOf = (box: GlyphBox) => box.left + box.width;
export const bottomOf = (box: GlyphBox) => box.top + box.height;
export const middleX = (box: GlyphBox) => box.left + box.width / 2;
export const middleY = (box: GlyphBox) => box.top + box.height / 2;
export const sizeOf = (box: GlyphBox) => Math.max(box.width, box.height);

/** The box round several. */
export function boxRound(boxes: readonly GlyphBox[]): GlyphBox {
  const [left, top] = [Math.min(...boxes.map((box) => box.left)), Math.min(...boxes.map((box) => box.top))];
  const width = Math.max(...boxes.map(rightOf)) - left;
  return { left, top, width, height: Math.max(...boxes.map(bottomOf)) - top };
}

export function partOf(line: readonly number[]): Part {
  return { line, box: boxOfGlyph([line]) };
}

/** How large signs are that stand on the line: the upper middle of the sizes of strokes, those of bars and dots left out. */
export function usualSize(parts: readonly Part[]): number {
  const sizes = parts
    .filter(({ box }) => box.height > 0.3 * box.width)
    .map(({ box }) => box.height)
    .sort((a, b) => a - b);
  const all = sizes.length > 0 ? sizes : parts.map(({ box }) => sizeOf(box) / 2).sort((a, b) => a - b);
  return Math.max(1, all[Math.floor(all.length * 0.75)] ?? 1);
}
