import type { Check, Checks } from '../checks/fields.js';
import { hasExactly, hasOnly, isRecord } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import { isId, isNumberIn, MAX_COORDINATE, orNull } from '../marks/fields.js';
import { isGauge } from '../marks/measures.js';
import { isOrder } from '../ops/order.js';
import type { BlankSheet, NumberLine, Page, PagePatch, Ruling, Surface } from './page.js';
import { MAX_PAGE_SIDE, MAX_VIEW_PICTURES, RULINGS } from './page.js';

const MAX_TITLE = 200;

const isSide: Check = (value) => isNumberIn(value, 1, MAX_PAGE_SIDE);
const isCoordinate: Check = (value) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE);

const BLANK: Checks = {
  colour: isHexColour,
  ruling: (value) => RULINGS.includes(value as Ruling),
  spacing: (value) => isNumberIn(value, 2, 100),
};

/** Fields of each kind of surface. */
const SURFACES: Record<Surface['kind'], (fields: object) => boolean> = {
  blank: (fields) =>
    hasExactly(fields, {
      ...BLANK,
      ...('boundless' in fields && { boundless: isTrue }),
      ...('line' in fields && { line: isNumberLine }),
    }),
  web: (fields) => hasExactly(fields, { material: isId }),
  view: (fields) => hasExactly(fields, { pictures: isViewPictures }),
  media: (fields) =>
    hasExactly(fields, { material: isId, form: (form) => form === 'sound' || form === 'video' }),
  picture: (fields) => hasExactly(fields, { material: isId }),
  pdf: (fields) =>
    hasExactly(fields, {
      material: isId,
      index: (value) => Number.isInteger(value) && isNumberIn(value, 0, 1e6),
    }),
};

/** Fields of a page that may be changed. */
const CHANGEABLE: Checks = {
  order: isOrder,
  title: (value) => typeof value === 'string' && value.length <= MAX_TITLE,
  width: isSide,
  height: isSide,
  surface: isSurface,
  removed: (value) => typeof value === 'boolean',
};
const OPTIONAL: Checks = { gauge: orNull(isGauge) };

/** Most marks of a number line. */
const MOST_MARKS = 400;

function isNumberLine(value: unknown): boolean {
  const isEnd: Check = (end) => isNumberIn(end, -1e6, 1e6);
  if (!isRecord(value) || !hasExactly(value, { from: isEnd, to: isEnd, step: isEnd })) return false;
  const { from, to, step } = value as unknown as NumberLine;
  return step > 0 && to >= from + step && (to - from) / step <= MOST_MARKS;
}

function isTrue(value: unknown): boolean {
  return value === true;
}

function isSurface(value: unknown): boolean {
  if (!isRecord(value)) return false;
  const { kind, ...fields } = value;
  return (
    typeof kind === 'string' && Object.hasOwn(SURFACES, kind) && SURFACES[kind as Surface['kind']](fields)
  );
}

/** Whether a value from outside is a list of pictures of a view. */
export function isViewPictures(value: unknown): boolean {
  return Array.isArray(value) && value.length <= MAX_VIEW_PICTURES && value.every(isViewPicture);
}

function isViewPicture(value: unknown): boolean {
  if (!isRecord(value)) return false;
  const { scale = 1, ...picture } = value;
  return (
    isNumberIn(scale, 0.01, 100) && hasExactly(picture, { material: isId, x: isCoordinate, y: isCoordinate })
  );
}

/** Whether a value from outside is the size and paper of a blank page. */
export function isBlankSheet(value: unknown): value is BlankSheet {
  const isBlank: Check = (surface) => isSurface(surface) && (surface as Surface).kind === 'blank';
  return hasExactly(value, { width: isSide, height: isSide, surface: isBlank });
}

/** Whether a value from outside is a whole page, all in range. */
export function isPage(value: unknown): value is Page {
  return isRecord(value) && hasExactly(value, { ...CHANGEABLE, id: isId, ...('gauge' in value && OPTIONAL) });
}

/** Whether a value from outside changes only what may be changed of a page. */
export function isPagePatch(value: unknown): value is PagePatch {
  return hasOnly(value, { ...CHANGEABLE, ...OPTIONAL });
}
