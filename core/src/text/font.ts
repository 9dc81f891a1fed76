import type { FontId } from '../text/fonts.js';
import type { TextStyle } from '../marks/text/textMark.js';
import andika from './metrics/andika.json' with { type: 'json' };

/** Fonts that come plain, bold and italic; the handwriting comes in one cut. */
type Family = Exclude<FontId, 'hand'>;

/** One cut of a font. */
export type Face = Family | `${Family}-${'bold' | 'italic' | 'bold-italic'}` | 'hand';

/** Advance widths of a face: `runs` are lists of a first code point and the widths from there on. */
export interface FaceTable {
  unitsPerEm: number;
  ascent: number;
  descent: number;
  runs: number[][];
}

/** What text layout needs to know of a face; all sizes as parts of the font size. */
export interface FontMetrics {
  ascent: number;
  descent: number;
  /** Advance width of a character, or undefined where the face has no glyph for it. */
  advance(codePoint: number): number | undefined;
}

const METRICS = new Map<Face, FontMetrics>([['andika', metricsOf(andika)]]);

/** Makes a face known; until then its text is laid out by Andika's widths. */
export function registerFace(face: Face, table: FaceTable): void {
  METRICS.set(face, metricsOf(table));
}

export function isFaceKnown(face: Face): boolean {
  return METRICS.has(face);
}

export function fontMetrics(face: Face): FontMetrics {
  return METRICS.get(face) ?? METRICS.get('andika')!;
}

/** The face of a text style. */
export function faceOf({ font, bold, italic }: Pick<TextStyle, 'font' | 'bold' | 'italic'>): Face {
  if (font === 'hand') return 'hand';
  const cut = bold ? (italic ? 'bold-italic' : 'bold') : italic ? 'italic' : undefined;
  return cut ? `${font}-${cut}` : font;
}

function metricsOf(table: FaceTable): FontMetrics {
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
