import type { TextQuote } from '../../annotation/textQuote.js';
import { MAX_QUOTE } from '../../annotation/textQuote.js';
import type { Check, Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import { each, isCoordinate, isNumberIn, isOpacity, oneOf, textUpTo } from '../fields.js';
import type { SharedFields } from '../shared.js';

export const LOOKS = ['highlight', 'underline'] as const;

/** Words of a web page, glued to what they say; `rects` is where they lie, flat x, y, width, height for each line. */
export interface QuoteMark extends SharedFields, TextQuote {
  kind: 'quote';
  look: (typeof LOOKS)[number];
  rects: readonly number[];
  style: { colour: string; opacity: number };
}

/** Lines of marked words. */
const MAX_LINES = 400;

const isRectList: Check = (value) =>
  Array.isArray(value) &&
  value.length >= 4 &&
  value.length % 4 === 0 &&
  each(isCoordinate, 4 * MAX_LINES)(value);

export const QUOTE_FIELDS: Checks = {
  exact: textUpTo(MAX_QUOTE, 1),
  prefix: textUpTo(100),
  suffix: textUpTo(100),
  start: (value) => isNumberIn(value, 0, 1e8),
  look: oneOf(LOOKS),
  rects: isRectList,
};
export const QUOTE_STYLE: Checks = { colour: isHexColour, opacity: isOpacity };
