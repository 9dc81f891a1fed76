import type { Check, Checks } from '../../checks/fields.js';
import { hasOnly, isRecord } from '../../checks/fields.js';
import { isHexColour } from '../../colour/contrast.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import type { FontId } from '../../text/fonts.js';
import { FONTS } from '../../text/fonts.js';
import { each, isFlag, isNumberIn, oneOf, orNull, PLACE, textUpTo } from '../fields.js';
import type { SharedFields } from '../shared.js';

export const ALIGNS = ['left', 'center', 'right'] as const;
export const LISTS = ['none', 'bullets', 'numbers'] as const;

/** How typed text looks. Size is in page units. */
export interface TextStyle {
  font: FontId;
  size: number;
  colour: string;
  bold: boolean;
  italic: boolean;
  underline: boolean;
  /** Colour behind the text, or null. */
  background: string | null;
  align: (typeof ALIGNS)[number];
  list: (typeof LISTS)[number];
}

/** Letters of a text, from `from` up to `to` (UTF-16 units), that look unlike the rest. */
export interface TextPart extends Partial<Pick<TextStyle, 'bold' | 'italic' | 'underline' | 'colour'>> {
  from: number;
  to: number;
  /** Multiple of the text's size. */
  scale?: number;
}

/** Typed text in a box of fixed width; its height follows from the text. */
export interface TextMark extends SharedFields, Omit<TurnedBox, 'height' | 'flip'> {
  kind: 'text';
  style: TextStyle;
  text: string;
  /** One after the other; none reaches into another. */
  parts?: readonly TextPart[];
}

/** Words on paper: black, from the left, of a size in page units. */
export function plainText(size: number, bold: boolean): TextStyle {
  return {
    font: 'andika',
    size,
    colour: '#000000',
    bold,
    italic: false,
    underline: false,
    background: null,
    align: 'left',
    list: 'none',
  };
}

export const MAX_TEXT_LENGTH = 10_000;
export const TEXT_SIZE = { min: 4, max: 400 };
export const TEXT_SCALE = { min: 0.1, max: 10 };
const MAX_PARTS = 2000;

const isOffset: Check = (value) => Number.isInteger(value) && isNumberIn(value, 0, MAX_TEXT_LENGTH);
const PART_LOOK: Checks = {
  bold: isFlag,
  italic: isFlag,
  underline: isFlag,
  colour: isHexColour,
  scale: (value) => isNumberIn(value, TEXT_SCALE.min, TEXT_SCALE.max),
};

const isPartList: Check = (value) => {
  let end = 0;
  const follows: Check = (part) => {
    if (!isRecord(part)) return false;
    const { from, to, ...look } = part;
    if (!isOffset(from) || !isOffset(to) || !((from as number) >= end && (to as number) > (from as number)))
      return false;
    end = to as number;
    return hasOnly(look, PART_LOOK);
  };
  return each(follows, MAX_PARTS)(value);
};

export const TEXT_FIELDS: Checks = { ...PLACE, text: textUpTo(MAX_TEXT_LENGTH, 1) };
export const TEXT_OPTIONAL: Checks = { parts: isPartList };
export const TEXT_STYLE: Checks = {
  font: oneOf(FONTS),
  size: (value) => isNumberIn(value, TEXT_SIZE.min, TEXT_SIZE.max),
  colour: isHexColour,
  bold: isFlag,
  italic: isFlag,
  underline: isFlag,
  background: orNull(isHexColour),
  align: oneOf(ALIGNS),
  list: oneOf(LISTS),
};
