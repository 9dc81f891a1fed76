import type { DrawnLine } from '../core/src/drawings/index.js';
import type { readSvg as ReadSvg } from '../core/src/formats/index.js';

/** Both sides of an icon in the whole numbers in which its corners are kept. */
export const ICON_SIDE: number;

/** The lines of an icon that is drawn by strokes; `readSvg` reads the shapes of an SVG. */
export function linesOfIcon(body: string, readSvg: typeof ReadSvg): DrawnLine[];
