import type { Rect } from '../geometry/rect.js';
import type { TurnedBox } from '../geometry/turnedBox.js';
import type { BoxKind } from './kind.js';
import type { BoxMark, Mark } from './mark.js';
import { kindOf } from './mark.js';

/** Smallest upright rectangle that holds all that is drawn of a mark, in page units. */
export function markBounds(mark: Mark): Rect {
  return kindOf(mark).bounds(mark);
}

/** The turned box of a mark that has one; a text's height follows from its words. */
export function markBox(mark: BoxMark): TurnedBox {
  return (kindOf(mark) as BoxKind<BoxMark>).box(mark);
}
