import type { Rect } from '../../geometry/rect.js';
import type { TextLayout } from '../../text/layout.js';
import { layoutReach, layoutText, LINE_HEIGHT } from '../../text/layout.js';
import type { NoteMark } from './noteMark.js';

/** Space inside a note, as a part of its shorter side. */
const NOTE_PADDING = 0.08;
const NOTE_SIZES = { most: 64, least: 6 };

/** The words of a note in the largest size at which all of them fit, from its middle. */
export function noteLayout({ text, style, x, y, width, height }: NoteMark): {
  layout: TextLayout;
  x: number;
  y: number;
} {
  const padding = Math.min(width, height) * NOTE_PADDING;
  const room = { width: width - 2 * padding, height: height - 2 * padding };
  const at = (size: number) =>
    layoutText(text, style.font, size, room.width, { align: 'center', list: 'none' });
  const fits = (layout: TextLayout) => layout.height <= room.height && !layout.broken;
  let [low, high] = [NOTE_SIZES.least, Math.min(NOTE_SIZES.most, room.height / LINE_HEIGHT)];
  let best = at(low);
  for (let round = 0; round < 8; round++) {
    const middle = (low + high) / 2;
    const layout = at(middle);
    if (fits(layout)) [best, low] = [layout, middle];
    else high = middle;
  }
  return { layout: best, x: x + padding, y: y + (height - best.height) / 2 };
}

/** The rectangle that holds all letters of a note, before it is turned. */
export function noteReach(mark: NoteMark): Rect {
  const { layout, x, y } = noteLayout(mark);
  const reach = layoutReach(layout);
  return { ...reach, x: x + reach.x, y: y + reach.y };
}
