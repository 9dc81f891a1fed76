import type { Mark, Transform } from '@doodla/core';
import { boundsOf, patchMark, transformPatch } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';

type Placing = Pick<PageDesk, 'extentOf' | 'page'> & { selection: Pick<PageDesk['selection'], 'putCopies'> };

/**
 * Puts copies of marks on the shown page, their middle at a point, and no larger than the page. Returns whether they
 * could be put there.
 */
export function placeMarks(desk: Placing, marks: readonly Mark[], middle: { x: number; y: number }): boolean {
  const bounds = boundsOf(marks);
  if (!bounds || !desk.page) return false;
  const room = desk.extentOf(desk.page);
  const [x, y] = [bounds.x + bounds.width / 2, bounds.y + bounds.height / 2];
  const factor = Math.min(1, room.width / bounds.width, room.height / bounds.height);
  const steps: Transform[] = [
    ...(factor < 1 ? [{ kind: 'resize', fx: factor, fy: factor, x, y } as const] : []),
    { kind: 'move', dx: middle.x - x, dy: middle.y - y },
  ];
  const placed = steps.reduce<readonly Mark[]>(
    (all, step) => all.map((mark) => patchMark(mark, transformPatch(mark, step))),
    marks,
  );
  return desk.selection.putCopies(placed);
}
