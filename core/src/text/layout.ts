import type { Rect } from '../geometry/rect.js';
import { growRect } from '../geometry/rect.js';
import type { TextStyle } from '../marks/mark.js';
import type { Face } from './font.js';
import { fontMetrics } from './font.js';

/** A run of one line that is drawn in one go; `fallback` runs need a font that has their characters. */
export interface TextRun {
  /** Left edge in page units, from the left of the box. */
  x: number;
  width: number;
  text: string;
  fallback: boolean;
}

export interface TextLine {
  /** Baseline in page units, from the top of the box. */
  baseline: number;
  width: number;
  runs: TextRun[];
}

export interface TextLayout {
  face: Face;
  size: number;
  lines: TextLine[];
  height: number;
  /** Whether a word had to be broken because it is longer than a line. */
  broken: boolean;
}

/** Distance of baselines as a multiple of the font size. */
export const LINE_HEIGHT = 1.4;

/** How far letters may reach beyond their advance width and the font's height, as a part of the font size. */
export const OVERHANG = 0.25;

/** Advance of a character that the font lacks, as a part of the font size: wide ones take a full em. */
function fallbackAdvance(codePoint: number): number {
  return codePoint >= 0x1100 ? 1 : 0.6;
}

/** Width of `text` in page units, from the font's own advance widths, without kerning. */
export function textWidth(text: string, face: Face, size: number): number {
  const metrics = fontMetrics(face);
  let width = 0;
  for (const char of text) {
    const codePoint = char.codePointAt(0)!;
    width += metrics.advance(codePoint) ?? fallbackAdvance(codePoint);
  }
  return width * size;
}

const PLAIN: Pick<TextStyle, 'align' | 'list'> = { align: 'left', list: 'none' };
/** Room for a bullet or number before a paragraph, as a multiple of the font size. */
const INDENT = 1.5;

/**
 * Breaks text into lines of at most `width` page units: at spaces, inside words that are longer
 * than a line, between any two wide characters, and at line breaks. The same result on every
 * machine, because it is computed from the shipped font's own widths.
 */
export function layoutText(
  text: string,
  face: Face,
  size: number,
  width: number,
  { align, list } = PLAIN,
): TextLayout {
  const metrics = fontMetrics(face);
  const lineHeight = size * LINE_HEIGHT;
  const lead = (lineHeight - (metrics.ascent + metrics.descent) * size) / 2;
  const indent = list === 'none' ? 0 : size * INDENT;
  const layout: TextLayout = { face, size, lines: [], height: 0, broken: false };
  text.split('\n').forEach((paragraph, n) => {
    const { lines, broken } = breakParagraph(paragraph, face, size, Math.max(size, width - indent));
    layout.broken ||= broken;
    lines.forEach((line, i) => {
      const wide = textWidth(line, face, size);
      const x =
        indent + { left: 0, center: (width - indent - wide) / 2, right: width - indent - wide }[align];
      const runs = splitRuns(line, face, size, x);
      if (i === 0 && list !== 'none') runs.unshift(markerRun(list, n, face, size, x));
      const baseline = layout.lines.length * lineHeight + lead + metrics.ascent * size;
      layout.lines.push({ baseline, width: wide, runs });
    });
  });
  layout.height = layout.lines.length * lineHeight;
  return layout;
}

/** The bullet or number of the n-th paragraph (from 0), its right end just before the text. */
function markerRun(list: 'bullets' | 'numbers', n: number, face: Face, size: number, textX: number): TextRun {
  const text = list === 'bullets' ? '•' : `${n + 1}.`;
  const width = textWidth(text, face, size);
  return { x: textX - width - size * 0.4, width, text, fallback: false };
}

function breakParagraph(
  paragraph: string,
  face: Face,
  size: number,
  width: number,
): { lines: string[]; broken: boolean } {
  const lines: string[] = [];
  let broken = false;
  let line = '';
  for (const piece of breakablePieces(paragraph)) {
    if (textWidth((line + piece).trimEnd(), face, size) <= width) {
      line += piece;
      continue;
    }
    if (line !== '') lines.push(line.trimEnd());
    line = piece;
    while (textWidth(line.trimEnd(), face, size) > width && [...line].length > 1) {
      const head = longestFit(line, face, size, width);
      lines.push(head);
      line = line.slice(head.length);
      broken = true;
    }
  }
  lines.push(line.trimEnd());
  return { lines, broken };
}

/** Words with the spaces that follow them; wide characters (CJK) each by themselves. */
function breakablePieces(paragraph: string): string[] {
  return (
    paragraph.match(
      /[\u2e80-\u9fff\uac00-\ud7af\uf900-\ufaff\uff00-\uffef]\s*|[^\s\u2e80-\u9fff\uac00-\ud7af\uf900-\ufaff\uff00-\uffef]+\s*|\s+/gu,
    ) ?? []
  );
}

function longestFit(word: string, face: Face, size: number, width: number): string {
  let head = '';
  for (const char of word) {
    if (head !== '' && textWidth(head + char, face, size) > width) break;
    head += char;
  }
  return head;
}

function splitRuns(line: string, face: Face, size: number, from: number): TextRun[] {
  const metrics = fontMetrics(face);
  const runs: TextRun[] = [];
  let x = from;
  for (const char of line) {
    const fallback = metrics.advance(char.codePointAt(0)!) === undefined;
    const width = textWidth(char, face, size);
    const last = runs.at(-1);
    if (last && last.fallback === fallback) {
      last.text += char;
      last.width += width;
    } else runs.push({ x, width, text: char, fallback });
    x += width;
  }
  return runs;
}

/** The rectangle that holds all that is drawn of a layout, from the upper left of its box. Page units. */
export function layoutReach({ face, size, lines, height }: TextLayout): Rect {
  const { ascent, descent } = fontMetrics(face);
  let [left, right, top, bottom] = [0, 0, 0, height];
  for (const { baseline, runs } of lines) {
    for (const { x, width } of runs) {
      left = Math.min(left, x);
      right = Math.max(right, x + width);
    }
    top = Math.min(top, baseline - ascent * size);
    bottom = Math.max(bottom, baseline + descent * size);
  }
  return growRect({ x: left, y: top, width: right - left, height: bottom - top }, OVERHANG * size);
}
