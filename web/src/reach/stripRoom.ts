import type { WindowRoom } from '../ui/roomOf';

/** Side of a button, CSS pixels at the usual size of letters. */
const BUTTON = 44;
/** Undo, options, and more; and the strip's own edges. */
const OTHERS = 3 * BUTTON + 4;
/** What the page bar takes beside the strip, with some room between them. */
const PAGES = 208;
/** From this width on both fit side by side. */
const SHARED = 560;

/** Whether the page bar stands beside the strip of tools instead of above it. */
export function besidePages({ width }: WindowRoom): boolean {
  return width >= SHARED;
}

/** The first `room` of the tools, of which one makes room for the tool in hand: that is always in sight. */
export function shownTools<Tool>(tools: readonly Tool[], room: number, inHand: Tool): readonly Tool[] {
  const first = tools.slice(0, room);
  return room === 0 || first.includes(inHand) ? first : [...first.slice(0, -1), inHand];
}

/** How many tools the strip has room for, beside what is always there. */
export function toolsThatFit(room: WindowRoom): number {
  const width = room.width - (besidePages(room) ? PAGES : 0);
  return Math.max(0, Math.floor((width - OTHERS) / BUTTON));
}
