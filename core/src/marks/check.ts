import { MAX_QUOTE } from '../annotation/textQuote.js';
import type { Check, Checks } from '../checks/fields.js';
import { hasExactly, hasOnly, isRecord } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import { MAX_POINTS, STRIDE } from '../ink/points.js';
import { isOrder } from '../ops/order.js';
import type { InkStyle, Mark, MarkKind, MarkPatch, Space } from './mark.js';
import { ALIGNS, COURSES, DASHES, FONTS, FORMS, HEADS, LISTS, LOOKS, NATURES, STAMPS } from './mark.js';

/** Farthest that anything may lie from a page's corner, in page units. */
export const MAX_COORDINATE = 100_000;
export const MAX_TEXT_LENGTH = 10_000;
export const INK_WIDTH = { min: 0.5, max: 200 };
export const TEXT_SIZE = { min: 4, max: 400 };
const MAX_STROKE_MS = 3_600_000;
/** Lines of marked words. */
const MAX_LINES = 400;
const MAX_CORNERS = 2000;
const MAX_RINGS = 2000;
const MAX_PARTS = 2000;
export const TEXT_SCALE = { min: 0.1, max: 10 };
const ID = /^[\w-]{1,64}$/;
const SPACE = /^(class|(table|student):[\w-]{1,64})$/;

export function isId(value: unknown): value is string {
  return typeof value === 'string' && ID.test(value);
}

export function isSpace(value: unknown): value is Space {
  return typeof value === 'string' && SPACE.test(value);
}

export function isNumberIn(value: unknown, min: number, max: number): value is number {
  return typeof value === 'number' && value >= min && value <= max;
}

/** A flat list of 1 to MAX_POINTS finite points with pressures of 0 to 1 and times up to an hour. */
export function isPointList(value: unknown): value is number[] {
  if (!Array.isArray(value) || value.length === 0) return false;
  if (value.length % STRIDE !== 0 || value.length > MAX_POINTS * STRIDE) return false;
  for (let i = 0; i < value.length; i += STRIDE) {
    if (!isCoordinate(value[i]) || !isCoordinate(value[i + 1])) return false;
    if (!isNumberIn(value[i + 2], 0, 1) || !isNumberIn(value[i + 3], 0, MAX_STROKE_MS)) return false;
  }
  return true;
}

const isCoordinate: Check = (value) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE);
const isLength: Check = (value) => isNumberIn(value, 0.1, MAX_COORDINATE);
const isFlag: Check = (value) => typeof value === 'boolean';
const isOpacity: Check = (value) => isNumberIn(value, 0.05, 1);
const isInkWidth: Check = (value) => isNumberIn(value, INK_WIDTH.min, INK_WIDTH.max);
const isPart: Check = (value) => isNumberIn(value, 0, 1);
/** Less of a picture would have to be enlarged beyond what a PDF can say. */
const isCropSide: Check = (value) => isNumberIn(value, 0.001, 1);
const oneOf =
  (list: readonly string[]): Check =>
  (value) =>
    list.includes(value as string);
const orNull =
  (check: Check): Check =>
  (value) =>
    value === null || check(value);
const textUpTo =
  (max: number, min = 0): Check =>
  (value) =>
    typeof value === 'string' && value.length >= min && value.length <= max;
const each =
  (check: Check, max: number): Check =>
  (value) =>
    Array.isArray(value) && value.length <= max && value.every(check);
const someOf =
  (check: Check, max: number): Check =>
  (value) =>
    Array.isArray(value) && value.length > 0 && each(check, max)(value);
const shaped =
  (checks: Checks): Check =>
  (value) =>
    hasExactly(value, checks);

const cornersFrom =
  (min: number, max: number): Check =>
  (value) =>
    Array.isArray(value) &&
    value.length % 2 === 0 &&
    value.length >= 2 * min &&
    each(isCoordinate, 2 * max)(value);

const isRectList: Check = (value) =>
  Array.isArray(value) &&
  value.length >= 4 &&
  value.length % 4 === 0 &&
  each(isCoordinate, 4 * MAX_LINES)(value);

const isOffset: Check = (value) => Number.isInteger(value) && isNumberIn(value, 0, MAX_TEXT_LENGTH);
const PART_LOOK: Checks = {
  bold: isFlag,
  italic: isFlag,
  underline: isFlag,
  colour: isHexColour,
  scale: (value) => isNumberIn(value, TEXT_SCALE.min, TEXT_SCALE.max),
};

const isPartList: Check = (value) => {
  let end = 0;
  const follows: Check = (part) => {
    if (!isRecord(part)) return false;
    const { from, to, ...look } = part;
    if (!isOffset(from) || !isOffset(to) || !((from as number) >= end && (to as number) > (from as number)))
      return false;
    end = to as number;
    return hasOnly(look, PART_LOOK);
  };
  return each(follows, MAX_PARTS)(value);
};

const COMMON: Checks = {
  id: isId,
  page: isId,
  author: isId,
  space: isSpace,
  order: isOrder,
  locked: isFlag,
  group: orNull(isId),
  alt: orNull(textUpTo(1000)),
  createdAt: (value) => isNumberIn(value, 0, Number.MAX_SAFE_INTEGER),
};

const PLACE: Checks = {
  x: isCoordinate,
  y: isCoordinate,
  width: isLength,
  rotation: (value) => isNumberIn(value, -360, 360),
};
const BOX: Checks = { ...PLACE, height: isLength };
const LINE_STYLE: Checks = {
  line: orNull(isHexColour),
  width: isInkWidth,
  dash: oneOf(DASHES),
  fill: orNull(isHexColour),
  opacity: isOpacity,
};
const ANCHOR = orNull(shaped({ mark: isId, x: isPart, y: isPart }));

/** Fields of each kind beside the common ones, those that may be missing, and those of its style. */
const KINDS: Record<MarkKind, { fields: Checks; optional?: Checks; style: Checks }> = {
  stroke: {
    fields: { points: isPointList, pressure: isFlag },
    style: { nature: oneOf(NATURES), colour: isHexColour, width: isInkWidth, opacity: isOpacity },
  },
  text: {
    fields: { ...PLACE, text: textUpTo(MAX_TEXT_LENGTH, 1) },
    optional: { parts: isPartList },
    style: {
      font: oneOf(FONTS),
      size: (value) => isNumberIn(value, TEXT_SIZE.min, TEXT_SIZE.max),
      colour: isHexColour,
      bold: isFlag,
      italic: isFlag,
      underline: isFlag,
      background: orNull(isHexColour),
      align: oneOf(ALIGNS),
      list: oneOf(LISTS),
    },
  },
  shape: {
    fields: {
      ...BOX,
      flip: isFlag,
      form: oneOf(FORMS),
      sides: (value) => Number.isInteger(value) && isNumberIn(value, 3, 12),
    },
    style: LINE_STYLE,
  },
  path: {
    fields: {
      course: oneOf(COURSES),
      points: cornersFrom(2, MAX_CORNERS),
      closed: isFlag,
      heads: oneOf(HEADS),
      from: ANCHOR,
      to: ANCHOR,
    },
    style: LINE_STYLE,
  },
  stamp: {
    fields: { ...BOX, flip: isFlag, stamp: oneOf(STAMPS), label: textUpTo(4) },
    style: { colour: isHexColour },
  },
  note: { fields: { ...BOX, text: textUpTo(2000) }, style: { colour: isHexColour, font: oneOf(FONTS) } },
  picture: {
    fields: {
      ...BOX,
      material: isId,
      crop: shaped({ x: isPart, y: isPart, width: isCropSide, height: isCropSide }),
      flip: isFlag,
    },
    style: { opacity: isOpacity },
  },
  patch: { fields: BOX, style: { colour: isHexColour } },
  quote: {
    fields: {
      exact: textUpTo(MAX_QUOTE, 1),
      prefix: textUpTo(100),
      suffix: textUpTo(100),
      start: (value) => isNumberIn(value, 0, 1e8),
      look: oneOf(LOOKS),
      rects: isRectList,
    },
    style: { colour: isHexColour, opacity: isOpacity },
  },
  fill: {
    fields: { rings: someOf(cornersFrom(3, MAX_POINTS), MAX_RINGS) },
    style: { colour: isHexColour, opacity: isOpacity },
  },
};

/** Whether a value is the number of a pane of a shown screen; 0 stands for what does not move. */
export function isPaneId(value: unknown): value is number {
  return Number.isInteger(value) && isNumberIn(value, 0, 1000);
}

/** Common fields that never change. */
const FIXED = new Set(['id', 'author', 'space', 'createdAt', 'page']);

function isKind(kind: unknown): kind is MarkKind {
  return typeof kind === 'string' && Object.hasOwn(KINDS, kind);
}

export function isInkStyle(value: unknown): value is InkStyle {
  return hasExactly(value, KINDS.stroke.style);
}

/** Whether a value from outside is a whole mark with nothing missing, nothing extra and all in range. */
export function isMark(value: unknown): value is Mark {
  if (!isRecord(value)) return false;
  const { kind, style, ...fields } = value;
  if (!isKind(kind)) return false;
  const checks = KINDS[kind];
  const needed = { ...COMMON, ...checks.fields };
  const optional = { pane: isPaneId, ...checks.optional };
  return (
    Object.keys(needed).every((key) => Object.hasOwn(fields, key)) &&
    hasOnly(fields, { ...needed, ...optional }) &&
    hasExactly(style, checks.style)
  );
}

/** Whether a value from outside changes at least one thing that may be changed of that kind of mark. */
export function isMarkPatch(kind: MarkKind, value: unknown): value is MarkPatch {
  if (!isRecord(value) || Object.keys(value).length === 0) return false;
  const { style, ...fields } = value;
  const checks = { ...COMMON, ...KINDS[kind].fields, ...KINDS[kind].optional };
  if (style !== undefined && !hasOnly(style, KINDS[kind].style)) return false;
  return Object.keys(fields).every((key) => !FIXED.has(key)) && hasOnly(fields, checks);
}
