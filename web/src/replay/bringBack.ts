import type { Space } from '@doodla/core';
import { toast } from 'sonner';
import { restorePage } from '../api/history';
import { logOf } from '../room/logOf';
import type { Room } from '../room/room';
import { t } from '../words';
import { exactTime } from '../words/dates';

const UNDO_SHOWN_MS = 15_000;

/** An earlier state of a page: that after an operation. */
export interface EarlierState {
  page: string;
  /** Of the page, from 1. */
  number: number;
  space: Space;
  seq: number;
  /** When it was, milliseconds since 1970. */
  at: number;
}

/** Makes a page what it was, as a new step that can be undone. Throws RequestError. */
export async function bringBack(room: Room, { page, number, space, seq, at }: EarlierState): Promise<void> {
  const undo = await restorePage(logOf(room), page, { space, seq });
  room.target.adopt(undo);
  toast(t('pages.pageIsAsItWas', { number, time: exactTime(at) }), {
    duration: UNDO_SHOWN_MS,
    action: { label: t('common.undo'), onClick: () => room.target.takeBack(undo.id) },
  });
}
