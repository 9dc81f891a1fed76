import type { Rect } from '../../geometry/rect.js';
import { unionRect } from '../../geometry/rect.js';
import { faceOf } from '../../text/font.js';
import type { Look, TextLayout } from '../../text/layout.js';
import { layoutReach, layoutSpans } from '../../text/layout.js';
import type { TextMark, TextStyle } from './textMark.js';
import { TEXT_SIZE } from './textMark.js';

/** What decides how a text mark's words lie. */
type Words = Pick<TextMark, 'text' | 'style' | 'width' | 'parts'>;

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

/** The rectangle that holds a text's box and all its letters as they are laid out, before it is turned. */
export function textReach({ x, y, width }: TextMark, layout: TextLayout): Rect {
  const reach = layoutReach(layout);
  return unionRect({ x, y, width, height: layout.height }, { ...reach, x: x + reach.x, y: y + reach.y });
}
