import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { putBack, removalsOf } from '../api/lessons';
import type { PageDesk } from '../room/pageDesk';
import { removedAt, removedMarks } from '../room/removalWords';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';

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
              <span className="block font-bold">{removedAt(removal, desk.room)}</span>
              <span className="text-ink-soft">{removedMarks(removal, desk.room)}</span>
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
