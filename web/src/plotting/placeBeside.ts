import type { Mark, Rect } from '@doodla/core';
import { boundsOf } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { placeMarks } from '../shelf/placeMarks';

const GAP = 24;

/** Puts marks on the page, beside or under what they were made of where there is room, else in the middle. Returns whether they are there. */
export function placeBeside(desk: PageDesk, marks: readonly Mark[], origin: Rect | undefined): boolean {
  const size = boundsOf(marks);
  const room = desk.page && desk.extentOf(desk.page);
  const beside = size && room && origin && middleBeside(size, origin, room);
  return placeMarks(desk, marks, beside ?? desk.middle());
}

/** The middle of something of a size that lies right of another thing, or under it, within a room; undefined where it does not fit. */
export function middleBeside(
  { width, height }: Pick<Rect, 'height' | 'width'>,
  origin: Rect,
  room: Rect,
): { x: number; y: number } | undefined {
  const within = (at: number, length: number, from: number, all: number) =>
    Math.min(from + all - length / 2, Math.max(from + length / 2, at));
  const right = origin.x + origin.width + GAP;
  if (right + width <= room.x + room.width && height <= room.height)
    return { x: right + width / 2, y: within(origin.y + height / 2, height, room.y, room.height) };
  const under = origin.y + origin.height + GAP;
  if (under + height <= room.y + room.height && width <= room.width)
    return { x: within(origin.x + width / 2, width, room.x, room.width), y: under + height / 2 };
  return undefined;
}
