import type { Rect } from '../geometry/rect.js';
import { rectFromCorners } from '../geometry/rect.js';
import type { TurnedBox } from '../geometry/turnedBox.js';
import { boundsOfPoints } from '../geometry/turnedBox.js';
import { INK_WIDTH, LEAST_LENGTH } from '../marks/fields.js';
import { TEXT_SIZE } from '../marks/text/textMark.js';
import type { LineStyle } from '../marks/lineStyle.js';
import type { MarkBody } from '../marks/markBody.js';
import type { TextStyle } from '../marks/text/textMark.js';
import type { PageWords } from '../text/pageWords.js';
import type { AnnotationFields } from './annotationFields.js';
import { hexOf } from './annotationFields.js';

/** From a page's own space to page units. */
export interface Placing {
  at(x: number, y: number): [number, number];
  length(value: number): number;
  /** The words of the page, where they have been read. */
  words?: PageWords | undefined;
}

type Reader = (fields: AnnotationFields, placing: Placing) => MarkBody[] | undefined;

const BLACK = '#000000';
/** Time between the points of a stroke whose times nobody knows, milliseconds. */
const STEP_MS = 10;
/** A sticky note that an icon stands for, page units. */
const NOTE = { width: 180, height: 120 };
const NOTE_COLOUR = '#f0e442';
/** Where a note's icon is its only size, it is smaller than this, page units. */
const ICON = 60;

/** How annotations of each subtype become marks; undefined where they cannot. */
export const BODIES: Record<string, Reader | undefined> = {
  Ink: (fields, placing) =>
    fields
      .lists('InkList')
      .filter((list) => list.length >= 2)
      .map((list) => stroke(pairs(list), fields, placing)),
  Highlight: (fields, placing) =>
    markedWords('highlight', fields, placing) ??
    quads(fields).map((quad) => highlight(quad, fields, placing)),
  Underline: (fields, placing) =>
    markedWords('underline', fields, placing) ??
    quads(fields).map((quad) => lineAcross(quad, 0.05, fields, placing)),
  Squiggly: (fields, placing) => quads(fields).map((quad) => lineAcross(quad, 0.05, fields, placing)),
  StrikeOut: (fields, placing) => quads(fields).map((quad) => lineAcross(quad, 0.45, fields, placing)),
  Line: (fields, placing) => {
    const ends = fields.numbers('L');
    return ends?.length === 4 ? [path(pairs(ends), false, fields, placing)] : undefined;
  },
  PolyLine: (fields, placing) => corners(fields, false, placing),
  Polygon: (fields, placing) => corners(fields, true, placing),
  Square: (fields, placing) => box('rectangle', fields, placing),
  Circle: (fields, placing) => box('ellipse', fields, placing),
  FreeText: typed,
  Text: note,
};

type Point = readonly [number, number];

function pairs(list: readonly number[]): Point[] {
  return Array.from(
    { length: Math.floor(list.length / 2) },
    (_, i) => [list[2 * i]!, list[2 * i + 1]!] as const,
  );
}

/** The corners of the words that are marked: upper left, upper right, lower left, lower right (as all readers write them). */
function quads(fields: AnnotationFields): Point[][] {
  const all = pairs(fields.numbers('QuadPoints') ?? []);
  return Array.from({ length: Math.floor(all.length / 4) }, (_, i) => all.slice(4 * i, 4 * i + 4));
}

/** Words that are marked, glued to what they say; undefined where there are none under the mark. */
function markedWords(
  look: 'highlight' | 'underline',
  fields: AnnotationFields,
  { at, words }: Placing,
): MarkBody[] | undefined {
  const rects = quads(fields).map((quad) => boundsOfPoints(quad.map(([x, y]) => at(x, y))));
  const [first, last] = [rects[0], rects.at(-1)];
  if (!words || !first || !last) return undefined;
  const covered = rects.flatMap((rect) => words.within(rect));
  if (covered.length === 0) return undefined;
  const from = { x: first.x + 1, y: first.y + first.height / 2 };
  const to = { x: last.x + last.width - 1, y: last.y + last.height / 2 };
  const quote = words.between(from, to);
  return (
    quote && [
      {
        kind: 'quote',
        ...quote,
        look,
        rects: rects.flatMap(({ x, y, width, height }) => [x, y, width, height]),
        style: { colour: fields.colour('C') ?? NOTE_COLOUR, opacity: fields.number('CA') ?? 1 },
      },
    ]
  );
}

function stroke(points: readonly Point[], fields: AnnotationFields, placing: Placing): MarkBody {
  return {
    kind: 'stroke',
    pressure: false,
    points: points.flatMap(([x, y], i) => [...placing.at(x, y), 0.5, i * STEP_MS]),
    style: {
      // The one whose width is the same everywhere.
      nature: 'marker',
      colour: fields.colour('C') ?? BLACK,
      width: widthOf(fields, placing),
      opacity: fields.number('CA') ?? 1,
    },
  };
}

function highlight(quad: readonly Point[], fields: AnnotationFields, placing: Placing): MarkBody {
  const height = distance(quad[0]!, quad[2]!);
  const [from, to] = [middle(quad[0]!, quad[2]!, 0.5), middle(quad[1]!, quad[3]!, 0.5)];
  return {
    kind: 'stroke',
    pressure: false,
    points: [from, to].flatMap(([x, y], i) => [...placing.at(x, y), 0.5, i * STEP_MS]),
    style: {
      nature: 'highlighter',
      colour: fields.colour('C') ?? NOTE_COLOUR,
      width: within(INK_WIDTH, placing.length(height)),
      opacity: fields.number('CA') ?? 1,
    },
  };
}

/** A line along words, so far above their lower edge, of their height. */
function lineAcross(
  quad: readonly Point[],
  above: number,
  fields: AnnotationFields,
  placing: Placing,
): MarkBody {
  const ends = [middle(quad[2]!, quad[0]!, above), middle(quad[3]!, quad[1]!, above)];
  return path(ends, false, fields, placing);
}

function path(
  points: readonly Point[],
  closed: boolean,
  fields: AnnotationFields,
  placing: Placing,
): MarkBody {
  const ends = fields.names('LE').map((end) => /Arrow/.test(end));
  const heads = ends[0] ? (ends[1] ? 'both' : 'start') : ends[1] ? 'end' : 'none';
  return {
    kind: 'path',
    course: 'straight',
    points: points.flatMap(([x, y]) => placing.at(x, y)),
    closed,
    heads: closed ? 'none' : heads,
    from: null,
    to: null,
    style: lineStyle(fields, placing, closed),
  };
}

function corners(fields: AnnotationFields, closed: boolean, placing: Placing): MarkBody[] | undefined {
  const points = pairs(fields.numbers('Vertices') ?? []);
  return points.length >= 2 ? [path(points, closed, fields, placing)] : undefined;
}

function box(
  form: 'rectangle' | 'ellipse',
  fields: AnnotationFields,
  placing: Placing,
): MarkBody[] | undefined {
  const rect = rectOf(fields, placing);
  if (!rect) return undefined;
  const style = lineStyle(fields, placing, true);
  return [
    { kind: 'shape', form, sides: 4, flip: false, rotation: 0, ...inset(rect, fields, placing), style },
  ];
}

/** The box within the differences (RD) that leave room for the line. */
function inset(rect: Rect, fields: AnnotationFields, placing: Placing): Rect {
  const half = widthOf(fields, placing) / 2;
  const by = fields.numbers('RD')?.length === 4 ? placing.length(Math.max(...fields.numbers('RD')!)) : half;
  const room = Math.min(by, rect.width / 2 - 1, rect.height / 2 - 1);
  if (room <= 0) return rect;
  return { x: rect.x + room, y: rect.y + room, width: rect.width - 2 * room, height: rect.height - 2 * room };
}

function lineStyle(fields: AnnotationFields, placing: Placing, filled: boolean): LineStyle {
  return {
    line:
      fields.lineWidth === 0 ? null : (fields.colour('C') ?? (fields.colour('C') === null ? null : BLACK)),
    width: widthOf(fields, placing),
    dash: fields.isDashed ? 'dashed' : 'solid',
    fill: (filled && fields.colour('IC')) || null,
    opacity: fields.number('CA') ?? 1,
  };
}

/** Typed text; its size and colour stand in the default appearance (§12.7.3.3). */
function typed(fields: AnnotationFields, placing: Placing): MarkBody[] | undefined {
  const [box, text] = [turnedBoxOf(fields, placing), plain(fields.text('Contents'))];
  if (!box || text === '') return undefined;
  const look = fields.text('DA');
  const size = Number(/([\d.]+)\s+Tf/.exec(look)?.[1] ?? 12) || 12;
  const style: TextStyle = {
    ...cutOf(fields.text('DS')),
    size: within(TEXT_SIZE, placing.length(size)),
    colour: colourIn(look) ?? BLACK,
    background: fields.colour('C') ?? null,
    align: (['left', 'center', 'right'] as const)[fields.number('Q') ?? 0] ?? 'left',
    list: 'none',
  };
  const { x, y, rotation } = box;
  return [{ kind: 'text', x, y, width: Math.max(20, box.width), rotation, text, style }];
}

/** Font and cut by a default style, which is CSS (table 174). */
function cutOf(css: string): Pick<TextStyle, 'font' | 'bold' | 'italic' | 'underline'> {
  const font = /mono|courier|code/i.test(css)
    ? 'mono'
    : /cursive|hand/i.test(css)
      ? 'hand'
      : /(?<!sans[- ])serif|times|georgia/i.test(css)
        ? 'serif'
        : 'andika';
  const isBold = /\bbold|font-weight:\s*[6-9]00/i.test(css);
  return { font, bold: isBold, italic: /italic|oblique/i.test(css), underline: /underline/i.test(css) };
}

/** A note that was shown by an icon, opened. */
function note(fields: AnnotationFields, placing: Placing): MarkBody[] | undefined {
  const [box, text] = [turnedBoxOf(fields, placing), plain(fields.text('Contents')).slice(0, 2000)];
  if (!box || text === '') return undefined;
  const { x, y, rotation } = box;
  const wanted = Math.max(box.width, box.height) > ICON ? box : NOTE;
  // Numbers of a PDF are rounded, and what is as thin as can be must not become thinner.
  const width = Math.max(LEAST_LENGTH, wanted.width);
  const height = Math.max(LEAST_LENGTH, wanted.height);
  const style = { colour: fields.colour('C') ?? NOTE_COLOUR, font: 'andika' as const };
  return [{ kind: 'note', x, y, width, height, rotation, text, style }];
}

/** The box of what is shown by an appearance that is turned; as it is where it is not, or not by a plain turn. */
function turnedBoxOf(fields: AnnotationFields, placing: Placing): TurnedBox | undefined {
  const rect = rectOf(fields, placing);
  const look = fields.appearance;
  if (!rect || !look) return rect && { ...rect, rotation: 0 };
  const [a, b, c, d] = look.matrix;
  const isTurn = Math.abs(a - d) < 1e-3 && Math.abs(b + c) < 1e-3 && Math.abs(Math.hypot(a, b) - 1) < 1e-3;
  if (!isTurn || (a > 0 && Math.abs(b) < 1e-4)) return { ...rect, rotation: 0 };
  const [left, bottom, right, top] = look.box;
  const plain = rectFromCorners(...placing.at(left, bottom), ...placing.at(right, top));
  const { width, height } = plain;
  const [x, y] = [rect.x + (rect.width - width) / 2, rect.y + (rect.height - height) / 2];
  // Up is positive there, down here.
  const rotation = Math.round(((Math.atan2(-b, a) * 180) / Math.PI) * 100) / 100;
  return { x, y, width, height, rotation };
}

function colourIn(look: string): string | undefined {
  const found = /((?:[\d.]+\s+){1,4})(?:g|rg|k)\b/.exec(look);
  return found ? hexOf(found[1]!.trim().split(/\s+/).map(Number)) : undefined;
}

function rectOf(fields: AnnotationFields, placing: Placing): Rect | undefined {
  const rect = fields.numbers('Rect');
  if (rect?.length !== 4) return undefined;
  return rectFromCorners(...placing.at(rect[0]!, rect[1]!), ...placing.at(rect[2]!, rect[3]!));
}

function widthOf(fields: AnnotationFields, placing: Placing): number {
  return within(INK_WIDTH, placing.length(fields.lineWidth));
}

function within({ min, max }: { min: number; max: number }, value: number): number {
  return Math.min(max, Math.max(min, value));
}

function middle(a: Point, b: Point, part: number): Point {
  return [a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part];
}

function distance(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1]);
}

/** Lines as they are here, whichever way they ended. */
function plain(text: string): string {
  return text.replace(/\r\n?/g, '\n').trim();
}
