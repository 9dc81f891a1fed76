import type { Removal } from '@doodla/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { putBack, removalsOf } from '../api/lessons';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { sayMarkName } from '../words/marks';

/** What was taken off the pages of this class, by whom, and putting it back. */
export default function RemovalsDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const sitting = desk.room.sitting!;
  const key = ['removals', sitting];
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: key, queryFn: () => removalsOf(sitting), staleTime: 0 });
  const [problem, setProblem] = useState<string>();
  const back = (id: string) =>
    putBack(sitting, id).then(
      () => client.invalidateQueries({ queryKey: key }),
      (failed: Error) => setProblem(failed.message),
    );
  return (
    <Modal
      title={t('roster.whatWasRemoved')}
      description={t('roster.everythingThatWasTaken')}
      open
      onOpenChange={onClose}
    >
      <Problem>{problem ?? error?.message}</Problem>
      {data?.length === 0 && <p>{t('roster.nothingWasRemoved')}</p>}
      <ul className="flex flex-col gap-2">
        {data?.map((removal) => (
          <li
            key={removal.id}
            className="flex flex-wrap items-center gap-3 rounded-xl bg-paper-dim px-3 py-2"
          >
            <span className="min-w-0 grow basis-60">
              <span className="block font-bold">{headOf(removal, desk)}</span>
              <span className="text-ink-soft">{whatOf(removal, desk)}</span>
            </span>
            {removal.missing > 0 ? (
              <Button onClick={() => void back(removal.id)}>{t('roster.putBack')}</Button>
            ) : (
              <span className="px-2">{t('roster.isBack')}</span>
            )}
          </li>
        ))}
      </ul>
    </Modal>
  );
}

function headOf({ at, by, page }: Removal, { room }: PageDesk): string {
  const number = room.pages.get().findIndex(({ id }) => id === page) + 1;
  const values = { time: timeOfDay(at), name: room.nameOf(by) };
  return number > 0 ? t('roster.removedOnPage', { ...values, number }) : t('roster.removedBy', values);
}

function whatOf({ marks }: Removal, { room }: PageDesk): string {
  return marks
    .map(({ author, what, count }) =>
      t('roster.removedMarks', { count, what: sayMarkName(what), name: room.nameOf(author) }),
    )
    .join(', ');
}
