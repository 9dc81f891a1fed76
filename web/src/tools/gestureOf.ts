import type { InkStyle, PlacedQuote } from '@doodla/core';
import type { ToolId } from '../desk/penCase';
import { LINE_TYPES } from '../desk/penCase';
import { CornerGesture } from './cornerGesture';
import { EraseGesture } from './eraseGesture';
import { FocusGesture } from './focusGesture';
import type { Gesture, PenPoint } from '../desk/gesture';
import { InkGesture } from './inkGesture';
import { LineGesture } from './lineGesture';
import { placeGesture } from './placings';
import { PointGesture } from './pointGesture';
import { PourGesture } from './pourGesture';
import { RubGesture } from './rubGesture';
import { SelectGesture } from './selectGesture';
import { TextGesture } from './textGesture';
import { WispGesture } from './wispGesture';
import { WordsGesture } from './wordsGesture';
import type { ToolDesk } from './toolDesk';

/** How near a tap has to be to count as on something; CSS pixels. */
const TOUCH_REACH = 8;

/** The words of a page that can be marked. */
export interface ShownWords {
  between(a: PenPoint, b: PenPoint): PlacedQuote | undefined;
}

/** What a gesture needs to know of where it is made. */
export interface GesturePlace {
  desk: ToolDesk;
  /** CSS pixels per page unit. */
  scale: number;
  /** The words of the shown page; none where a pointer goes down beside what is printed. */
  words: ShownWords | undefined;
  /** The pen of the hand that writes at a point, given the one in hand. */
  penAt(at: PenPoint, inHand: InkStyle): InkStyle;
  /** To be called when something changes without the pointer moving. */
  onChange(): void;
}

/** What a tool does with a pointer that goes down; undefined where it does nothing there. */
export function gestureOf(
  tool: ToolId,
  at: PenPoint,
  pressure: boolean,
  { desk, scale, words, penAt, onChange }: GesturePlace,
): Gesture | undefined {
  const { pen, highlighter, eraser, eraserRadius, line, markWords } = desk.penCase.get();
  const ink = (style: InkStyle, pressed: boolean) =>
    new InkGesture(desk, penAt(at, style), pressed, at, onChange);
  switch (tool) {
    case 'pointer':
      return new PointGesture(desk, at);
    case 'wisp':
      return new WispGesture(desk, at);
    case 'enlarge':
    case 'outline':
      return new FocusGesture(desk, tool, at);
    case 'pen':
      return ink(pen, pressure);
    case 'highlighter':
      if (markWords && words) return new WordsGesture(desk, at, (from, to) => words.between(from, to));
      return ink(highlighter, false);
    case 'eraser':
      return eraser === 'rubber'
        ? new RubGesture(desk, eraserRadius / scale, at)
        : new EraseGesture(desk, eraserRadius / scale, at);
    case 'text':
      return new TextGesture(desk, at);
    case 'fill':
      return new PourGesture(desk, at);
    case 'select':
      return new SelectGesture(desk, at, TOUCH_REACH / scale);
    case 'line':
      return LINE_TYPES[line].corners
        ? new CornerGesture(desk, at, TOUCH_REACH / scale)
        : new LineGesture(desk, at, TOUCH_REACH / scale);
    default:
      return placeGesture(desk, tool, at);
  }
}
