import { UNITS_PER_MM } from '../pages/page.js';

/** A bank card, millimetres (ISO/IEC 7810, ID-1). */
export const CARD = { width: 85.6, height: 53.98, corner: 3.18 } as const;

/** CSS pixels to a millimetre where nobody has held a card to the screen: 96 to the inch. */
export const USUAL_PIXELS_PER_MM = UNITS_PER_MM;

/** CSS pixels to a millimetre of a display on which the card's outline, so many pixels wide, is as large as a card. */
export function pixelsPerMm(outlineWidth: number): number {
  return outlineWidth / CARD.width;
}

/** CSS pixels per page unit at which a page is as large as it is on paper. */
export function trueScale(pixels: number): number {
  return pixels / UNITS_PER_MM;
}
