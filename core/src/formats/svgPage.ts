import type { Rect } from '../geometry/rect.js';
import { paintFoot } from '../handout/foot.js';
import type { HandoutPage, LaidOutText } from '../handout/sources.js';
import type { Mark } from '../marks/mark.js';
import { boundsOf } from '../marks/select.js';
import { pageExtent } from '../pages/extent.js';
import { paintSurface } from '../paint/paintSurface.js';
import type { HrefOf } from './svgMarks.js';
import { svgItems, svgMark } from './svgMarks.js';
import { decimal, element, xmlText } from './xml.js';

/** What lies under the marks of a page that Doodla does not draw itself. */
export interface SvgGround {
  /** A picture of the whole page. */
  href?: string | undefined;
  /** Its words, to be found, selected and read out. */
  texts?: readonly LaidOutText[];
}

export interface SvgPageOptions {
  title: string;
  hrefOf: HrefOf;
  ground?: SvgGround | undefined;
  /** Font faces as CSS. */
  css?: string;
  foot?: string | undefined;
}

/** The part of the plane that a page with its marks takes, page units. */
export function extentOf({ page, marks }: HandoutPage): Rect {
  return pageExtent(page, [boundsOf(marks)]);
}

/** A page with its marks as an SVG document (SVG 2): text as text, each mark a group with a title. */
export function svgPage(handed: HandoutPage, options: SvgPageOptions): string {
  const { page, marks, alts = {} } = handed;
  const { title, hrefOf, ground = {}, css = '', foot } = options;
  const extent = extentOf(handed);
  const { x, y, width, height } = extent;
  const under = [
    ground.href === undefined
      ? ''
      : element('image', { ...extent, preserveAspectRatio: 'none', href: ground.href }),
    svgItems(paintSurface(page, extent), hrefOf),
    hiddenWords(ground.texts ?? []),
  ];
  // What is typed speaks for itself.
  const said = (mark: Mark) => mark.alt ?? (mark.kind === 'text' ? '' : (alts[mark.id] ?? ''));
  const over = marks.map((mark) => svgMark(mark, said(mark), hrefOf));
  return element(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      width: decimal(width),
      height: decimal(height),
      viewBox: [x, y, width, height].map(decimal).join(' '),
    },
    [
      element('title', {}, xmlText(title)),
      css === '' ? '' : element('style', {}, xmlText(css)),
      ...under,
      ...over,
      foot === undefined ? '' : svgItems(paintFoot(extent, foot), hrefOf),
    ].join(''),
  );
}

/** Words that a picture shows, over it, unseen. */
function hiddenWords(texts: readonly LaidOutText[]): string {
  if (texts.length === 0) return '';
  const words = texts.map(({ x, y, width, height, text }) =>
    element(
      'text',
      {
        x,
        y: y + height * 0.78,
        'font-size': height * 0.8,
        textLength: width,
        lengthAdjust: 'spacingAndGlyphs',
      },
      xmlText(text),
    ),
  );
  return element('g', { 'fill-opacity': 0, 'font-family': 'sans-serif' }, words.join(''));
}
