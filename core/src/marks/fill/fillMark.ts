import type { Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import { MAX_POINTS } from '../../ink/points.js';
import { cornersFrom, isOpacity, some } from '../fields.js';
import type { SharedFields } from '../shared.js';

/** An area that was poured full of colour: rings of x, y, filled by the even-odd rule. */
export interface FillMark extends SharedFields {
  kind: 'fill';
  rings: readonly (readonly number[])[];
  style: { colour: string; opacity: number };
}

const MAX_RINGS = 2000;

export const FILL_FIELDS: Checks = { rings: some(cornersFrom(3, MAX_POINTS), MAX_RINGS) };
export const FILL_STYLE: Checks = { colour: isHexColour, opacity: isOpacity };
