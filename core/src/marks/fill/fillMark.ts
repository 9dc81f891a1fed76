import type { Check, Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import { MAX_POINTS } from '../../ink/points.js';
import { cornersFrom, each, isOpacity } from '../fields.js';
import type { SharedFields } from '../shared.js';

/** An area that was poured full of colour: rings of x, y, filled by the even-odd rule. */
export interface FillMark extends SharedFields {
  kind: 'fill';
  rings: readonly (readonly number[])[];
  style: { colour: string; opacity: number };
}

const MAX_RINGS = 2000;
const areRings = each(cornersFrom(3, MAX_POINTS), MAX_RINGS);
const isFilled: Check = (value) => areRings(value) && (value as unknown[]).length > 0;

export const FILL_FIELDS: Checks = { rings: isFilled };
export const FILL_STYLE: Checks = { colour: isHexColour, opacity: isOpacity };
