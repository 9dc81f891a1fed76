import type { Checks } from '../../checks/fields.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import { BOX, isFlag, isNumberIn, oneOf } from '../fields.js';
import type { LineStyle } from '../lineStyle.js';
import type { Measures } from '../measures.js';
import type { SharedFields } from '../shared.js';

export const FORMS = [
  'rectangle',
  'rounded',
  'ellipse',
  'triangle',
  'rightTriangle',
  'parallelogram',
  'trapezium',
  'polygon',
  'star',
  'bracket',
  'balloon',
  'cloud',
] as const;
export type Form = (typeof FORMS)[number];

/** A shape that fills a box. */
export interface ShapeMark extends SharedFields, TurnedBox {
  kind: 'shape';
  form: Form;
  /** Corners of a polygon, points of a star, lobes of a cloud. */
  sides: number;
  flip: boolean;
  style: LineStyle;
  measures?: Measures;
}

export const SHAPE_FIELDS: Checks = {
  ...BOX,
  flip: isFlag,
  form: oneOf(FORMS),
  sides: (value) => Number.isInteger(value) && isNumberIn(value, 3, 12),
};
