import type { Check, Checks } from '../../checks/fields.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import { BOX, isFlag, isId, isNumberIn, isOpacity, isShare, shaped } from '../fields.js';
import type { SharedFields } from '../shared.js';

/** A stored picture; `crop` is the part that is shown, each 0 to 1. */
export interface PictureMark extends SharedFields, TurnedBox {
  kind: 'picture';
  material: string;
  crop: { x: number; y: number; width: number; height: number };
  flip: boolean;
  style: { opacity: number };
}

/** Less of a picture would have to be enlarged beyond what a PDF can say. */
const isCropSide: Check = (value) => isNumberIn(value, 0.001, 1);

export const PICTURE_FIELDS: Checks = {
  ...BOX,
  material: isId,
  crop: shaped({ x: isShare, y: isShare, width: isCropSide, height: isCropSide }),
  flip: isFlag,
};
export const PICTURE_STYLE: Checks = { opacity: isOpacity };
