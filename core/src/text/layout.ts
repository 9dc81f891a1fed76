import type { FontId } from '../marks/mark.js';
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
  lines: TextLine[];
  height: number;
}

/** Distance of baselines as a multiple of the font size. */
export const LINE_HEIGHT = 1.4;

/** Advance of a character that the font lacks, as a part of the font size: wide ones take a full em. */
function fallbackAdvance(codePoint: number): number {
  return codePoint >= 0x1100 ? 1 : 0.6;
}

/** Width of `text` in page units, from the font's own advance widths, without kerning. */
export function textWidth(text: string, font: FontId, size: number): number {
  const metrics = fontMetrics(font);
  let width = 0;
  for (const char of text) {
    const codePoint = char.codePointAt(0)!;
    width += metrics.advance(codePoint) ?? fallbackAdvance(codePoint);
  }
  return width * size;
}

/**
 * Breaks text into lines of at most `width` page units: at spaces, inside words that are longer
 * than a line, between any two wide characters, and at line breaks. The same result on every
 * machine, because it is computed from the shipped font's own widths.
 */
export function layoutText(text: string, font: FontId, size: number, width: number): TextLayout {
  const metrics = fontMetrics(font);
  const lineHeight = size * LINE_HEIGHT;
  const lead = (lineHeight - (metrics.ascent + metrics.descent) * size) / 2;
  const lines = text
    .split('\n')
    .flatMap((paragraph) => breakParagraph(paragraph, font, size, width))
    .map((line, i) => ({
      baseline: i * lineHeight + lead + metrics.ascent * size,
      width: textWidth(line, font, size),
      runs: splitRuns(line, font, size),
    }));
  return { lines, height: lines.length * lineHeight };
}

function breakParagraph(paragraph: string, font: FontId, size: number, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const piece of breakablePieces(paragraph)) {
    if (textWidth((line + piece).trimEnd(), font, size) <= width) {
      line += piece;
      continue;
    }
    if (line !== '') lines.push(line.trimEnd());
    line = piece;
    while (textWidth(line.trimEnd(), font, size) > width && [...line].length > 1) {
      const head = longestFit(line, font, size, width);
      lines.push(head);
      line = line.slice(head.length);
    }
  }
  lines.push(line.trimEnd());
  return lines;
}

/** Words with the spaces that follow them; wide characters (CJK) each by themselves. */
function breakablePieces(paragraph: string): string[] {
  return (
    paragraph.match(
      /[\u2e80-\u9fff\uac00-\ud7af\uf900-\ufaff\uff00-\uffef]\s*|[^\s\u2e80-\u9fff\uac00-\ud7af\uf900-\ufaff\uff00-\uffef]+\s*|\s+/gu,
    ) ?? []
  );
}

function longestFit(word: string, font: FontId, size: number, width: number): string {
  let head = '';
  for (const char of word) {
    if (head !== '' && textWidth(head + char, font, size) > width) break;
    head += char;
  }
  return head;
}

function splitRuns(line: string, font: FontId, size: number): TextRun[] {
  const metrics = fontMetrics(font);
  const runs: TextRun[] = [];
  let x = 0;
  for (const char of line) {
    const fallback = metrics.advance(char.codePointAt(0)!) === undefined;
    const width = textWidth(char, font, size);
    const last = runs.at(-1);
    if (last && last.fallback === fallback) {
      last.text += char;
      last.width += width;
    } else runs.push({ x, width, text: char, fallback });
    x += width;
  }
  return runs;
}
