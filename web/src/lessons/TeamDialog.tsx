import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { setTeam, teamQuery } from '../api/lessons';
import { colleaguesQuery } from '../api/school';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import type { ListedLesson } from './listedLesson';

/** Says who of the school works on a lesson together with its teacher. */
export default function TeamDialog({ lesson, onClose }: ListedLesson & { onClose(): void }) {
  const colleagues = useQuery(colleaguesQuery);
  const team = useQuery(teamQuery(lesson.id));
  const [chosen, setChosen] = useState<ReadonlySet<string>>();
  const [problem, setProblem] = useState<string>();
  const members = chosen ?? new Set(team.data?.map(({ id }) => id));
  const choose = (id: string, on: boolean) => {
    const next = new Set(members);
    if (on) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
  const keep = () => {
    setTeam(lesson.id, [...members]).then(onClose, (error: Error) => setProblem(error.message));
  };
  return (
    <Modal
      title={t('lessons.workTogether')}
      description={t('lessons.workTogetherHint')}
      open
      onOpenChange={onClose}
    >
      {colleagues.data?.length === 0 && <p className="mb-4">{t('lessons.noColleagues')}</p>}
      <fieldset className="mb-4 max-h-[50dvh] overflow-auto">
        <legend className="mb-2 font-bold">{t('lessons.whoWorksOnIt')}</legend>
        {(colleagues.data ?? []).map(({ id, name }) => (
          <Tick key={id} checked={members.has(id)} onChange={(on) => choose(id, on)}>
            {name}
          </Tick>
        ))}
      </fieldset>
      <Problem>{problem ?? colleagues.error?.message ?? team.error?.message}</Problem>
      <Button look="main" disabled={chosen === undefined} onClick={keep}>
        {t('lessons.keepTeam')}
      </Button>
    </Modal>
  );
}
