import type { Rect } from '../geometry/rect.js';
import type { TextStyle } from '../marks/text/textMark.js';
import { textLayout } from '../marks/text/textLayout.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { PaintItem } from '../paint/items.js';
import { paintLayout, rectanglePath, solid } from '../paint/items.js';

/** Of the page's height, and at most as tall as on A4, page units. */
const SIZE = { part: 1 / 90, least: 7, most: 12 };
const MARGIN_MM = 6;
const INK = '#333333';

/** Words at the foot of a page, on a strip that makes them readable over whatever lies there. */
export function paintFoot({ x, y, width, height }: Rect, words: string): PaintItem[] {
  const size = Math.min(SIZE.most, Math.max(SIZE.least, height * SIZE.part));
  const style: TextStyle = {
    font: 'andika',
    size,
    colour: INK,
    bold: false,
    italic: false,
    underline: false,
    background: null,
    align: 'center',
    list: 'none',
  };
  const margin = Math.min(MARGIN_MM * UNITS_PER_MM, width / 10);
  const layout = textLayout({ text: words, style, width: width - 2 * margin });
  const top = y + height - layout.height - size * 0.4;
  const strip = rectanglePath({ x, y: top, width, height: layout.height + size * 0.4 });
  return [
    { ...solid(strip, '#ffffff'), opacity: 0.85 },
    ...paintLayout(layout, x + margin, top, INK, undefined),
  ];
}

/** The words of one page: `{page}` and `{pages}` stand for its number and how many there are. */
export function footOf(pattern: string, page: number, pages: number): string {
  return pattern.replaceAll('{pages}', String(pages)).replaceAll('{page}', String(page));
}
