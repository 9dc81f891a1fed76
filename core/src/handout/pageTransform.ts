import type { Matrix } from '../geometry/matrix.js';
import { UNITS_PER_POINT } from '../pages/page.js';

/** What a PDF page says of its own geometry (ISO 32000-1 table 30). */
export interface PdfPageGeometry {
  /** Visible box in user space: crop box within media box, as left, bottom, right, top. */
  box: readonly [number, number, number, number];
  /** Clockwise turn for display, degrees; a multiple of 90. */
  rotate: number;
  /** Size of a user space unit, in points. */
  userUnit: number;
}

/**
 * The map from page units (origin top left of the displayed page, y down) to the PDF page's user
 * space. It inverts the display of ISO 32000-1: crop box (§14.11.2), Rotate and UserUnit (table 30).
 */
export function pageToUserSpace({ box, rotate, userUnit }: PdfPageGeometry): Matrix {
  const s = 1 / (UNITS_PER_POINT * userUnit);
  const [left, bottom, right, top] = box;
  switch (normaliseRotation(rotate)) {
    case 90:
      return [0, s, s, 0, left, bottom];
    case 180:
      return [-s, 0, 0, s, right, bottom];
    case 270:
      return [0, -s, -s, 0, right, top];
    default:
      return [s, 0, 0, -s, left, top];
  }
}

/** 0, 90, 180 or 270; other angles are drawn unturned, as the standard leaves them undefined. */
function normaliseRotation(rotate: number): number {
  return ((rotate % 360) + 360) % 360;
}
