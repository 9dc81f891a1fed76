import type { Placement, ScreenMove } from '@doodla/core';
import { placeOf } from '@doodla/core';
import type { Frame, ViewState } from '@doodla/core/follow';

/** How the content of a pane has moved from one state to the next, by whole pixels; undefined where it has not. */
export function moveBetween(before: ViewState, now: ViewState): ScreenMove | undefined {
  if (before.view !== now.view || !before.certain || !now.certain) return undefined;
  const moved = now.panes.filter(({ id, place }) => !isAt(placeOf(before.panes, id), place));
  const pane = moved[0];
  if (moved.length !== 1 || !pane) return undefined;
  const old = placeOf(before.panes, pane.id);
  if (old.scale !== pane.place.scale) return undefined;
  const dx = Math.round(pane.place.x) - Math.round(old.x);
  const dy = Math.round(pane.place.y) - Math.round(old.y);
  const { x, y, width, height } = pane.region;
  if ((dx === 0 && dy === 0) || Math.abs(dx) >= width || Math.abs(dy) >= height) return undefined;
  return { x: Math.round(x), y: Math.round(y), width: Math.round(width), height: Math.round(height), dx, dy };
}

const isAt = (a: Placement, b: Placement) => a.x === b.x && a.y === b.y && a.scale === b.scale;

/** The frame as it is after a move, before anything is put where the move has uncovered something. */
export function movedFrame(frame: Frame, { x, y, width, height, dx, dy }: ScreenMove): Frame {
  const grey = Uint8Array.from(frame.grey);
  const [left, right] = [Math.max(x, x + dx), Math.min(x + width, x + width + dx, frame.width)];
  const [top, bottom] = [Math.max(y, y + dy), Math.min(y + height, y + height + dy, frame.height)];
  for (let row = top; row < bottom; row++) {
    const from = (row - dy) * frame.width + left - dx;
    grey.set(frame.grey.subarray(from, from + right - left), row * frame.width + left);
  }
  return { ...frame, grey };
}
