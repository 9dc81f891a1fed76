import type { Rect } from '../geometry/rect.js';
import type { AnswerRule } from '../marks/answerRule.js';
import type { LineStyle } from '../marks/lineStyle.js';
import type { MarkBody } from '../marks/markBody.js';
import type { Form } from '../marks/shape/shapeMark.js';
import { plainText } from '../marks/text/textMark.js';
import { textLayout } from '../marks/text/textLayout.js';

/** What a mark of an exercise has beside what it shows. */
interface Own {
  id?: string;
  rule?: AnswerRule;
  hidden?: boolean;
  group?: string | null;
  alt?: string;
}

/** A mark that has no page yet; ids and groups are told apart within its exercise alone. */
export type ExerciseMark = MarkBody & {
  id: string;
  group: string | null;
  alt: string | null;
  rule?: AnswerRule;
  hidden?: boolean;
};

/** A picture, or the sound of a page, that an item of a list is. */
export type Medium =
  { kind: 'picture'; material: string; width: number; height: number } | { kind: 'sound'; page: string };

/** What items stand for, by their names. */
export type Media = ReadonlyMap<string, Medium>;

interface WordLook {
  bold?: boolean;
  align?: 'left' | 'center' | 'right';
  /** Largest size of letters, page units. */
  size?: number;
  colour?: string;
}

export const INK = '#1c241f';
export const BOARD = '#12352a';
const CARD = '#faf5e8';
/** Smallest letters, page units. */
const LEAST_SIZE = 7;
const GAP = 0.35;
/** Letters of cards against others at most. */
const LARGE = 1.6;

/** Draws exercises with ordinary marks on a part of a page; lengths are page units. */
export class Paper {
  readonly marks: ExerciseMark[] = [];
  /** Size of letters. */
  readonly size: number;
  private count = 0;

  constructor(
    readonly area: Rect,
    private readonly media: Media = new Map(),
  ) {
    this.size = Math.max(LEAST_SIZE, Math.min(area.width / 44, area.height / 26));
  }

  newId(): string {
    this.count += 1;
    return `e${this.count}`;
  }

  medium(name: string): Medium | undefined {
    return this.media.get(name);
  }

  put(body: MarkBody, { id = this.newId(), group = null, alt, rule, hidden }: Own = {}): string {
    this.marks.push({
      ...body,
      id,
      group,
      alt: alt ?? null,
      ...(rule && { rule }),
      ...(hidden && { hidden }),
    });
    return id;
  }

  shape(form: Form, { x, y, width, height }: Rect, look: Partial<LineStyle> = {}, own: Own = {}): string {
    const style = this.style(look);
    return this.put(
      { kind: 'shape', form, sides: 5, flip: false, x, y, width, height, rotation: 0, style },
      own,
    );
  }

  path(
    points: readonly number[],
    look: Partial<LineStyle> & { closed?: boolean; heads?: 'none' | 'end' } = {},
    own: Own = {},
  ): string {
    const { closed = false, heads = 'none', ...line } = look;
    const style = this.style(line);
    return this.put(
      { kind: 'path', course: 'straight', points, closed, heads, from: null, to: null, style },
      own,
    );
  }

  /** Words in the middle of a part, as small as they have to be there. */
  words(words: string, rect: Rect, look: WordLook = {}, own: Own = {}): string {
    // A text has at least one letter.
    const text = words === '' ? ' ' : words;
    const { bold = false, align = 'center', size = this.size, colour = INK } = look;
    const style = { ...plainText(this.sizeIn(text, rect, { bold, size }), bold), align, colour };
    const { height } = textLayout({ text, style, width: rect.width });
    const y = rect.y + (rect.height - height) / 2;
    return this.put({ kind: 'text', text, x: rect.x, y, width: rect.width, rotation: 0, style }, own);
  }

  /** A card that shows an item: what moves, is tapped or stays is its ground. Returns that one's id. */
  card(item: string, rect: Rect, own: Own & { look?: Partial<LineStyle> } = {}): string {
    const group = this.newId();
    const { look, rule, ...rest } = own;
    const medium = this.medium(item);
    const heard: AnswerRule | undefined =
      medium?.kind === 'sound' && !rule?.tap
        ? { ...rule, tap: { steps: [{ do: 'play', page: medium.page }], once: false } }
        : rule;
    const id = this.shape(
      'rounded',
      rect,
      { fill: CARD, ...look },
      { alt: item, ...rest, group, ...(heard && { rule: heard }) },
    );
    this.item(item, inset(rect, this.size * GAP), group);
    return id;
  }

  /** What an item shows: its words, its picture, or the sign of its sound. */
  item(item: string, rect: Rect, group: string | null = null): void {
    const medium = this.medium(item);
    if (medium?.kind === 'picture') {
      this.put(
        {
          kind: 'picture',
          material: medium.material,
          crop: { x: 0, y: 0, width: 1, height: 1 },
          flip: false,
          rotation: 0,
          style: { opacity: 1 },
          ...fitted(medium, rect),
        },
        { group, alt: item },
      );
    } else if (medium?.kind === 'sound') this.soundSign(rect, group);
    else this.words(item, rect, { size: this.sizeFor(rect) }, { group });
  }

  /** An item that nobody moves; a sound is heard by a tap. */
  shown(item: string, rect: Rect): void {
    if (this.medium(item)?.kind === 'sound') this.card(item, rect);
    else this.item(item, rect);
  }

  /** Where things go. */
  place(rect: Rect, rule: AnswerRule, own: Own & { look?: Partial<LineStyle> } = {}): string {
    const { look, ...rest } = own;
    return this.shape('rounded', rect, { dash: 'dashed', ...look }, { ...rest, rule });
  }

  /** How wide words are on one line. */
  widthOf(text: string, size: number, bold = false): number {
    return textLayout({ text, style: plainText(size, bold), width: 1e5 }).lines[0]?.width ?? 0;
  }

  /** Height of a line of letters of a size. */
  lineOf(size: number): number {
    return textLayout({ text: 'x', style: plainText(size, false), width: 1e5 }).height;
  }

  /** The largest size up to one in which words stay within a part without a word being broken. */
  sizeIn(
    text: string,
    { width, height }: Pick<Rect, 'width' | 'height'>,
    look: { bold?: boolean; size: number },
  ): number {
    const { bold = false } = look;
    for (let { size } = look; size > LEAST_SIZE; size *= 0.92) {
      const laid = textLayout({ text, style: plainText(size, bold), width });
      if (!laid.broken && laid.height <= height) return size;
    }
    return LEAST_SIZE;
  }

  /** Letters of a card: larger where there is much room. */
  private sizeFor({ height }: Rect): number {
    return Math.min(this.size * LARGE, Math.max(this.size, height * 0.45));
  }

  private soundSign(rect: Rect, group: string | null): void {
    const side = Math.min(rect.width, rect.height) * 0.6;
    const [x, y] = [rect.x + rect.width / 2, rect.y + rect.height / 2];
    const points = [x - side * 0.4, y - side / 2, x + side / 2, y, x - side * 0.4, y + side / 2];
    this.path(points, { closed: true, fill: BOARD, line: BOARD }, { group });
  }

  private style(set: Partial<LineStyle>): LineStyle {
    return { line: INK, width: this.size / 11, dash: 'solid', fill: null, opacity: 1, ...set };
  }
}

/** A part less a margin all round. */
export function inset({ x, y, width, height }: Rect, by: number): Rect {
  return { x: x + by, y: y + by, width: Math.max(1, width - 2 * by), height: Math.max(1, height - 2 * by) };
}

/** Cuts a part into columns and rows, `gap` between them; row by row. */
export function cellsOf({ x, y, width, height }: Rect, columns: number, rows: number, gap = 0): Rect[] {
  const [w, h] = [(width - gap * (columns - 1)) / columns, (height - gap * (rows - 1)) / rows];
  return Array.from({ length: columns * rows }, (_, i) => ({
    x: x + (i % columns) * (w + gap),
    y: y + Math.floor(i / columns) * (h + gap),
    width: w,
    height: h,
  }));
}

/** Cuts a part across at a share of its width. */
export function beside({ x, y, width, height }: Rect, share: number, gap = 0): [Rect, Rect] {
  const left = width * share;
  return [
    { x, y, width: left - gap / 2, height },
    { x: x + left + gap / 2, y, width: width - left - gap / 2, height },
  ];
}

/** Cuts a part at a share of its height. */
export function under({ x, y, width, height }: Rect, share: number, gap = 0): [Rect, Rect] {
  const top = height * share;
  return [
    { x, y, width, height: top - gap / 2 },
    { x, y: y + top + gap / 2, width, height: height - top - gap / 2 },
  ];
}

/** Where something of a shape goes into a part, in its middle. */
export function fitted(size: { width: number; height: number }, rect: Rect): Rect {
  const scale = Math.min(rect.width / size.width, rect.height / size.height);
  const [width, height] = [size.width * scale, size.height * scale];
  return { x: rect.x + (rect.width - width) / 2, y: rect.y + (rect.height - height) / 2, width, height };
}

/** As many columns as give so many cells about a shape: `ratio` is how wide one is against its height. */
export function columnsFor(count: number, { width, height }: Rect, ratio: number): number {
  const columns = Math.round(Math.sqrt((count * width) / height / ratio));
  return Math.max(1, Math.min(count, columns));
}
