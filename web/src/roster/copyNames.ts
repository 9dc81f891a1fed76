import { seatOf } from '@doodla/core';
import type { Copy } from '../room/copies';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** So long without a stroke somebody may be stuck, milliseconds. */
const STUCK_MS = 60_000;

/** Whose a copy is. */
export function copyName({ space, table, people }: Copy): string {
  const seat = seatOf(space);
  if (seat !== undefined) return t('roster.seat', { number: seat });
  if (table === undefined) return people[0]?.name ?? '';
  return t('roster.tableWith', { number: table, names: people.map(({ name }) => name).join(', ') });
}

/** Whether somebody has begun, and how long ago they last wrote. */
export function progressOf({ writtenAt, marks }: Copy, { room }: PageDesk): string {
  if (writtenAt === undefined) return t('roster.notBegun');
  const since = Math.max(0, room.classroom!.now - writtenAt);
  if (since < STUCK_MS) return t('roster.marksOnIt', { count: marks.length });
  return t('roster.nothingFor', { count: Math.floor(since / STUCK_MS) });
}
