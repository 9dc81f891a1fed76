import type { Explanation } from '@doodla/core';
import { Store } from '@doodla/core/client';
import { useState } from 'react';
import { logOf } from '../room/logOf';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { ExplanationDialog } from './ExplanationDialog';
import { ExplanationRow } from './ExplanationRow';
import { NewRecording } from './NewRecording';
import type { Recorder } from './recorder';
import { studioOf } from './studio';
import { useExplanations } from './useExplanations';

const NO_RECORDER = new Store<Recorder | undefined>(undefined);

interface ExplanationsDialogProps {
  desk: PageDesk;
  onClose(): void;
}

/** The explanations of a lesson or class: played, named, dropped; and a new one recorded. */
export default function ExplanationsDialog({ desk, onClose }: ExplanationsDialogProps) {
  const { room } = desk;
  const log = logOf(room);
  const { found, problem, again } = useExplanations(room);
  const [played, setPlayed] = useState<Explanation>();
  const studio = studioOf(room);
  const isRecording = useStore(studio?.recorder ?? NO_RECORDER) !== undefined;
  if (played)
    return (
      <ExplanationDialog
        desk={desk}
        explanation={played}
        onClose={() => setPlayed(undefined)}
        onLeave={onClose}
      />
    );
  const records = desk.isTeacher && desk.room.device === undefined && studio !== undefined;
  const isOpen = !(desk.classroom?.state.get()?.ended ?? false);
  return (
    <Modal
      title={t('explain.explanations')}
      description={t('explain.whatTheyAre')}
      open
      onOpenChange={onClose}
    >
      <Problem>{problem}</Problem>
      <ul className="mb-4 flex max-h-[40dvh] flex-col gap-2 overflow-auto">
        {found?.explanations.map((one) => (
          <ExplanationRow
            key={one.id}
            explanation={one}
            log={log}
            mayChange={records}
            onPlay={() => setPlayed(one)}
            onChanged={again}
          />
        ))}
      </ul>
      {found?.explanations.length === 0 && <p className="mb-4">{t('explain.noneYet')}</p>}
      {records && isOpen && !isRecording && (
        <NewRecording
          studio={studio}
          room={found?.room}
          inClass={desk.classroom !== undefined}
          onBegun={onClose}
        />
      )}
    </Modal>
  );
}
