import type { Face } from '@doodla/core';
import { LETTERS_ID } from './fileParts';

/** In a page that plays by itself: the font files that it brings, as addresses with their data in them (RFC 2397). */
export const fontFiles = JSON.parse(document.getElementById(LETTERS_ID)!.textContent) as Partial<
  Record<Face, string>
>;
