import type { Rect } from '@doodla/core';

/** How a page lies in the window: screen = page · scale + offset, in CSS pixels. */
export interface View {
  scale: number;
  x: number;
  y: number;
}

export interface Size {
  width: number;
  height: number;
}

export type Fit = 'width' | 'page' | 'region' | 'free';

export const MIN_SCALE = 0.1;
export const MAX_SCALE = 16;
/** So small any page may be made, CSS pixels. */
const SMALLEST = 240;
/** Space round a fitted page that the holders of tools leave free, CSS pixels. */
export interface Room {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export const MARGIN = 12;
/** What a page on a hand-held screen leaves at its sides. */
export const COMPACT_MARGIN = 4;
/** What the holders take at the usual size of letters, with which they grow: bars above and below, or columns at the sides. */
const BAR = 66;
const COLUMN = { tools: 172, other: 190 };

/** Whether the holders stand in columns beside a fitted page, or in bars above and below it. */
export type Arrangement = 'columns' | 'bars';

/** Columns for a page that is so much taller than the window that they fit beside it. */
export function arrangementFor(page: Size, stage: Size, letters = 1): Arrangement {
  const width = (stage.height - 2 * MARGIN) * (page.width / page.height);
  return stage.width - width >= 2 * COLUMN.other * letters + MARGIN ? 'columns' : 'bars';
}

/** The room for a page in a window that is laid out for a hand-held screen, where bars lie above and below. */
export function compactRoom(letters: number): Room {
  return { left: COMPACT_MARGIN, right: COMPACT_MARGIN, top: BAR * letters, bottom: BAR * letters };
}

/** The room for a page; the tools are on `side`. */
export function roomFor(arrangement: Arrangement, side: 'left' | 'right' | 'none', letters = 1): Room {
  if (side === 'none') return { left: MARGIN, right: MARGIN, top: BAR * letters, bottom: BAR * letters };
  const tools = COLUMN.tools * letters;
  const other = arrangement === 'bars' ? MARGIN : COLUMN.other * letters;
  const end = arrangement === 'bars' ? BAR * letters : MARGIN;
  const [left, right] = side === 'left' ? [tools, other] : [other, tools];
  return { left, right, top: end, bottom: end };
}

/** The whole page in the middle of its room. */
export function fitPage(page: Rect, stage: Size, room: Room): View {
  const width = stage.width - room.left - room.right;
  const height = stage.height - room.top - room.bottom;
  const scale = clampScale(Math.min(width / page.width, height / page.height), page);
  return {
    scale,
    x: room.left + (width - page.width * scale) / 2 - page.x * scale,
    y: room.top + (height - page.height * scale) / 2 - page.y * scale,
  };
}

/** The page as wide as its room, from its top. */
export function fitWidth(page: Rect, stage: Size, room: Room): View {
  const scale = clampScale((stage.width - room.left - room.right) / page.width, page);
  return { scale, x: room.left - page.x * scale, y: room.top - page.y * scale };
}

/** Enlarges by `factor` round a point of the window, which keeps its place on the page. */
export function zoomAt(
  view: View,
  factor: number,
  at: { x: number; y: number },
  page: Rect,
  stage: Size,
  room?: Room,
): View {
  const scale = clampScale(view.scale * factor, page);
  const k = scale / view.scale;
  return clampView(
    { scale, x: at.x - (at.x - view.x) * k, y: at.y - (at.y - view.y) * k },
    page,
    stage,
    room,
  );
}

export function panBy(view: View, dx: number, dy: number, page: Rect, stage: Size, room?: Room): View {
  return clampView({ ...view, x: view.x + dx, y: view.y + dy }, page, stage, room);
}

export function toPage(view: View, x: number, y: number): { x: number; y: number } {
  return { x: (x - view.x) / view.scale, y: (y - view.y) / view.scale };
}

/** Moves so that a point of the page is in the middle of the window. */
export function centreOn(view: View, x: number, y: number, page: Rect, stage: Size): View {
  const { scale } = view;
  return clampView({ scale, x: stage.width / 2 - x * scale, y: stage.height / 2 - y * scale }, page, stage);
}

/** The part of the page plane that the window shows. */
export function visibleRect(view: View, stage: Size): Rect {
  const { x, y } = toPage(view, 0, 0);
  return { x, y, width: stage.width / view.scale, height: stage.height / view.scale };
}

/** The longest pages may be made smaller, until they are as long as a hand. */
function clampScale(scale: number, { width, height }: Rect): number {
  const least = Math.min(MIN_SCALE, SMALLEST / Math.max(width, height));
  return Math.min(MAX_SCALE, Math.max(least, scale));
}

const NO_ROOM: Room = { left: 0, right: 0, top: 0, bottom: 0 };

/** Centres a page that is smaller than its room; lets a larger one move until a third of the window is free. */
function clampView(view: View, page: Rect, stage: Size, room: Room = NO_ROOM): View {
  const { scale } = view;
  return {
    scale,
    x: clampOffset(view.x, page.x * scale, page.width * scale, stage.width, room.left, room.right),
    y: clampOffset(view.y, page.y * scale, page.height * scale, stage.height, room.top, room.bottom),
  };
}

/** `from` and `length` are the page's near edge and its length, `before` and `after` what is taken of the window, CSS pixels. */
function clampOffset(
  offset: number,
  from: number,
  length: number,
  whole: number,
  before: number,
  after: number,
): number {
  const free = whole - before - after;
  // A page that was fitted into its room may be longer by what rounding leaves.
  if (length <= free + 1) return before + (free - length) / 2 - from;
  const slack = whole / 3;
  return Math.min(slack, Math.max(whole - length - slack, offset + from)) - from;
}
