import { isHexColour } from '../colour/contrast.js';
import { MAX_POINTS, STRIDE } from '../ink/points.js';
import type { InkStyle, Mark, MarkPatch, TextStyle } from './mark.js';
import { PATCHABLE_FIELDS } from './mark.js';

/** Farthest that anything may lie from a page's corner, in page units. */
export const MAX_COORDINATE = 100_000;
export const MAX_TEXT_LENGTH = 10_000;
export const INK_WIDTH = { min: 0.5, max: 200 };
export const TEXT_SIZE = { min: 4, max: 400 };
const MAX_STROKE_MS = 3_600_000;
const ORDER = /^[0-9A-Za-z]{1,200}$/;
const ID = /^[\w-]{1,64}$/;
const SPACE = /^(class|(table|student):[\w-]{1,64})$/;

export function isId(value: unknown): value is string {
  return typeof value === 'string' && ID.test(value);
}

export function isOrder(value: unknown): value is string {
  return typeof value === 'string' && ORDER.test(value);
}

export function isNumberIn(value: unknown, min: number, max: number): value is number {
  return typeof value === 'number' && value >= min && value <= max;
}

const isCoordinate = (value: unknown) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE);

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

export function isMarkText(value: unknown): value is string {
  return typeof value === 'string' && value.length > 0 && value.length <= MAX_TEXT_LENGTH;
}

const INK_CHECKS: Record<keyof InkStyle, (value: unknown) => boolean> = {
  nature: (value) => value === 'pen' || value === 'highlighter',
  colour: isHexColour,
  width: (value) => isNumberIn(value, INK_WIDTH.min, INK_WIDTH.max),
  opacity: (value) => isNumberIn(value, 0.05, 1),
};

const TEXT_CHECKS: Record<keyof TextStyle, (value: unknown) => boolean> = {
  font: (value) => value === 'andika',
  size: (value) => isNumberIn(value, TEXT_SIZE.min, TEXT_SIZE.max),
  colour: isHexColour,
};

type Checks = Record<string, (value: unknown) => boolean>;

const STYLE_CHECKS: Record<Mark['kind'], Checks> = { stroke: INK_CHECKS, text: TEXT_CHECKS };

const FIELD_CHECKS: Checks = {
  order: isOrder,
  locked: (value) => typeof value === 'boolean',
  points: isPointList,
  pressure: (value) => typeof value === 'boolean',
  x: isCoordinate,
  y: isCoordinate,
  width: (value) => isNumberIn(value, 1, MAX_COORDINATE),
  text: isMarkText,
  id: isId,
  page: isId,
  author: isId,
  space: (value) => typeof value === 'string' && SPACE.test(value),
  createdAt: (value) => isNumberIn(value, 0, Number.MAX_SAFE_INTEGER),
};

const COMMON_FIELDS = ['id', 'page', 'author', 'space', 'order', 'locked', 'createdAt'];
const OWN_FIELDS: Record<Mark['kind'], string[]> = {
  stroke: ['points', 'pressure'],
  text: ['x', 'y', 'width', 'text'],
};

/** Whether a value from outside is a whole mark with nothing missing, nothing extra and all in range. */
export function isMark(value: unknown): value is Mark {
  if (!isRecord(value) || (value.kind !== 'stroke' && value.kind !== 'text')) return false;
  const { kind, style, ...fields } = value;
  const expected = [...COMMON_FIELDS, ...OWN_FIELDS[kind]];
  return (
    hasExactly(fields, expected, FIELD_CHECKS) &&
    hasExactly(style, Object.keys(STYLE_CHECKS[kind]), STYLE_CHECKS[kind])
  );
}

/** Whether a value from outside changes at least one thing that may be changed of that kind of mark. */
export function isMarkPatch(kind: Mark['kind'], value: unknown): value is MarkPatch {
  if (!isRecord(value)) return false;
  const { style, ...fields } = value;
  if (Object.keys(value).length === 0) return false;
  if (style !== undefined && !hasOnly(style, STYLE_CHECKS[kind])) return false;
  return Object.entries(fields).every(
    ([key, field]) =>
      (PATCHABLE_FIELDS[kind] as readonly string[]).includes(key) && FIELD_CHECKS[key]?.(field),
  );
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function hasExactly(value: unknown, keys: string[], checks: Checks): boolean {
  return (
    isRecord(value) &&
    Object.keys(value).length === keys.length &&
    keys.every((key) => checks[key]?.(value[key]))
  );
}

function hasOnly(value: unknown, checks: Checks): boolean {
  return isRecord(value) && Object.entries(value).every(([key, field]) => checks[key]?.(field) ?? false);
}
