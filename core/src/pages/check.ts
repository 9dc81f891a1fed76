import { isHexColour } from '../colour/contrast.js';
import { isId, isNumberIn, isOrder, MAX_COORDINATE } from '../marks/check.js';
import type { Page, PagePatch, Ruling } from './page.js';
import { MAX_PAGE_SIDE, MAX_VIEW_PICTURES, RULINGS } from './page.js';

const MAX_TITLE = 200;

const CHECKS: Record<keyof Page, (value: unknown) => boolean> = {
  id: isId,
  order: isOrder,
  title: (value) => typeof value === 'string' && value.length <= MAX_TITLE,
  width: (value) => isNumberIn(value, 1, MAX_PAGE_SIDE),
  height: (value) => isNumberIn(value, 1, MAX_PAGE_SIDE),
  surface: isSurface,
  removed: (value) => typeof value === 'boolean',
  sitting: isId,
};

function isSurface(value: unknown): boolean {
  const surface = value as Record<string, unknown> | null;
  if (typeof surface !== 'object' || surface === null) return false;
  if (surface.kind === 'blank') {
    const { boundless, ...ruled } = surface;
    return (
      Object.keys(ruled).length === 4 &&
      (boundless === undefined || boundless === true) &&
      isHexColour(surface.colour) &&
      RULINGS.includes(surface.ruling as Ruling) &&
      isNumberIn(surface.spacing, 2, 100)
    );
  }
  if (surface.kind === 'view') return Object.keys(surface).length === 2 && isViewPictures(surface.pictures);
  if (surface.kind === 'media')
    return (
      Object.keys(surface).length === 3 &&
      isId(surface.material) &&
      (surface.form === 'sound' || surface.form === 'video')
    );
  if (surface.kind === 'picture' || surface.kind === 'web')
    return Object.keys(surface).length === 2 && isId(surface.material);
  return (
    surface.kind === 'pdf' &&
    isId(surface.material) &&
    Number.isInteger(surface.index) &&
    isNumberIn(surface.index, 0, 1e6)
  );
}

/** Whether a value from outside is a list of pictures of a view. */
export function isViewPictures(value: unknown): boolean {
  return (
    Array.isArray(value) &&
    value.length <= MAX_VIEW_PICTURES &&
    value.every((picture: Record<string, unknown> | null) => {
      if (typeof picture !== 'object' || picture === null || Object.keys(picture).length !== 3) return false;
      const { material, x, y } = picture;
      return (
        isId(material) &&
        isNumberIn(x, -MAX_COORDINATE, MAX_COORDINATE) &&
        isNumberIn(y, -MAX_COORDINATE, MAX_COORDINATE)
      );
    })
  );
}

/** Whether a value from outside is a whole page, all in range. */
export function isPage(value: unknown): value is Page {
  if (typeof value !== 'object' || value === null) return false;
  const keys = Object.keys(value);
  const needed = Object.keys(CHECKS).filter((key) => key !== 'sitting');
  return needed.every((key) => keys.includes(key)) && isPagePart(value);
}

/** Whether a value from outside changes only what may be changed of a page. */
export function isPagePatch(value: unknown): value is PagePatch {
  return (
    typeof value === 'object' &&
    value !== null &&
    !('id' in value) &&
    !('sitting' in value) &&
    isPagePart(value)
  );
}

function isPagePart(value: object): boolean {
  return Object.entries(value).every(([key, field]) => CHECKS[key as keyof Page]?.(field) ?? false);
}
