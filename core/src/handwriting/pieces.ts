import { STRIDE } from '../ink/points.js';
import type { GlyphBox } from './features.js';
import { boxOfGlyph } from './features.js';

/** A stroke, or a part of one that may be a letter or a part of a letter; flat x, y. */
export interface Piece {
  line: readonly number[];
  box: GlyphBox;
  /** The stroke that it is of. */
  stroke: number;
  /** Whether it may be no more than what leads from one letter to the next. */
  isLink: boolean;
}

type Part = Pick<Piece, 'isLink'> & { line: number[] };

/** Where a stroke passes only once, x. */
interface Link {
  from: number;
  to: number;
}

/** A stroke that is broader than this many heights of a small letter may be several letters. */
const JOINED = 1.25;
/** A stroke may be cut where it passes only once, over at least this part of a small letter's height. */
const PASSES_ONCE = 0.08;
/** Parts are not cut smaller than this part of a small letter's height. */
const LEAST_PART = 0.3;
/** Columns into which a small letter's height is divided to look for cuts. */
const COLUMNS = 16;

/** Strokes of a written line as pieces from left to right; where letters may be joined, cut between them. */
export function piecesOf(strokes: readonly (readonly number[])[], xHeight: number): Piece[] {
  return strokes
    .flatMap((points, stroke) => {
      const line = placesOf(points);
      const box = boxOfGlyph([line]);
      const parts: readonly Part[] =
        box.width > JOINED * xHeight ? cut(line, box, xHeight) : [{ line, isLink: false }];
      return parts.map((part) => ({ ...part, box: boxOfGlyph([part.line]), stroke }));
    })
    .sort((a, b) => middle(a.box) - middle(b.box));
}

/** Cuts a stroke that runs to the right where it passes a column only once: there one letter leads to the next. */
function cut(line: readonly number[], box: GlyphBox, xHeight: number): Part[] {
  const width = xHeight / COLUMNS;
  const columns = Math.ceil(box.width / width) + 1;
  const passes = new Uint8Array(columns);
  const column = (x: number) => Math.floor((x - box.left) / width);
  let last = column(line[0]!);
  passes[last]! += 1;
  for (let i = 2; i + 1 < line.length; i += 2) {
    const now = column(line[i]!);
    for (let c = last; c !== now;) {
      c += Math.sign(now - last);
      passes[c]! += 1;
    }
    last = now;
  }
  return splitAt(line, linksIn(passes, box, width, xHeight));
}

/** Where all runs of columns that are passed once begin and end, x; narrow ones only where they are. */
function linksIn(passes: Uint8Array, box: GlyphBox, width: number, xHeight: number): Link[] {
  const links: Link[] = [];
  let begin = 0;
  for (let c = 0; c <= passes.length; c++) {
    if (passes[c] === 1) continue;
    const [from, to] = [box.left + begin * width, box.left + c * width];
    begin = c + 1;
    const isInside =
      to - box.left > LEAST_PART * xHeight && box.left + box.width - from > LEAST_PART * xHeight;
    if (to - from < PASSES_ONCE * xHeight || !isInside) continue;
    links.push({ from: Math.max(from, box.left), to: Math.min(to, box.left + box.width) });
  }
  return links;
}

/** Parts of a stroke between links, and the links themselves, in their order. */
function splitAt(line: readonly number[], links: readonly Link[]): Part[] {
  const parts: Part[] = [];
  const side = (x: number) => {
    const link = links.findIndex(({ from, to }) => x >= from && x <= to);
    return link >= 0 ? 2 * link + 1 : 2 * links.filter(({ to }) => to < x).length;
  };
  let now = -1;
  for (let i = 0; i + 1 < line.length; i += 2) {
    const next = side(line[i]!);
    const place = [line[i]!, line[i + 1]!];
    if (next !== now) {
      parts.at(-1)?.line.push(...place);
      parts.push({ line: i > 0 ? [line[i - 2]!, line[i - 1]!] : [], isLink: next % 2 === 1 });
      now = next;
    }
    parts.at(-1)!.line.push(...place);
  }
  return parts.filter(({ line: { length } }) => length >= 4);
}

function placesOf(points: readonly number[]): number[] {
  const flat: number[] = [];
  for (let i = 0; i + 1 < points.length; i += STRIDE) flat.push(points[i]!, points[i + 1]!);
  return flat;
}

export function middle(box: GlyphBox): number {
  return box.left + box.width / 2;
}
