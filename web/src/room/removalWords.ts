import type { Removal } from '@doodla/core';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { sayMarkName } from '../words/marks';
import type { Room } from './room';

type Names = Pick<Room, 'nameOf' | 'pages'>;

/** When something was taken off, by whom, and from which page. */
export function removedAt({ at, by, page }: Removal, room: Names): string {
  const number = room.pages.get().findIndex(({ id }) => id === page) + 1;
  const values = { time: timeOfDay(at), name: room.nameOf(by) };
  return number > 0 ? t('roster.removedOnPage', { ...values, number }) : t('roster.removedBy', values);
}

/** What was taken off, and whose it was. */
export function removedMarks({ marks }: Removal, room: Names): string {
  return marks
    .map(({ author, what, count }) =>
      t('roster.removedMarks', { count, what: sayMarkName(what), name: room.nameOf(author) }),
    )
    .join(', ');
}
