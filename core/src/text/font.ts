import type { FontId } from '../marks/mark.js';
import andika from './metrics/andika.json' with { type: 'json' };

/** Advance widths of a font: `runs` are lists of a first code point and the widths from there on. */
interface FontTable {
  unitsPerEm: number;
  ascent: number;
  descent: number;
  runs: number[][];
}

/** What text layout needs to know of a font; all sizes as parts of the font size. */
export interface FontMetrics {
  ascent: number;
  descent: number;
  /** Advance width of a character, or undefined where the font has no glyph for it. */
  advance(codePoint: number): number | undefined;
}

function metricsOf(table: FontTable): FontMetrics {
  const widths = new Map<number, number>();
  for (const [first, ...advances] of table.runs) {
    advances.forEach((width, i) => widths.set(first! + i, width / table.unitsPerEm));
  }
  return {
    ascent: table.ascent / table.unitsPerEm,
    descent: -table.descent / table.unitsPerEm,
    advance: (codePoint) => widths.get(codePoint),
  };
}

const METRICS: Record<FontId, FontMetrics> = { andika: metricsOf(andika) };

export function fontMetrics(font: FontId): FontMetrics {
  return METRICS[font];
}
