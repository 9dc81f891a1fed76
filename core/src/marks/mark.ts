import type { TextQuote } from '../annotation/textQuote.js';

/** Whose marks: the whole class, one table (group), or one student's own copy. */
export type Space = 'class' | `table:${string}` | `student:${string}`;

export const NATURES = ['pen', 'pencil', 'marker', 'chalk', 'highlighter'] as const;
export type Nature = (typeof NATURES)[number];

/** How ink looks. Widths are page units, opacity 0 to 1. */
export interface InkStyle {
  nature: Nature;
  colour: string;
  width: number;
  opacity: number;
}

/** Andika is made for early readers; the others are a serif, a typewriter and a handwriting. */
export const FONTS = ['andika', 'serif', 'mono', 'hand'] as const;
export type FontId = (typeof FONTS)[number];

export const ALIGNS = ['left', 'center', 'right'] as const;
export const LISTS = ['none', 'bullets', 'numbers'] as const;

/** How typed text looks. Size is in page units. */
export interface TextStyle {
  font: FontId;
  size: number;
  colour: string;
  bold: boolean;
  italic: boolean;
  underline: boolean;
  /** Colour behind the text, or null. */
  background: string | null;
  align: (typeof ALIGNS)[number];
  list: (typeof LISTS)[number];
}

export const DASHES = ['solid', 'dashed', 'dotted'] as const;

/** How shapes and paths look; null means no line or no filling. */
export interface LineStyle {
  line: string | null;
  width: number;
  dash: (typeof DASHES)[number];
  fill: string | null;
  opacity: number;
}

interface MarkCommon {
  id: string;
  page: string;
  /** Id of the person who made it. */
  author: string;
  space: Space;
  /** Fractional index: later marks lie on top. */
  order: string;
  locked: boolean;
  /** Marks of one group are selected together. */
  group: string | null;
  /** What it shows, for those who cannot see it; null where nobody has said. */
  alt: string | null;
  /** Milliseconds since 1970-01-01 UTC. */
  createdAt: number;
  /** The part of a shown screen that it was made on; see `live/panes`. */
  pane?: number;
}

/** A rectangle, mirrored left to right if `flip`, then turned clockwise round its middle. Page units, degrees. */
export interface TurnedBox {
  x: number;
  y: number;
  width: number;
  height: number;
  rotation: number;
  flip?: boolean;
}

/** Freehand ink. */
export interface StrokeMark extends MarkCommon {
  kind: 'stroke';
  style: InkStyle;
  /** Flat list of x, y, pressure (0 to 1), time since the first point in ms; see `ink/points`. */
  points: readonly number[];
  /** Whether the device measured the pressure; otherwise it stands for speed. */
  pressure: boolean;
}

/** Letters of a text, from `from` up to `to` (UTF-16 units), that look unlike the rest. */
export interface TextPart extends Partial<Pick<TextStyle, 'bold' | 'italic' | 'underline' | 'colour'>> {
  from: number;
  to: number;
  /** Multiple of the text's size. */
  scale?: number;
}

/** Typed text in a box of fixed width; its height follows from the text. */
export interface TextMark extends MarkCommon, Omit<TurnedBox, 'height' | 'flip'> {
  kind: 'text';
  style: TextStyle;
  text: string;
  /** One after the other; none reaches into another. */
  parts?: readonly TextPart[];
}

export const FORMS = [
  'rectangle',
  'rounded',
  'ellipse',
  'triangle',
  'rightTriangle',
  'parallelogram',
  'trapezium',
  'polygon',
  'star',
  'bracket',
  'balloon',
] as const;
export type Form = (typeof FORMS)[number];

/** A shape that fills a box. */
export interface ShapeMark extends MarkCommon, TurnedBox {
  kind: 'shape';
  form: Form;
  /** Corners of a polygon, points of a star. */
  sides: number;
  flip: boolean;
  style: LineStyle;
}

/** Where a path's end sticks to another mark: a place in that mark's box, 0 to 1 each way. */
export interface Anchor {
  mark: string;
  x: number;
  y: number;
}

export const COURSES = ['straight', 'elbow', 'quadratic', 'cubic'] as const;
export const HEADS = ['none', 'start', 'end', 'both'] as const;

/** A line, arrow, connector, curve, polyline or free polygon. */
export interface PathMark extends MarkCommon {
  kind: 'path';
  /** How it runs: through all points, by right angles between two, or as one Bézier curve of 3 or 4 points. */
  course: (typeof COURSES)[number];
  /** Flat list of x, y. */
  points: readonly number[];
  closed: boolean;
  heads: (typeof HEADS)[number];
  from: Anchor | null;
  to: Anchor | null;
  style: LineStyle;
}

export const STAMPS = ['tick', 'cross', 'question', 'star', 'heart', 'smile', 'arrow', 'number'] as const;
export type StampName = (typeof STAMPS)[number];

/** A ready-made sign; `label` is the number of a counting one. */
export interface StampMark extends MarkCommon, TurnedBox {
  kind: 'stamp';
  stamp: StampName;
  label: string;
  flip: boolean;
  style: { colour: string };
}

/** A coloured note whose text is fitted into it. */
export interface NoteMark extends MarkCommon, Omit<TurnedBox, 'flip'> {
  kind: 'note';
  text: string;
  style: { colour: string; font: FontId };
}

/** A stored picture; `crop` is the part that is shown, each 0 to 1. */
export interface PictureMark extends MarkCommon, TurnedBox {
  kind: 'picture';
  material: string;
  crop: { x: number; y: number; width: number; height: number };
  flip: boolean;
  style: { opacity: number };
}

/** An area that was poured full of colour: rings of x, y, filled by the even-odd rule. */
export interface FillMark extends MarkCommon {
  kind: 'fill';
  rings: readonly (readonly number[])[];
  style: { colour: string; opacity: number };
}

export const LOOKS = ['highlight', 'underline'] as const;

/** Words of a web page, glued to what they say; `rects` is where they lie, flat x, y, width, height for each line. */
export interface QuoteMark extends MarkCommon, TextQuote {
  kind: 'quote';
  look: (typeof LOOKS)[number];
  rects: readonly number[];
  style: { colour: string; opacity: number };
}

/** Hides a region, such as an answer, until it is taken away by a tap; never exported. */
export interface PatchMark extends MarkCommon, Omit<TurnedBox, 'flip'> {
  kind: 'patch';
  style: { colour: string };
}

export type Mark =
  | StrokeMark
  | TextMark
  | ShapeMark
  | PathMark
  | StampMark
  | NoteMark
  | PictureMark
  | FillMark
  | QuoteMark
  | PatchMark;
/** A mark that fills a turned box. */
export type BoxMark = TextMark | ShapeMark | StampMark | NoteMark | PictureMark | PatchMark;
export type MarkKind = Mark['kind'];
export type MarkOf<Kind extends MarkKind> = Extract<Mark, { kind: Kind }>;

type AnyField<M> = M extends Mark
  ? Omit<M, 'id' | 'kind' | 'page' | 'author' | 'space' | 'createdAt' | 'style'>
  : never;
type Merge<U> = (U extends unknown ? (value: U) => void : never) extends (value: infer I) => void ? I : never;
type AnyStyle<M> = M extends Mark ? M['style'] : never;

/** What may be changed of a mark after it was made; which fields, depends on its kind. */
export type MarkPatch = Partial<Omit<Merge<AnyField<Mark>>, 'points' | 'text' | 'rects'>> & {
  points?: readonly number[];
  text?: string;
  rects?: readonly number[];
  style?: Partial<Merge<AnyStyle<Mark>>>;
};
