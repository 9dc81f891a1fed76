import type { Checks } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import { BOX, isFlag, oneOf, textUpTo } from '../fields.js';
import type { SharedFields } from '../shared.js';

export const STAMPS = ['tick', 'cross', 'question', 'star', 'heart', 'smile', 'arrow', 'number'] as const;
export type StampName = (typeof STAMPS)[number];

/** A ready-made sign; `label` is the number of a counting one. */
export interface StampMark extends SharedFields, TurnedBox {
  kind: 'stamp';
  stamp: StampName;
  label: string;
  flip: boolean;
  style: { colour: string };
}

export const STAMP_FIELDS: Checks = { ...BOX, flip: isFlag, stamp: oneOf(STAMPS), label: textUpTo(4) };
export const STAMP_STYLE: Checks = { colour: isHexColour };
