import LineBreaker from 'linebreak';
import type { Rect } from '../geometry/rect.js';
import type { TextStyle } from '../marks/text/textMark.js';
import type { Face } from './font.js';
import { fontMetrics } from './font.js';

/** How letters look. Size in page units; without a colour they have the one of their ground's. */
export interface Look {
  face: Face;
  size: number;
  colour?: string;
  underline?: boolean;
}

/** Letters from `from` up to `to` (UTF-16 units) that have a look of their own. */
export interface LookSpan {
  from: number;
  to: number;
  look: Look;
}

/** A run of one line that is drawn in one go; `fallback` runs need a font that has their characters. */
export interface TextRun {
  /** Left edge in page units, from the left of the box. */
  x: number;
  width: number;
  text: string;
  look: Look;
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
  /** Whether a word had to be broken because it is longer than a line. */
  broken: boolean;
}

/** Distance of baselines as a multiple of the largest font size in a line. */
export const LINE_HEIGHT = 1.4;

/** How far letters may reach beyond their advance width and the font's height, as a part of the font size. */
export const OVERHANG = 0.25;

/** Advance of a character that the font lacks, as a part of the font size: wide ones take a full em. */
function fallbackAdvance(codePoint: number): number {
  return codePoint >= 0x1100 ? 1 : 0.6;
}

function advanceOf(codePoint: number, { face, size }: Look): number {
  return (fontMetrics(face).advance(codePoint) ?? fallbackAdvance(codePoint)) * size;
}

/** Width of `text` in page units, from the font's own advance widths, without kerning. */
export function textWidth(text: string, face: Face, size: number): number {
  let width = 0;
  for (const char of text) width += advanceOf(char.codePointAt(0)!, { face, size });
  return width;
}

const PLAIN: Pick<TextStyle, 'align' | 'list'> = { align: 'left', list: 'none' };
/** Room for a bullet or number before a paragraph, as a multiple of the font size. */
const INDENT = 1.5;
/** What adding up may be off by, page units. */
const TOLERANCE = 1e-6;

/** Lays out text that looks alike everywhere, as `layoutSpans` does. */
export function layoutText(
  text: string,
  face: Face,
  size: number,
  width: number,
  paragraphs = PLAIN,
): TextLayout {
  return layoutSpans(text, { face, size }, [], width, paragraphs);
}

/**
 * Breaks text into lines of at most `width` page units: at spaces, inside words that are longer
 * than a line, between any two wide characters, and at line breaks. A line is as high as what is
 * largest in it, as CSS 2.2 (10.8) has it. The same result on every machine, because it is computed
 * from the shipped font's own widths. Letters outside of all spans look like `base`.
 */
export function layoutSpans(
  text: string,
  base: Look,
  spans: readonly LookSpan[],
  width: number,
  { align, list } = PLAIN,
): TextLayout {
  const letters = new Letters(text, base, spans);
  const indent = list === 'none' ? 0 : base.size * INDENT;
  const room = Math.max(base.size, width - indent);
  const layout: TextLayout = { lines: [], height: 0, broken: false };
  let start = 0;
  text.split('\n').forEach((paragraph, n) => {
    const { lines, broken } = letters.breakLines(start, start + paragraph.length, room);
    layout.broken ||= broken;
    lines.forEach(([from, to], i) => {
      const wide = letters.width(from, to);
      const x =
        indent + { left: 0, center: (width - indent - wide) / 2, right: width - indent - wide }[align];
      const runs = letters.runs(from, to, x);
      if (i === 0 && list !== 'none') runs.unshift(markerRun(list, n, runs[0]?.look ?? base, x));
      const { above, below } = reachOf(runs.length > 0 ? runs : [{ look: base }]);
      layout.lines.push({ baseline: layout.height + above, width: wide, runs });
      layout.height += above + below;
    });
    start += paragraph.length + 1;
  });
  return layout;
}

/** How far a line reaches above and below its baseline. Page units. */
function reachOf(runs: readonly { look: Look }[]): { above: number; below: number } {
  let [above, below] = [-Infinity, -Infinity];
  for (const { face, size } of runs.map((run) => run.look)) {
    const { ascent, descent } = fontMetrics(face);
    const lead = (LINE_HEIGHT - ascent - descent) / 2;
    above = Math.max(above, (lead + ascent) * size);
    below = Math.max(below, (lead + descent) * size);
  }
  return { above, below };
}

/** The bullet or number of the n-th paragraph (from 0), its right end just before the text. */
function markerRun(list: 'bullets' | 'numbers', n: number, look: Look, textX: number): TextRun {
  const { face, size } = look;
  const text = list === 'bullets' ? '•' : `${n + 1}.`;
  const width = textWidth(text, face, size);
  const x = textX - width - size * 0.4;
  return { x, width, text, look: { ...look, underline: false }, fallback: false };
}

/** A text letter by letter; places in it are UTF-16 units. */
class Letters {
  private readonly looks: Look[];
  /** Where each letter begins if all stand in one line, and where the last one ends. */
  private readonly edges = [0];

  constructor(
    private readonly text: string,
    base: Look,
    spans: readonly LookSpan[],
  ) {
    this.looks = new Array<Look>(text.length).fill(base);
    for (const { from, to, look } of spans) this.looks.fill(look, from, to);
    let edge = 0;
    for (const char of text) {
      const i = this.edges.length - 1;
      // A letter of two units ends where its first unit does.
      edge += advanceOf(char.codePointAt(0)!, this.looks[i]!);
      for (let unit = 0; unit < char.length; unit++) this.edges.push(edge);
    }
  }

  width(from: number, to: number): number {
    return this.edges[to]! - this.edges[from]!;
  }

  /** First and last places of the lines of a paragraph, without the spaces at their ends. */
  breakLines(start: number, end: number, width: number): { lines: [number, number][]; broken: boolean } {
    const lines: [number, number][] = [];
    let broken = false;
    let [from, to] = [start, end];
    const trimmed = () => from + this.text.slice(from, to).trimEnd().length;
    // Where all of it is one line, it is not asked where it may be broken, which takes the longest.
    if (this.width(from, trimmed()) <= width + TOLERANCE) return { lines: [[from, trimmed()]], broken };
    to = start;
    for (const piece of breakablePieces(this.text.slice(start, end))) {
      const before = trimmed();
      to += piece.length;
      if (this.width(from, trimmed()) <= width + TOLERANCE) continue;
      if (to - piece.length > from) lines.push([from, before]);
      from = to - piece.length;
      while (this.width(from, trimmed()) > width + TOLERANCE) {
        const head = this.longestFit(from, trimmed(), width);
        if (head >= trimmed()) break;
        lines.push([from, head]);
        from = head;
        broken = true;
      }
    }
    lines.push([from, trimmed()]);
    return { lines, broken };
  }

  /** The last place up to which letters fit; at least one does. */
  private longestFit(from: number, end: number, width: number): number {
    let to = from;
    while (to < end) {
      const next = to + (this.text.codePointAt(to)! > 0xffff ? 2 : 1);
      if (to > from && this.width(from, next) > width + TOLERANCE) break;
      to = next;
    }
    return to;
  }

  runs(from: number, to: number, x: number): TextRun[] {
    const runs: TextRun[] = [];
    for (let i = from; i < to;) {
      const codePoint = this.text.codePointAt(i)!;
      const char = String.fromCodePoint(codePoint);
      const look = this.looks[i]!;
      const fallback = fontMetrics(look.face).advance(codePoint) === undefined;
      const width = this.width(i, i + char.length);
      const last = runs.at(-1);
      if (last && last.look === look && last.fallback === fallback) {
        last.text += char;
        last.width += width;
      } else runs.push({ x: x + this.width(from, i), width, text: char, look, fallback });
      i += char.length;
    }
    return runs;
  }
}

/** Pieces between which a line may end, each with the spaces after it (Unicode Standard Annex 14). */
function breakablePieces(paragraph: string): string[] {
  const breaker = new LineBreaker(paragraph);
  const pieces: string[] = [];
  let from = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    pieces.push(paragraph.slice(from, next.position));
    from = next.position;
  }
  return pieces;
}

/** The rectangle that holds all that is drawn of a layout, from the upper left of its box. Page units. */
export function layoutReach({ lines, height }: TextLayout): Rect {
  let [left, right, top, bottom] = [0, 0, 0, height];
  for (const { baseline, runs } of lines) {
    for (const { x, width, look } of runs) {
      const { ascent, descent } = fontMetrics(look.face);
      const over = OVERHANG * look.size;
      left = Math.min(left, x - over);
      right = Math.max(right, x + width + over);
      top = Math.min(top, baseline - ascent * look.size - over);
      bottom = Math.max(bottom, baseline + descent * look.size + over);
    }
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}
