import type { Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import type { SharedFields } from '../shared.js';

/** Hides a region, such as an answer, until it is taken away by a tap; never exported. */
export interface PatchMark extends SharedFields, Omit<TurnedBox, 'flip'> {
  kind: 'patch';
  style: { colour: string };
}

export const PATCH_STYLE: Checks = { colour: isHexColour };
