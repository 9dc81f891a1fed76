import type { Rect } from '@doodla/core';
import type { Room, Size, View } from '../canvas/view';
import { fitPage } from '../canvas/view';

/** Narrower windows show what the teacher sees across their whole width, CSS pixels. */
const NARROW = 760;
const NARROW_MARGIN = 4;

/** How a page has to lie so that what the teacher sees is in sight; in a narrow window across its width. */
export function viewOf(sight: Rect, size: Size, room: Room): View {
  if (size.width >= NARROW) return fitPage(sight, size, room);
  const scale = (size.width - 2 * NARROW_MARGIN) / sight.width;
  return { scale, x: NARROW_MARGIN - sight.x * scale, y: room.top - sight.y * scale };
}
