import type { Rect } from '../geometry/rect.js';
import { unionRect } from '../geometry/rect.js';
import type { MarkOf, TextStyle } from '../marks/mark.js';
import { TEXT_SIZE } from '../marks/check.js';
import { faceOf } from './font.js';
import type { Look, TextLayout } from './layout.js';
import { layoutReach, layoutSpans, layoutText, LINE_HEIGHT } from './layout.js';

/** Space inside a note, as a part of its shorter side. */
const NOTE_PADDING = 0.08;
const NOTE_SIZES = { most: 64, least: 6 };

/** What decides how a text mark's words lie. */
type Words = Pick<MarkOf<'text'>, 'text' | 'style' | 'width' | 'parts'>;

/** How a text mark's words lie in its box. */
export function textLayout({ text, style, width, parts = [] }: Words): TextLayout {
  const spans = parts.map(({ from, to, scale = 1, ...own }) => {
    const size = Math.min(TEXT_SIZE.max, Math.max(TEXT_SIZE.min, style.size * scale));
    return { from, to, look: lookOf({ ...style, ...own, size }) };
  });
  return layoutSpans(text, lookOf(style), spans, width, style);
}

function lookOf(style: TextStyle): Look {
  const { size, colour, underline } = style;
  return { face: faceOf(style), size, colour, underline };
}

/** Height of a text mark, which follows from its words. Page units. */
export function textHeight(mark: Words): number {
  return textLayout(mark).height;
}

/** The words of a note in the largest size at which all of them fit, from its middle. */
export function noteLayout({ text, style, x, y, width, height }: MarkOf<'note'>): {
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

/** The rectangle that holds a text's box and all its letters, before it is turned. */
export function textReach(mark: MarkOf<'text'>): Rect {
  const layout = textLayout(mark);
  const { x, y, width } = mark;
  const reach = layoutReach(layout);
  return unionRect({ x, y, width, height: layout.height }, { ...reach, x: x + reach.x, y: y + reach.y });
}

/** The rectangle that holds all letters of a note, before it is turned. */
export function noteReach(mark: MarkOf<'note'>): Rect {
  const { layout, x, y } = noteLayout(mark);
  const reach = layoutReach(layout);
  return { ...reach, x: x + reach.x, y: y + reach.y };
}
