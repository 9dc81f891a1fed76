import type { TextQuote } from '../annotation/textQuote.js';
import { MAX_QUOTE } from '../annotation/textQuote.js';
import type { Check } from '../checks/fields.js';
import { hasExactly } from '../checks/fields.js';
import type { Matrix } from '../geometry/matrix.js';
import { IDENTITY } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import { each, isCoordinate, isFlag, isNumberIn, textUpTo } from '../marks/fields.js';

/** An element of a web page, by a CSS selector and by what it is like, in case the selector leads elsewhere one day. */
export interface ElementName {
  css: string;
  print: string;
}

/** Which frames lead to what is meant, from the outermost in. */
type Frames = readonly ElementName[];

/**
 * What a mark on a web page belongs to. `at` is where that lay when the mark was as it is, in the mark's own units: CSS pixels
 * from the top left of the document.
 */
export type Glue =
  | { to: 'words'; frames: Frames; quote: TextQuote; at: Rect }
  /** `stretches`: what is in it grows with it, as in pictures and videos. */
  | { to: 'element'; frames: Frames; name: ElementName; stretches: boolean; at: Rect }
  | { to: 'page' };

/** Letters that differ less in height than this part have not been enlarged. */
const SAME_HEIGHT = 0.02;
/** Within a box that is higher than this, content comes and goes below; CSS pixels. */
const TALL = 600;

/** How a mark lies now whose glue lies in `now`; `middle` is the mark's own. */
export function placement(glue: Glue, now: Rect, middle: { x: number; y: number }): Matrix {
  switch (glue.to) {
    case 'page':
      return IDENTITY;
    case 'words': {
      const k = now.height / glue.at.height;
      return enlarged(glue.at, now, Math.abs(k - 1) < SAME_HEIGHT ? 1 : k);
    }
    case 'element':
      return glue.stretches ? stretched(glue.at, now) : beside(glue.at, now, middle);
  }
}

function enlarged(at: Rect, now: Rect, k: number): Matrix {
  return [k, 0, 0, k, now.x - k * at.x, now.y - k * at.y];
}

function stretched(at: Rect, now: Rect): Matrix {
  const [kx, ky] = [now.width / at.width, now.height / at.height];
  return [kx, 0, 0, ky, now.x - kx * at.x, now.y - ky * at.y];
}

function beside(at: Rect, now: Rect, { x, y }: { x: number; y: number }): Matrix {
  const toX = alongSide(x, [at.x, at.width], [now.x, now.width]);
  const isTall = Math.max(at.height, now.height) > TALL;
  const toY = isTall ? now.y + y - at.y : alongSide(y, [at.y, at.height], [now.y, now.height]);
  return [1, 0, 0, 1, toX - x, toY - y];
}

/** Where a place goes when a side is another: along it, it keeps its share; beyond its ends, its distance from the nearer one. */
function alongSide(place: number, [from, size]: [number, number], [to, newSize]: [number, number]): number {
  const along = place - from;
  if (along <= 0 || size <= 0) return to + along;
  return along >= size ? to + newSize + along - size : to + (along / size) * newSize;
}

const isRect: Check = (value) =>
  hasExactly(value, { x: isCoordinate, y: isCoordinate, width: isCoordinate, height: isCoordinate });
const isName: Check = (value) => hasExactly(value, { css: textUpTo(1000, 1), print: textUpTo(200) });
const isQuote: Check = (value) =>
  hasExactly(value, {
    exact: textUpTo(MAX_QUOTE, 1),
    prefix: textUpTo(100),
    suffix: textUpTo(100),
    start: (start: unknown) => isNumberIn(start, 0, 1e8),
  });
/** Frames within frames. */
const isFrames = each(isName, 8);

/** Whether a value from outside is a glue. */
export function isGlue(value: unknown): value is Glue {
  const shared = { to: (to: unknown) => typeof to === 'string', frames: isFrames, at: isRect };
  const { to } = (value ?? {}) as { to?: unknown };
  if (to === 'words') return hasExactly(value, { ...shared, quote: isQuote });
  if (to === 'element') return hasExactly(value, { ...shared, name: isName, stretches: isFlag });
  return to === 'page' && hasExactly(value, { to: shared.to });
}
