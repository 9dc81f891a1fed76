import type { Rect } from '../geometry/rect.js';
import { markBounds } from '../marks/bounds.js';
import type { LineStyle } from '../marks/lineStyle.js';
import type { Mark, MarkOf } from '../marks/mark.js';
import type { SharedFields } from '../marks/shared.js';
import type { Form } from '../marks/shape/shapeMark.js';

type Bare<M extends Mark> = Omit<M, keyof SharedFields>;
/** A mark that has no page yet. */
export type UnplacedMark = Bare<MarkOf<'shape'>> | Bare<MarkOf<'path'>> | Bare<MarkOf<'text'>>;

interface TextLook {
  bold?: boolean;
  align?: 'left' | 'center' | 'right';
  /** Multiple of the sketch's size of letters. */
  scale?: number;
}

const INK = '#1c241f';
const PALE = '#9aa59f';
/** Height of a line of text against its letters, as the shipped fonts have it. */
const LINE = 1.6;

/** Draws templates with ordinary marks, on a part of a page; lengths are page units. */
export class Sketch {
  readonly marks: UnplacedMark[] = [];
  /** Size of letters. */
  readonly size: number;

  constructor(readonly area: Rect) {
    this.size = Math.max(8, Math.min(area.width / 42, area.height / 26));
  }

  /** How high a line of text is. */
  get line(): number {
    return this.size * LINE;
  }

  shape(form: Form, { x, y, width, height }: Rect): void {
    const box = { x, y, width, height, rotation: 0 };
    this.marks.push({ kind: 'shape', form, sides: 5, flip: false, ...box, style: this.style() });
  }

  path(points: readonly number[], { arrow = false, pale = false } = {}): void {
    this.marks.push({
      kind: 'path',
      course: 'straight',
      points,
      closed: false,
      heads: arrow ? 'end' : 'none',
      from: null,
      to: null,
      style: this.style(pale ? { line: PALE, width: this.size / 16 } : {}),
    });
  }

  text(text: string, { x, y, width }: Pick<Rect, 'x' | 'y' | 'width'>, look: TextLook = {}): void {
    const { bold = false, align = 'center', scale = 1 } = look;
    this.marks.push({
      kind: 'text',
      text,
      x,
      y,
      width,
      rotation: 0,
      style: {
        font: 'andika',
        size: this.size * scale,
        colour: INK,
        bold,
        italic: false,
        underline: false,
        background: null,
        align,
        list: 'none',
      },
    });
  }

  /** Cuts a part into columns and rows, `gap` between them; row by row. */
  cells({ x, y, width, height }: Rect, columns: number, rows: number, gap = 0): Rect[] {
    const [w, h] = [(width - gap * (columns - 1)) / columns, (height - gap * (rows - 1)) / rows];
    return Array.from({ length: columns * rows }, (_, i) => ({
      x: x + (i % columns) * (w + gap),
      y: y + Math.floor(i / columns) * (h + gap),
      width: w,
      height: h,
    }));
  }

  /** What is below the first `height` of a part. */
  below({ x, y, width, height }: Rect, taken: number): Rect {
    return { x, y: y + taken, width, height: height - taken };
  }

  private style(set: Partial<LineStyle> = {}): LineStyle {
    return { line: INK, width: this.size / 9, dash: 'solid', fill: null, opacity: 1, ...set };
  }
}

/** The space that unplaced marks take. */
export function boundsOfUnplaced(mark: UnplacedMark): Rect {
  return markBounds({ ...mark, ...NOBODYS });
}

const NOBODYS: SharedFields = {
  id: 'x',
  page: 'x',
  author: 'x',
  space: 'class',
  order: 'a0',
  locked: false,
  group: null,
  alt: null,
  createdAt: 0,
};
