import type { LineDrawing } from '../core/src/drawings/index.js';
import type { readSvg as ReadSvg } from '../core/src/formats/index.js';

/** The drawings, lines first; `readSvg` reads the shapes of an SVG. */
export function lineDrawings(readSvg: typeof ReadSvg): LineDrawing[];

/** Of each drawing: its name in the set, what it is called, and other words for it. */
export function indexIn(language: 'en' | 'de'): [id: string, name: string, words: string][];

/** Writes lines, names and licence into a folder `drawings` of the built web application. */
export function writeLineDrawings(dist: string): Promise<void>;
