import { PDFName } from '@cantoo/pdf-lib';
import type { Matrix } from '../../geometry/matrix.js';
import { applyMatrix } from '../../geometry/matrix.js';
import { flattenPath, pointsOf } from '../../geometry/path.js';
import type { Rect } from '../../geometry/rect.js';
import { growRect } from '../../geometry/rect.js';
import type { TurnedBox } from '../../geometry/turnedBox.js';
import { boxCorners, boxMatrix } from '../../geometry/turnedBox.js';
import { STRIDE } from '../../ink/points.js';
import { markBounds } from '../../marks/bounds.js';
import type { LineStyle } from '../../marks/lineStyle.js';
import type { Mark, MarkKind, MarkOf } from '../../marks/mark.js';
import { arrowHeads, pathCourse } from '../../marks/path/pathGeometry.js';
import { quoteRects } from '../../marks/quote/quoteKind.js';
import { shapePath } from '../../marks/shape/shapeGeometry.js';
import { textHeight } from '../../marks/text/textLayout.js';
import { parseHex } from '../../colour/contrast.js';
import { cssOf, defaultAppearance } from './textAppearance.js';

/** What an annotation says in its own dictionary. */
export type Entry = number | string | PDFName | readonly Entry[] | { readonly [key: string]: Entry };

/** An annotation (ISO 32000-1 §12.5.6) that stands for a mark, in the space of its page. */
export interface AnnotationBody {
  subtype: string;
  entries: Readonly<Record<string, Entry>>;
  /** What is said, or typed. */
  contents: string;
  /** The upright or turned box that it takes, page units. */
  box: Rect;
  /** How the box is turned there, page units; undefined where it is upright. */
  turn?: Matrix | undefined;
}

/** From page units to the page's own space. */
export interface UserSpace {
  matrix: Matrix;
  /** Units of that space to a page unit. */
  scale: number;
}

type Body<K extends MarkKind> = (mark: MarkOf<K>, space: UserSpace) => AnnotationBody;

const name = (text: string) => PDFName.of(text);
/** Pieces that a curve is cut into where only corners can be said. */
const PIECES = 24;
/** Dashes as they are drawn, in widths of the line; what reads them takes any for dashed. */
const DASH = { dashed: [3, 2.5], dotted: [0, 2] };

const BODIES: { [K in MarkKind]: Body<K> } = {
  stroke: (mark, space) => ({
    subtype: 'Ink',
    entries: {
      InkList: [inUserSpace(xy(mark.points, STRIDE), space)],
      C: parseHex(mark.style.colour),
      CA: mark.style.opacity,
      BS: { W: mark.style.width * space.scale, S: name('S') },
    },
    contents: '',
    box: markBounds(mark),
  }),
  text: (mark, space) => {
    const { x, y, width, rotation, style } = mark;
    const box: TurnedBox = { x, y, width, height: textHeight(mark), rotation };
    return {
      subtype: 'FreeText',
      entries: {
        DA: defaultAppearance(style, space.scale),
        DS: cssOf(style, space.scale),
        Q: ['left', 'center', 'right'].indexOf(style.align),
        BS: { W: 0 },
        ...(style.background !== null && { C: parseHex(style.background) }),
      },
      contents: mark.text,
      box,
      turn: boxMatrix(box),
    };
  },
  shape: (mark, space) => {
    const { form, rotation } = mark;
    const isPlain = rotation === 0 && (form === 'rectangle' || form === 'ellipse');
    if (!isPlain)
      return cornered(shapeCorners(mark), form !== 'bracket', markBounds(mark), mark.style, space);
    const half = mark.style.line === null ? 0 : mark.style.width / 2;
    return {
      subtype: form === 'rectangle' ? 'Square' : 'Circle',
      entries: {
        ...lineEntries(mark.style, space),
        RD: [half, half, half, half].map((by) => by * space.scale),
      },
      contents: '',
      box: growRect(mark, half),
    };
  },
  path: (mark, space) => {
    const course = flattenPath(pathCourse(mark), PIECES);
    const [first, second] = course;
    if (mark.closed || course.length > 2 || !first || !second)
      return cornered(course, mark.closed, markBounds(mark), mark.style, space, lineEnds(mark));
    return {
      subtype: 'Line',
      entries: {
        L: inUserSpace([first, second], space),
        ...lineEnds(mark),
        ...lineEntries(mark.style, space),
      },
      contents: '',
      box: markBounds(mark),
    };
  },
  stamp: (mark) => ({
    subtype: 'Stamp',
    entries: { Name: name(STAMP_NAMES[mark.stamp] ?? 'Sign') },
    contents: mark.stamp === 'number' ? mark.label : '',
    box: markBounds(mark),
  }),
  note: (mark) => ({
    subtype: 'Text',
    entries: { Name: name('Note'), C: parseHex(mark.style.colour) },
    contents: mark.text,
    box: mark,
    turn: boxMatrix(mark),
  }),
  picture: (mark) => ({
    subtype: 'Stamp',
    entries: { Name: name('Picture'), CA: mark.style.opacity },
    contents: '',
    box: mark,
    turn: boxMatrix({ ...mark, flip: false }),
  }),
  patch: (mark, space) =>
    cornered(boxCorners(mark), true, markBounds(mark), filling(mark.style.colour, 1), space),
  quote: (mark, space) => ({
    subtype: mark.look === 'highlight' ? 'Highlight' : 'Underline',
    entries: {
      QuadPoints: quoteRects(mark).flatMap((rect) => quadOf(rect, space)),
      C: parseHex(mark.style.colour),
      CA: mark.style.opacity,
    },
    contents: mark.exact,
    box: markBounds(mark),
  }),
  fill: (mark, space) => {
    const [ring, ...holes] = mark.rings;
    // A polygon has no holes.
    if (!ring || holes.length > 0)
      return { subtype: 'Stamp', entries: { Name: name('Filling') }, contents: '', box: markBounds(mark) };
    const { colour, opacity } = mark.style;
    return cornered(pointsOf(ring), true, markBounds(mark), filling(colour, opacity), space);
  },
  formula: (mark) => ({
    subtype: 'Stamp',
    entries: { Name: name('Formula') },
    contents: mark.alt ?? mark.tex,
    box: markBounds(mark),
  }),
  plot: (mark) => ({
    subtype: 'Stamp',
    entries: { Name: name('Graph') },
    contents: mark.alt ?? '',
    box: mark,
    turn: boxMatrix(mark),
  }),
};

const STAMP_NAMES: Readonly<Record<string, string>> = { tick: 'Tick', cross: 'Cross', question: 'Question' };

/** The annotation that stands for a mark. */
export function annotationBody<M extends Mark>(mark: M, space: UserSpace): AnnotationBody {
  // The table's type says which body belongs to which mark, but not to the compiler for a union of them.
  return (BODIES[mark.kind] as unknown as (mark: M, space: UserSpace) => AnnotationBody)(mark, space);
}

/** A polygon or an open line through corners. */
function cornered(
  corners: readonly (readonly [number, number])[],
  isClosed: boolean,
  box: Rect,
  style: LineStyle,
  space: UserSpace,
  ends: Readonly<Record<string, Entry>> = {},
): AnnotationBody {
  const own = isClosed ? withoutLast(corners) : corners;
  return {
    subtype: isClosed ? 'Polygon' : 'PolyLine',
    entries: {
      Vertices: inUserSpace(own, space),
      ...(isClosed ? {} : ends),
      ...lineEntries(isClosed ? style : { ...style, fill: null }, space),
    },
    contents: '',
    box,
  };
}

const filling = (colour: string, opacity: number): LineStyle => ({
  line: null,
  width: 1,
  dash: 'solid',
  fill: colour,
  opacity,
});

/** Corners of which the last is not the first again. */
function withoutLast(corners: readonly (readonly [number, number])[]) {
  const [first, last] = [corners[0], corners.at(-1)];
  const isSame = corners.length > 1 && first![0] === last![0] && first![1] === last![1];
  return isSame ? corners.slice(0, -1) : corners;
}

function shapeCorners(mark: MarkOf<'shape'>): (readonly [number, number])[] {
  return flattenPath(shapePath(mark), PIECES).map(turnedBy(mark));
}

const turnedBy = (box: TurnedBox) => {
  const matrix = boxMatrix(box);
  return ([x, y]: readonly [number, number]): readonly [number, number] =>
    matrix ? applyMatrix(matrix, x, y) : [x, y];
};

function lineEnds(mark: MarkOf<'path'>): Readonly<Record<string, Entry>> {
  if (arrowHeads(mark).length === 0) return {};
  const { heads } = mark;
  return {
    LE: [
      heads === 'end' ? name('None') : name('ClosedArrow'),
      heads === 'start' ? name('None') : name('ClosedArrow'),
    ],
  };
}

/** Line, filling and opacity (tables 166, 177 and 178). */
function lineEntries({ line, width, dash, fill, opacity }: LineStyle, { scale }: UserSpace) {
  const style: Entry =
    dash === 'solid' ? { S: name('S') } : { S: name('D'), D: DASH[dash].map((part) => part * width * scale) };
  return {
    C: line === null ? [] : parseHex(line),
    ...(fill !== null && { IC: parseHex(fill) }),
    CA: opacity,
    BS: { W: line === null ? 0 : width * scale, ...style },
  };
}

function xy(points: readonly number[], stride: number): (readonly [number, number])[] {
  return Array.from({ length: points.length / stride }, (_, i) => [
    points[i * stride]!,
    points[i * stride + 1]!,
  ]);
}

function inUserSpace(points: readonly (readonly [number, number])[], { matrix }: UserSpace): number[] {
  return points.flatMap(([x, y]) => applyMatrix(matrix, x, y));
}

/** Upper left, upper right, lower left, lower right: what readers take, rather than the order of §12.5.6.10. */
function quadOf({ x, y, width, height }: Rect, space: UserSpace): number[] {
  return inUserSpace(
    [
      [x, y],
      [x + width, y],
      [x, y + height],
      [x + width, y + height],
    ],
    space,
  );
}
