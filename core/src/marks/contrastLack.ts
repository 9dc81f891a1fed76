import { contrast, luminance } from '../colour/contrast.js';
import type { Lack } from './kind.js';

/** Least contrast of text (WCAG 2.2, 1.4.3), and of large text from 24 units on. */
export const CONTRAST = { normal: 4.5, large: 3, largeFrom: 24 };

/** What signs in a colour lack on a ground, where they have less contrast than they need. */
export function contrastLack(colour: string, ground: string, least: number): Lack[] {
  const ratio = contrast(colour, ground);
  if (ratio >= least) return [];
  return [{ what: 'contrast', ratio, better: luminance(ground) > 0.5 ? 'darker' : 'lighter' }];
}
