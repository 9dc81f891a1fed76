import type { LineDrawing } from '../../src/drawings/index.js';
import type { Random } from './random.mjs';

/** The strokes of a rough drawing of some lines, about `size` page units large, as points of strokes. */
export function redrawn(lines: LineDrawing['lines'], size: number, random: Random): number[][];
