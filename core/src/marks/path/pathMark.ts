import type { Checks } from '../../checks/fields.js';
import { cornersFrom, isFlag, isId, isShare, oneOf, orNull, shaped } from '../fields.js';
import type { LineStyle } from '../lineStyle.js';
import type { Measures } from '../measures.js';
import type { SharedFields } from '../shared.js';

/** Where a path's end sticks to another mark: a place in that mark's box, 0 to 1 each way. */
export interface Anchor {
  mark: string;
  x: number;
  y: number;
}

export const COURSES = ['straight', 'elbow', 'quadratic', 'cubic', 'arc'] as const;
export const HEADS = ['none', 'start', 'end', 'both'] as const;

/** A line, arrow, connector, curve, polyline or free polygon. */
export interface PathMark extends SharedFields {
  kind: 'path';
  /** How it runs: through all points, by right angles between two, as one Bézier curve of 3 or 4 points, or as the part of a circle from the first of 3 through the second. */
  course: (typeof COURSES)[number];
  /** Flat list of x, y. */
  points: readonly number[];
  closed: boolean;
  heads: (typeof HEADS)[number];
  from: Anchor | null;
  to: Anchor | null;
  style: LineStyle;
  measures?: Measures;
}

const MAX_CORNERS = 2000;
const ANCHOR = orNull(shaped({ mark: isId, x: isShare, y: isShare }));

export const PATH_FIELDS: Checks = {
  course: oneOf(COURSES),
  points: cornersFrom(2, MAX_CORNERS),
  closed: isFlag,
  heads: oneOf(HEADS),
  from: ANCHOR,
  to: ANCHOR,
};
