import type { Rect, Sight } from '@doodla/core';
import { rectContains } from '@doodla/core';
import type { Desk } from '../desk/desk';
import type { Room, Size, View } from '../canvas/view';

/** So long after the last movement it is told for good, milliseconds. */
const SETTLED_MS = 350;
/** Part of a page that may lie outside of a window in which it counts as seen whole. */
const SLACK = 0.01;

/** The part of a page that a window shows beside its bars; null where that is all of it. */
export function sightOf(
  page: string,
  extent: Rect,
  { scale, x, y }: View,
  size: Size,
  room: Room,
): Sight | null {
  const left = (room.left - x) / scale;
  const top = (room.top - y) / scale;
  const width = (size.width - room.left - room.right) / scale;
  const height = (size.height - room.top - room.bottom) / scale;
  const whole = {
    x: extent.x + extent.width * SLACK,
    y: extent.y + extent.height * SLACK,
    width: extent.width * (1 - 2 * SLACK),
    height: extent.height * (1 - 2 * SLACK),
  };
  const seen = { x: left, y: top, width, height };
  const corners = [whole.x, whole.x + whole.width].flatMap((cx) =>
    [whole.y, whole.y + whole.height].map((cy) => rectContains(seen, cx, cy)),
  );
  if (corners.every(Boolean)) return null;
  const round = (value: number) => Math.round(value);
  return {
    page,
    x: round(left),
    y: round(top),
    width: Math.max(1, round(width)),
    height: Math.max(1, round(height)),
  };
}

/** Tells the class what its teacher sees, while it moves and once it rests. */
export class SightTeller {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private told = 'null';

  constructor(private readonly desk: Pick<Desk, 'classroom'>) {}

  /** `extent` is undefined where there is nothing to follow: a screen that is shown, a region that fills it. */
  tell(page: string, extent: Rect | undefined, view: View, size: Size, room: Room): void {
    const sight = extent ? sightOf(page, extent, view, size, room) : null;
    const { classroom } = this.desk;
    const now = JSON.stringify(sight);
    if (!classroom || now === this.told) return;
    this.told = now;
    classroom.setScene({ sight }, true);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => classroom.setScene({ sight }), SETTLED_MS);
  }

  stop(): void {
    clearTimeout(this.timer);
  }
}
