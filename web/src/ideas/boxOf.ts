import type { MarkOf, Rect } from '@doodla/core';
import { LINE_HEIGHT } from '@doodla/core';

/** A note, or the title of a group of them. */
export type Idea = MarkOf<'note'> | MarkOf<'text'>;

/** Where a note or title is, page units. */
export function boxOf(mark: Idea): Rect {
  const { x, y, width } = mark;
  return { x, y, width, height: mark.kind === 'note' ? mark.height : mark.style.size * LINE_HEIGHT };
}

/** The same as a style, on a page that is shown so many times its size. */
export function placeOf(mark: Idea, scale: number) {
  const { x, y, width, height } = boxOf(mark);
  return { left: x * scale, top: y * scale, width: width * scale, height: height * scale };
}
