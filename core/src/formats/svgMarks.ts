import type { Matrix } from '../geometry/matrix.js';
import { toSvgPath } from '../geometry/path.js';
import type { Mark } from '../marks/mark.js';
import type { PaintItem, PaintOf } from '../paint/items.js';
import { paintMark } from '../paint/paint.js';
import type { Face } from '../text/font.js';
import { decimal, element, xmlText } from './xml.js';

/** Where a picture is: an address or a data URI; undefined where it is no longer there. */
export type HrefOf = (material: string) => string | undefined;

/** Families, weights and slants of the faces as CSS names them. */
export const FAMILIES = {
  andika: 'Andika',
  serif: 'Noto Serif',
  mono: 'JetBrains Mono',
  hand: 'Patrick Hand',
} as const;
const GENERIC = { andika: 'sans-serif', serif: 'serif', mono: 'monospace', hand: 'cursive' } as const;

/** What a face is called in CSS. */
export function cssFace(face: Face): { family: keyof typeof FAMILIES; bold: boolean; italic: boolean } {
  const [family, ...cuts] = face.split('-');
  return {
    family: family as keyof typeof FAMILIES,
    bold: cuts.includes('bold'),
    italic: cuts.includes('italic'),
  };
}

/** A mark as an SVG group (SVG 2) with what it is as its title. */
export function svgMark(mark: Mark, title: string, hrefOf: HrefOf): string {
  const items = svgItems(paintMark(mark), hrefOf);
  return element('g', {}, (title === '' ? '' : element('title', {}, xmlText(title))) + items);
}

/** What a renderer would draw, as SVG elements. */
export function svgItems(items: readonly PaintItem[], hrefOf: HrefOf): string {
  return items.map((item) => svgItem(item, hrefOf)).join('');
}

function svgItem(item: PaintItem, hrefOf: HrefOf): string {
  switch (item.kind) {
    case 'fill':
      return element('path', {
        d: toSvgPath(item.path),
        fill: item.colour,
        'fill-opacity': unlessOne(item.opacity),
        'fill-rule': item.rule === 'evenodd' ? 'evenodd' : undefined,
        style: item.blend === 'multiply' ? 'mix-blend-mode:multiply' : undefined,
      });
    case 'line':
      return element('path', {
        d: toSvgPath(item.path),
        fill: 'none',
        stroke: item.colour,
        'stroke-width': item.width,
        'stroke-linecap': 'round',
        'stroke-linejoin': 'round',
        'stroke-dasharray': item.dash.length > 0 ? item.dash.map(decimal).join(' ') : undefined,
        'stroke-opacity': unlessOne(item.opacity),
      });
    case 'text':
      return svgText(item);
    case 'picture':
      return svgPicture(item, hrefOf(item.material));
  }
}

/** As text, as wide as it is everywhere, whichever font whoever shows it has. */
function svgText(item: PaintOf<'text'>): string {
  const { family, bold, italic } = cssFace(item.face);
  return element(
    'text',
    {
      x: item.x,
      y: item.y,
      'font-family': item.fallback ? 'sans-serif' : `${FAMILIES[family]}, ${GENERIC[family]}`,
      'font-size': item.size,
      'font-weight': bold ? 'bold' : undefined,
      'font-style': italic ? 'italic' : undefined,
      fill: item.colour,
      textLength: item.width > 0 ? item.width : undefined,
      lengthAdjust: item.width > 0 ? 'spacingAndGlyphs' : undefined,
      transform: transformOf(item.matrix),
      'xml:space': 'preserve',
    },
    xmlText(item.text),
  );
}

/** The shown part of a picture: a window of its own, through which the whole is seen. */
function svgPicture(
  { x, y, width, height, crop, opacity, matrix }: PaintOf<'picture'>,
  href?: string,
): string {
  if (href === undefined) return '';
  const whole = { width: width / crop.width, height: height / crop.height };
  const image = element('image', {
    x: -crop.x * whole.width,
    y: -crop.y * whole.height,
    ...whole,
    preserveAspectRatio: 'none',
    href,
  });
  const shown = element('svg', { x, y, width, height, opacity: unlessOne(opacity) }, image);
  return matrix ? element('g', { transform: transformOf(matrix) }, shown) : shown;
}

function transformOf(matrix: Matrix | undefined): string | undefined {
  return matrix && `matrix(${matrix.map((value) => Math.round(value * 1e6) / 1e6).join(' ')})`;
}

function unlessOne(value: number): number | undefined {
  return value === 1 ? undefined : value;
}
