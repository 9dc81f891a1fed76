import type { PaintItem } from '../paint/items.js';
import { textWidth } from '../text/layout.js';

/** A number beside a ruling, its middle at `x`, on a base line, page units. */
export function written(text: string, x: number, y: number, size: number, colour: string): PaintItem {
  const width = textWidth(text, 'andika', size);
  const place = { x: x - width / 2, y, text, width };
  return { kind: 'text', ...place, face: 'andika', size, colour, fallback: false, matrix: undefined };
}
