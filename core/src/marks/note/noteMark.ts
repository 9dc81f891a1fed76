import type { Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import type { FontId } from '../../text/fonts.js';
import { FONTS } from '../../text/fonts.js';
import { BOX, oneOf, textUpTo } from '../fields.js';
import type { SharedFields } from '../shared.js';

/** A coloured note whose text is fitted into it. */
export interface NoteMark extends SharedFields, Omit<TurnedBox, 'flip'> {
  kind: 'note';
  text: string;
  style: { colour: string; font: FontId };
}

export const NOTE_FIELDS: Checks = { ...BOX, text: textUpTo(2000) };
export const NOTE_STYLE: Checks = { colour: isHexColour, font: oneOf(FONTS) };
