import type { Explanation } from '@doodla/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { listExplanations } from '../api/explanations';
import { logOf } from '../replay/bringBack';
import ReplayDialog from '../replay/ReplayDialog';
import type { PageDesk } from '../room/pageDesk';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { ExplanationRow } from './ExplanationRow';
import { NewRecording } from './NewRecording';
import { studioOf } from './studio';

interface ExplanationsDialogProps {
  desk: PageDesk;
  onClose(): void;
}

/** The explanations of a lesson or class: played, named, dropped; and a new one recorded. */
export default function ExplanationsDialog({ desk, onClose }: ExplanationsDialogProps) {
  const { room } = desk;
  const log = logOf(room);
  const key = ['explanations', log.id];
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => listExplanations(log, { token: room.token }),
  });
  const client = useQueryClient();
  const [played, setPlayed] = useState<Explanation>();
  const refresh = () => void client.invalidateQueries({ queryKey: key });
  const studio = studioOf(room);
  useEffect(
    () => studio?.finished.subscribe(() => void client.invalidateQueries({ queryKey: ['explanations'] })),
    [studio, client],
  );
  if (played) return <ReplayDialog desk={desk} explanation={played} onClose={() => setPlayed(undefined)} />;
  const records = desk.isTeacher && desk.room.device === undefined && studio !== undefined;
  const isOpen = !(desk.classroom?.state.get()?.ended ?? false);
  return (
    <Modal
      title={t('explain.explanations')}
      description={t('explain.whatTheyAre')}
      open
      onOpenChange={onClose}
    >
      <Problem>{error?.message}</Problem>
      <ul className="mb-4 flex max-h-[40dvh] flex-col gap-2 overflow-auto">
        {data?.explanations.map((one) => (
          <ExplanationRow
            key={one.id}
            explanation={one}
            log={log}
            mayChange={records}
            onPlay={() => setPlayed(one)}
            onChanged={refresh}
          />
        ))}
      </ul>
      {data?.explanations.length === 0 && <p className="mb-4">{t('explain.noneYet')}</p>}
      {records && isOpen && (
        <NewRecording
          studio={studio}
          room={data?.room}
          inClass={desk.classroom !== undefined}
          onBegun={onClose}
        />
      )}
    </Modal>
  );
}
