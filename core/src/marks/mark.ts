/** Whose marks: the whole class, one table (group), or one student's own copy. */
export type Space = 'class' | `table:${string}` | `student:${string}`;

/** How ink looks. Widths are page units, opacity 0 to 1. */
export interface InkStyle {
  nature: 'pen' | 'highlighter';
  colour: string;
  width: number;
  opacity: number;
}

/** How typed text looks. Size is page units from baseline to baseline divided by the line height. */
export interface TextStyle {
  font: FontId;
  size: number;
  colour: string;
}

export type FontId = 'andika';

interface MarkCommon {
  id: string;
  page: string;
  /** Id of the person who made it. */
  author: string;
  space: Space;
  /** Fractional index: later marks lie on top. */
  order: string;
  locked: boolean;
  /** Milliseconds since 1970-01-01 UTC. */
  createdAt: number;
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

/** Typed text in a box of fixed width that grows downwards. */
export interface TextMark extends MarkCommon {
  kind: 'text';
  style: TextStyle;
  x: number;
  y: number;
  width: number;
  text: string;
}

export type Mark = StrokeMark | TextMark;
export type MarkKind = Mark['kind'];

/** What may be changed of a mark after it was made. */
export interface MarkPatch {
  order?: string;
  locked?: boolean;
  style?: Partial<InkStyle> | Partial<TextStyle>;
  points?: readonly number[];
  x?: number;
  y?: number;
  width?: number;
  text?: string;
}

export const PATCHABLE_FIELDS: Record<MarkKind, readonly (keyof MarkPatch)[]> = {
  stroke: ['order', 'locked', 'style', 'points'],
  text: ['order', 'locked', 'style', 'x', 'y', 'width', 'text'],
};
