import type { Mark } from '../marks/mark.js';
import { kindOf } from '../marks/mark.js';
import type { PaintItem } from './items.js';

/** How a mark is drawn; canvas, PDF and pictures all draw exactly this. */
export function paintMark(mark: Mark): PaintItem[] {
  return kindOf(mark).paint(mark);
}
