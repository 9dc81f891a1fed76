import { MAX_CHANGES } from '@doodla/core';
import type { Room } from '../room/room';

/** Takes away what somebody wrote in a class, on one page or on all. Returns how many marks that was. */
export async function wipeOf(
  room: Pick<Room, 'readAll' | 'target'>,
  author: string,
  page?: string,
): Promise<number> {
  if (page === undefined) await room.readAll();
  const marks = [...room.target.state.marks.values()].filter(
    (mark) => mark.author === author && !mark.locked && (page === undefined || mark.page === page),
  );
  for (let i = 0; i < marks.length; i += MAX_CHANGES)
    room.target.perform(
      marks.slice(i, i + MAX_CHANGES).map(({ id }) => ({ do: 'remove', mark: id }) as const),
    );
  return marks.length;
}
