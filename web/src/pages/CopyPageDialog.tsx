import { useQuery } from '@tanstack/react-query';
import type { Page } from '@doodla/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { copyPage, lessonsQuery } from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { RadioList } from '../ui/RadioList';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

interface CopyPageDialogProps {
  page: Page;
  number: number;
  desk: PageDesk;
  onClose(): void;
}

/** Puts a page, with what is on it, at the end of another lesson. */
export default function CopyPageDialog({ page, number, desk, onClose }: CopyPageDialogProps) {
  const { data: lessons = [] } = useQuery(lessonsQuery);
  const others = lessons.filter(({ id }) => id !== desk.room.lesson);
  const [to, setTo] = useState<string>();
  const [busy, setBusy] = useState(false);
  const go = async (move: boolean) => {
    const target = others.find(({ id }) => id === to);
    if (!target) return;
    setBusy(true);
    try {
      await copyPage(desk.room.lesson, page.id, target.id, desk.sitting);
      if (move && desk.pageActions.remove([page.id]) === undefined) toast(t('pages.aLessonKeepsAtLeast'));
      else toast(t('pages.pageIsNowAtThe', { number, title: target.title }));
      onClose();
    } catch (error) {
      toast.error((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <Modal
      title={t('pages.pageToAnotherLesson', { number })}
      description={
        desk.sitting === undefined
          ? t('pages.everythingOnItComesAlong')
          : t('pages.everythingOnItComesAlongAlso')
      }
      open
      onOpenChange={onClose}
    >
      {others.length === 0 ? (
        <p>{t('pages.youHaveNoOtherLesson')}</p>
      ) : (
        <RadioList<string>
          legend={t('pages.toWhichLesson')}
          value={to}
          options={others.map(({ id, title }) => ({ value: id, name: title }))}
          onChange={setTo}
        />
      )}
      <div className="flex flex-wrap gap-3">
        <Button look="main" disabled={to === undefined || busy} onClick={() => void go(false)}>
          {t('pages.copyItThere')}
        </Button>
        <Button disabled={to === undefined || busy} onClick={() => void go(true)}>
          {t('pages.moveItThere')}
        </Button>
      </div>
    </Modal>
  );
}
