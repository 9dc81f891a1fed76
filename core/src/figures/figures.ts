import type { Figure } from './figure.js';
import { CHEMISTRY } from './subjects/chemistry.js';
import { GEOGRAPHY } from './subjects/geography.js';
import { LANGUAGES } from './subjects/languages.js';
import { MATHEMATICS } from './subjects/mathematics.js';
import { MUSIC } from './subjects/music.js';
import { OPTICS } from './subjects/optics.js';
import { PHYSICS } from './subjects/physics.js';
import { SPORTS } from './subjects/sports.js';
import { STRUCTURE } from './subjects/structure.js';

const ALL = {
  ...CHEMISTRY,
  ...STRUCTURE,
  ...PHYSICS,
  ...OPTICS,
  ...MATHEMATICS,
  ...LANGUAGES,
  ...GEOGRAPHY,
  ...MUSIC,
  ...SPORTS,
};

export type FigureId = keyof typeof ALL;
/** All figures, by subject. */
export const FIGURES: Readonly<Record<FigureId, Figure>> = ALL;
export const FIGURE_IDS = Object.keys(ALL) as FigureId[];
