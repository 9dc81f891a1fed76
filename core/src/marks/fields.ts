import type { Check, Checks } from '../checks/fields.js';
import { hasExactly, isRecord } from '../checks/fields.js';
import { isOrder } from '../ops/order.js';
import type { FixedField, Space } from './shared.js';

/** Farthest that anything may lie from a page's corner, in page units. */
export const MAX_COORDINATE = 100_000;
export const INK_WIDTH = { min: 0.5, max: 200 };
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

/** Whether a value is the number of a pane of a shown screen; 0 stands for what does not move. */
export function isPaneId(value: unknown): value is number {
  return Number.isInteger(value) && isNumberIn(value, 0, 1000);
}

export const isCoordinate: Check = (value) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE);
/** Least width and height of what has a box, page units. */
export const LEAST_LENGTH = 0.1;
export const isLength: Check = (value) => isNumberIn(value, LEAST_LENGTH, MAX_COORDINATE);
export const isFlag: Check = (value) => typeof value === 'boolean';
export const isOpacity: Check = (value) => isNumberIn(value, 0.05, 1);
export const isInkWidth: Check = (value) => isNumberIn(value, INK_WIDTH.min, INK_WIDTH.max);
export const isShare: Check = (value) => isNumberIn(value, 0, 1);

export const oneOf =
  (list: readonly string[]): Check =>
  (value) =>
    list.includes(value as string);
export const orNull =
  (check: Check): Check =>
  (value) =>
    value === null || check(value);
export const textUpTo =
  (max: number, min = 0): Check =>
  (value) =>
    typeof value === 'string' && value.length >= min && value.length <= max;
export const each =
  (check: Check, max: number): Check =>
  (value) =>
    Array.isArray(value) && value.length <= max && value.every(check);
/** As `each`, and at least one. */
export const some =
  (check: Check, max: number): Check =>
  (value) =>
    each(check, max)(value) && (value as unknown[]).length > 0;
export const shaped =
  (checks: Checks): Check =>
  (value) =>
    hasExactly(value, checks);

/** A flat list of x, y of so many points. */
export const cornersFrom =
  (min: number, max: number): Check =>
  (value) =>
    Array.isArray(value) &&
    value.length % 2 === 0 &&
    value.length >= 2 * min &&
    each(isCoordinate, 2 * max)(value);

/** Checks of the fields that all marks have. */
export const SHARED: Checks = {
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

/** Checks of the fields that some marks have, whatever their kind; `answers` has one that looks into rules. */
export const SHARED_OPTIONAL: Checks = {
  pane: isPaneId,
  credit: textUpTo(120, 1),
  rule: orNull(isRecord),
  hidden: isFlag,
  folded: orNull(isId),
  standIn: isRecord,
};

export const FIXED: readonly string[] = [
  'id',
  'kind',
  'page',
  'author',
  'space',
  'createdAt',
  'credit',
  'pane',
  'standIn',
] satisfies FixedField[];

/** Checks of a box whose height follows from its content. */
export const PLACE: Checks = {
  x: isCoordinate,
  y: isCoordinate,
  width: isLength,
  rotation: (value) => isNumberIn(value, -360, 360),
};
export const BOX: Checks = { ...PLACE, height: isLength };
