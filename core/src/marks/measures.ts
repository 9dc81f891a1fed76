import type { Checks } from '../checks/fields.js';
import { each, isFlag, isNumberIn, oneOf, shaped, textUpTo } from './fields.js';

/** What can be shown of a line or shape. */
export const FIGURES = ['angles', 'sides', 'perimeter', 'area'] as const;
export type Figure = (typeof FIGURES)[number];

/** How lengths are said. */
export interface Gauge {
  /** The unit as it is written: mm, cm, km … */
  unit: string;
  /** Page units to one of it. */
  per: number;
  decimals: number;
  /** Whether decimals follow a comma. */
  comma: boolean;
}

/** What is shown of a line or shape beside it. */
export interface Measures {
  shown: readonly Figure[];
  gauge: Gauge;
}

export const isGauge = shaped({
  unit: textUpTo(12, 1),
  per: (value) => isNumberIn(value, 1e-6, 1e6),
  decimals: (value) => Number.isInteger(value) && isNumberIn(value, 0, 3),
  comma: isFlag,
});

export const MEASURED: Checks = {
  measures: shaped({ shown: each(oneOf(FIGURES), FIGURES.length), gauge: isGauge }),
};
