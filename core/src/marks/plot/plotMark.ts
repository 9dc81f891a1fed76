import type { Check, Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import { MAX_POINTS } from '../../ink/points.js';
import { BOX, cornersFrom, isLength, isNumberIn, isOpacity, shaped, some, textUpTo } from '../fields.js';
import type { SharedFields } from '../shared.js';

/** A graph, or a chart of data. */
export interface PlotMark extends SharedFields, Omit<TurnedBox, 'flip'> {
  kind: 'plot';
  /** What it was made of, as JSON (`@doodla/core/plots` or `charts`), so that it can be changed. */
  recipe: string;
  /** What it looks like in a box of its own size, which is stretched to that of the mark. */
  drawing: Drawing;
  style: { opacity: number };
}

export interface Drawing {
  width: number;
  height: number;
  /** Lowest first. */
  parts: readonly DrawingPart[];
}

/** A line through points, dashed with strokes and gaps of a length (0 where it is not), or what closed outlines hold. */
export type DrawingPart =
  | { line: readonly number[]; colour: string; width: number; dash: number }
  /** Closed outlines by quadratic curves: x, y where one begins, then a control and an end of each. */
  | { rings: readonly (readonly number[])[]; colour: string; opacity: number };

/** Whether it is a chart of data: its recipe begins with what kind of chart. */
export const isChart = ({ recipe }: Pick<PlotMark, 'recipe'>): boolean => recipe.startsWith('{"chart":');

export const MAX_RECIPE = 10_000;
const MAX_PARTS = 2000;
const MAX_RINGS = 4000;

const isRing: Check = (value) => cornersFrom(3, MAX_POINTS)(value) && (value as unknown[]).length % 4 === 2;
const isLine = shaped({
  line: cornersFrom(2, MAX_POINTS),
  colour: isHexColour,
  width: (value) => isNumberIn(value, 0.1, 100),
  dash: (value) => isNumberIn(value, 0, 100),
});
const isFilling = shaped({ rings: some(isRing, MAX_RINGS), colour: isHexColour, opacity: isOpacity });

export const PLOT_FIELDS: Checks = {
  ...BOX,
  recipe: textUpTo(MAX_RECIPE, 1),
  drawing: shaped({
    width: isLength,
    height: isLength,
    parts: some((value) => isLine(value) || isFilling(value), MAX_PARTS),
  }),
};
export const PLOT_STYLE: Checks = { opacity: isOpacity };
