import type { Rect } from '../geometry/rect.js';
import { isBoundless, pageExtent } from '../pages/extent.js';
import type { Page, ViewPicture } from '../pages/page.js';
import { paintRuling } from '../pages/ruling.js';
import type { PaintItem } from './items.js';
import { polylinePath } from '../geometry/path.js';

/**
 * How a surface looks that Doodla draws itself, within `area` where the page is boundless; nothing
 * for originals that something else draws.
 */
export function paintSurface(
  page: Pick<Page, 'width' | 'height' | 'surface'>,
  area: Rect = pageExtent(page),
): PaintItem[] {
  const { surface, width, height } = page;
  if (surface.kind === 'blank') {
    const ground = isBoundless(page) ? area : { x: 0, y: 0, width, height };
    const [right, bottom] = [ground.x + ground.width, ground.y + ground.height];
    const corners = [ground.x, ground.y, right, ground.y, right, bottom, ground.x, bottom];
    const path = polylinePath(corners, true);
    const { colour } = surface;
    return [
      { kind: 'fill', path, colour, opacity: 1, blend: 'normal', rule: 'nonzero' },
      ...paintRuling({ width, height }, surface, ground),
    ];
  }
  if (surface.kind === 'media') return paintMedia({ width, height });
  const pictures: readonly ViewPicture[] =
    surface.kind === 'view'
      ? surface.pictures
      : surface.kind === 'picture'
        ? [{ material: surface.material, x: 0, y: 0 }]
        : [];
  const crop = { x: 0, y: 0, width: 1, height: 1 };
  return pictures.map(({ material, x, y, scale = 1 }) => ({
    kind: 'picture',
    material,
    x,
    y,
    width: width * scale,
    height: height * scale,
    crop,
    opacity: 1,
    matrix: undefined,
  }));
}

/** A dark screen with a sign for playing, where a recording itself cannot be shown. */
function paintMedia({ width, height }: { width: number; height: number }): PaintItem[] {
  const common = { kind: 'fill', opacity: 1, blend: 'normal', rule: 'nonzero' } as const;
  const reach = Math.min(width, height) * 0.12;
  const [x, y] = [width / 2, height / 2];
  const sign = [x - reach * 0.7, y - reach, x + reach, y, x - reach * 0.7, y + reach];
  return [
    { ...common, path: polylinePath([0, 0, width, 0, width, height, 0, height], true), colour: '#1c2b26' },
    { ...common, path: polylinePath(sign, true), colour: '#f2c230' },
  ];
}
