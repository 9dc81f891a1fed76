import { isRecord } from '../checks/fields.js';
import { unpackPoints } from '../ink/packedPoints.js';
import { MAX_POINTS } from '../ink/points.js';
import { isId, isNumberIn, isPaneId, isSpace } from '../marks/fields.js';
import { isInkStyle, isPointList } from '../marks/stroke/strokeMark.js';
import type { InkStyle } from '../marks/stroke/strokeMark.js';
import type { Space } from '../marks/shared.js';
import type { LogRef } from './messages.js';

/** What is the same for all parts of a stroke that is being drawn. */
export interface InkHead {
  space: Space;
  style: InkStyle;
  pressure: boolean;
  /** Milliseconds after which ink fades that becomes no mark. */
  fade?: number;
  /** The part of a shown screen that it is drawn on; see `panes`. */
  pane?: number;
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

/** Longest part of a stroke in one message, as packed points. */
const MAX_INK_PART = 20_000;
/** Milliseconds that ink may stay which fades. */
const FADE = { min: 200, max: 60_000 };

/** Whether a value from outside is a part of wet ink; checked by hand, since thousands come in a second. */
export function isDrawMessage(value: unknown): value is DrawMessage {
  if (!isRecord(value) || !isRecord(value.log)) return false;
  const { log, page, stroke, head, from, points } = value;
  return (
    isId(log.id) &&
    isId(page) &&
    isId(stroke) &&
    isNumberIn(from, 0, MAX_POINTS) &&
    typeof points === 'string' &&
    points.length <= MAX_INK_PART &&
    isPointList(unpackPoints(points)) &&
    (head === undefined || isInkHead(head))
  );
}

function isInkHead(value: unknown): value is InkHead {
  if (!isRecord(value)) return false;
  const { space, style, pressure, fade, pane } = value;
  return (
    isSpace(space) &&
    isInkStyle(style) &&
    typeof pressure === 'boolean' &&
    (fade === undefined || isNumberIn(fade, FADE.min, FADE.max)) &&
    (pane === undefined || isPaneId(pane))
  );
}
