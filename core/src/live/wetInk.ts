import type { LogRef } from './messages.js';
import type { InkStyle, Space } from '../marks/mark.js';

/** What is the same for all parts of a stroke that is being drawn. */
export interface InkHead {
  space: Space;
  style: InkStyle;
  pressure: boolean;
  /** Milliseconds after which ink fades that becomes no mark. */
  fade?: number;
}

/** New points of a stroke while it is being drawn; never stored. */
export interface DrawMessage {
  log: LogRef;
  page: string;
  stroke: string;
  /** Comes with the first part, and again now and then for those who join meanwhile. */
  head?: InkHead;
  /** Index of the first point sent, so that a lost part shows as a gap and not as a jump. */
  from: number;
  /** See `packPoints`. */
  points: string;
}

/** A part of a stroke as others hear of it. */
export interface DrawnPart extends Omit<DrawMessage, 'log' | 'page'> {
  author: string;
}

/** All that was drawn on a page since the last message. */
export interface DrawnMessage {
  log: string;
  page: string;
  parts: DrawnPart[];
}

/** What all pens of a page draw in so many milliseconds goes out as one message. */
export const INK_TICK_MS = 33;
