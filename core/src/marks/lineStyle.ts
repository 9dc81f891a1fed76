import type { Checks } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import { isInkWidth, isOpacity, oneOf, orNull } from './fields.js';

export const DASHES = ['solid', 'dashed', 'dotted'] as const;

/** How shapes and paths look; null means no line or no filling. */
export interface LineStyle {
  line: string | null;
  width: number;
  dash: (typeof DASHES)[number];
  fill: string | null;
  opacity: number;
}

export const LINE_STYLE: Checks = {
  line: orNull(isHexColour),
  width: isInkWidth,
  dash: oneOf(DASHES),
  fill: orNull(isHexColour),
  opacity: isOpacity,
};
