import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { colleaguesQuery, giveLesson } from '../api/school';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { RadioList } from '../ui/RadioList';
import { t } from '../words';
import type { ListedLesson } from './listedLesson';

/** Gives a colleague of the school a copy of a lesson. */
export default function GiveLessonDialog({ lesson, onClose }: ListedLesson & { onClose(): void }) {
  const { data: colleagues = [], isSuccess } = useQuery(colleaguesQuery);
  const [to, setTo] = useState<string>();
  const [isGiving, setGiving] = useState(false);
  const [problem, setProblem] = useState<string>();
  const give = () => {
    setGiving(true);
    giveLesson(lesson.id, to!).then(
      () => {
        const name = colleagues.find(({ id }) => id === to)!.name;
        toast(t('lessons.wasGiven', { title: lesson.title, name }));
        onClose();
      },
      (error: Error) => {
        setGiving(false);
        setProblem(error.message);
      },
    );
  };
  return (
    <Modal
      title={t('lessons.giveToAColleague')}
      description={t('lessons.giveHint')}
      open
      onOpenChange={onClose}
    >
      {isSuccess && colleagues.length === 0 && <p className="mb-4">{t('lessons.noColleagues')}</p>}
      {colleagues.length > 0 && (
        <RadioList
          legend={t('lessons.colleague')}
          value={to}
          options={colleagues.map(({ id, name }) => ({ value: id, name }))}
          onChange={(chosen) => setTo(chosen ?? undefined)}
        />
      )}
      <Problem>{problem}</Problem>
      <Button look="main" disabled={to === undefined || isGiving} onClick={give}>
        {t('lessons.give')}
      </Button>
    </Modal>
  );
}
