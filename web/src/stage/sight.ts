import type { Rect } from '@doodla/core';
import type { Room, Size, View } from '../canvas/view';
import { COMPACT_MARGIN, fitPage } from '../canvas/view';

/** How a page has to lie so that what the teacher sees is in sight; on a `compact` screen held upright across its width. */
export function viewOf(sight: Rect, size: Size, room: Room, compact: boolean): View {
  if (!compact || size.width > size.height) return fitPage(sight, size, room);
  const scale = (size.width - 2 * COMPACT_MARGIN) / sight.width;
  return { scale, x: COMPACT_MARGIN - sight.x * scale, y: room.top - sight.y * scale };
}
