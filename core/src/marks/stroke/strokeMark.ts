import type { Checks } from '../../checks/fields.js';
import { hasExactly } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import { MAX_POINTS, STRIDE } from '../../ink/points.js';
import { isCoordinate, isFlag, isInkWidth, isNumberIn, isOpacity, oneOf } from '../fields.js';
import type { SharedFields } from '../shared.js';

export const NATURES = ['pen', 'pencil', 'marker', 'chalk', 'highlighter'] as const;
export type Nature = (typeof NATURES)[number];

/** How ink looks. Widths are page units, opacity 0 to 1. */
export interface InkStyle {
  nature: Nature;
  colour: string;
  width: number;
  opacity: number;
}

/** Freehand ink. */
export interface StrokeMark extends SharedFields {
  kind: 'stroke';
  style: InkStyle;
  /** Flat list of x, y, pressure (0 to 1), time since the first point in ms; see `ink/points`. */
  points: readonly number[];
  /** Whether the device measured the pressure; otherwise it stands for speed. */
  pressure: boolean;
}

const MAX_STROKE_MS = 3_600_000;

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

export const STROKE_FIELDS: Checks = { points: isPointList, pressure: isFlag };
export const INK_STYLE: Checks = {
  nature: oneOf(NATURES),
  colour: isHexColour,
  width: isInkWidth,
  opacity: isOpacity,
};

export function isInkStyle(value: unknown): value is InkStyle {
  return hasExactly(value, INK_STYLE);
}
