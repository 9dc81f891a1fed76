import { polylinePath } from '../../geometry/path.js';
import type { Rect } from '../../geometry/rect.js';
import { growRect, unionRect } from '../../geometry/rect.js';
import { boxCorners } from '../../geometry/turnedBox.js';
import type { PaintItem } from '../../paint/items.js';
import { rectanglePath, solid } from '../../paint/items.js';
import { closed } from '../boxParts.js';
import type { PointKind } from '../kind.js';
import type { QuoteMark } from './quoteMark.js';
import { QUOTE_FIELDS, QUOTE_STYLE } from './quoteMark.js';

/** Where the lines of marked words lie. */
export function quoteRects({ rects }: Pick<QuoteMark, 'rects'>): Rect[] {
  return Array.from({ length: rects.length / 4 }, (_, i) => ({
    x: rects[4 * i]!,
    y: rects[4 * i + 1]!,
    width: rects[4 * i + 2]!,
    height: rects[4 * i + 3]!,
  }));
}

/** Width of the line under marked words, page units. */
const lineWidth = ({ height }: Rect) => Math.max(2, height * 0.09);

export const quote: PointKind<QuoteMark> = {
  fields: QUOTE_FIELDS,
  style: QUOTE_STYLE,
  name: () => 'quote',
  content: ({ exact }) => exact,
  bounds: (mark) =>
    quoteRects(mark)
      .map((rect) => growRect(rect, lineWidth(rect) / 2))
      .reduce(unionRect),
  target: (mark) => ({
    lines: quoteRects(mark).map((rect) => closed(boxCorners({ ...rect, rotation: 0 }))),
    reach: 0,
    solid: true,
  }),
  // It stays with its words.
  transform: () => ({}),
  paint(mark) {
    const { colour, opacity } = mark.style;
    return quoteRects(mark).map((rect): PaintItem => {
      if (mark.look === 'highlight')
        return { ...solid(rectanglePath(rect), colour), opacity, blend: 'multiply' };
      const { x, y, width, height } = rect;
      const path = polylinePath([x, y + height, x + width, y + height], false);
      return { kind: 'line', path, colour, width: lineWidth(rect), dash: [], opacity: 1 };
    });
  },
  area: () => [],
  hides: () => false,
  needs: 'ink',
  exported: true,
  box: null,
};
