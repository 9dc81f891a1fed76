import { isHexColour } from '../colour/contrast.js';
import { isId, isNumberIn, isOrder } from '../marks/check.js';
import type { Page, PagePatch, Ruling } from './page.js';
import { MAX_PAGE_SIDE, RULINGS } from './page.js';

const MAX_TITLE = 200;

const CHECKS: Record<keyof Page, (value: unknown) => boolean> = {
  id: isId,
  order: isOrder,
  title: (value) => typeof value === 'string' && value.length <= MAX_TITLE,
  width: (value) => isNumberIn(value, 1, MAX_PAGE_SIDE),
  height: (value) => isNumberIn(value, 1, MAX_PAGE_SIDE),
  surface: isSurface,
  removed: (value) => typeof value === 'boolean',
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
  if (surface.kind === 'picture') return Object.keys(surface).length === 2 && isId(surface.material);
  return (
    surface.kind === 'pdf' &&
    isId(surface.material) &&
    Number.isInteger(surface.index) &&
    isNumberIn(surface.index, 0, 1e6)
  );
}

/** Whether a value from outside is a whole page, all in range. */
export function isPage(value: unknown): value is Page {
  if (typeof value !== 'object' || value === null) return false;
  const keys = Object.keys(value);
  return keys.length === Object.keys(CHECKS).length && isPagePart(value) && keys.includes('id');
}

/** Whether a value from outside changes only what may be changed of a page. */
export function isPagePatch(value: unknown): value is PagePatch {
  return typeof value === 'object' && value !== null && !('id' in value) && isPagePart(value);
}

function isPagePart(value: object): boolean {
  return Object.entries(value).every(([key, field]) => CHECKS[key as keyof Page]?.(field) ?? false);
}
