import type { Rules } from '@doodla/core';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { PaperChoice } from '../ui/PaperChoice';
import { t } from '../words';

const NAMES: Readonly<Record<Rules['verdicts'], string>> = {
  atOnce: t('answers.saidAtOnce'),
  later: t('answers.saidLater'),
  shown: t('answers.saidNow'),
};

/** When students are told what is right on pages that answer. */
export function VerdictChoice({ room }: { room: Room }) {
  const { verdicts } = useStore(room.rules);
  return (
    <>
      <p aria-hidden className="mb-1 font-bold">
        {t('answers.whenSaid')}
      </p>
      <PaperChoice
        label={t('answers.whenSaid')}
        value={verdicts}
        names={NAMES}
        onChange={(value) => room.classroom!.setRules({ verdicts: value })}
      />
    </>
  );
}
