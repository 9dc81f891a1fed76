import type { Rect } from '../geometry/rect.js';
import { growRect, unionRect } from '../geometry/rect.js';
import type { Page, ViewPicture } from './page.js';

/** Free space round what is on a boundless page, page units. */
const MARGIN = 40;

/** Whether a page goes on in every direction. */
export function isBoundless({ surface }: Pick<Page, 'surface'>): boolean {
  return surface.kind === 'view' || (surface.kind === 'blank' && surface.boundless === true);
}

/**
 * The part of the plane that a page takes, in page units: its own size, and for a boundless page also
 * everything on it, whose bounds are given as far as there is anything.
 */
export function pageExtent(
  page: Pick<Page, 'width' | 'height' | 'surface'>,
  marks: readonly (Rect | undefined)[] = [],
): Rect {
  const own: Rect = { x: 0, y: 0, width: page.width, height: page.height };
  if (!isBoundless(page)) return own;
  const ground = page.surface.kind === 'view' ? viewExtent(own, page.surface.pictures) : own;
  return marks.reduce<Rect>((all, rect) => (rect ? unionRect(all, growRect(rect, MARGIN)) : all), ground);
}

/** The pictures of a view are each as large as its page, times their scale. */
function viewExtent(own: Rect, pictures: readonly ViewPicture[]): Rect {
  const [first = own, ...others] = pictures.map(({ x, y, scale = 1 }) => ({
    x,
    y,
    width: own.width * scale,
    height: own.height * scale,
  }));
  return others.reduce(unionRect, first);
}
