import { useQueryClient } from '@tanstack/react-query';
import { Columns2, Eye, Import, Pencil, Play, Trash2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { SittingSummary } from '@doodla/core';
import {
  dropSitting,
  keepInLesson,
  lessonQuery,
  renameSitting,
  reopenSitting,
  restoreSitting,
} from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import { KeptUntil } from './KeptUntil';
import { t } from '../words';
import { dateAndTime } from '../words/dates';

interface SittingsDialogProps {
  lesson: string;
  sittings: readonly SittingSummary[];
  onClose(): void;
}

/** The classes that a lesson was taught to: look, go on, copy into the lesson, compare, drop, bring back. */
export default function SittingsDialog({ lesson, sittings, onClose }: SittingsDialogProps) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [renaming, setRenaming] = useState<string>();
  const [compared, setCompared] = useState<readonly string[]>([]);
  const refresh = () => client.invalidateQueries({ queryKey: lessonQuery(lesson).queryKey });
  const attempt = (action: Promise<unknown>, done?: () => void) =>
    void action.then(
      () => {
        void refresh();
        done?.();
      },
      (error: Error) => toast.error(error.message),
    );
  const goOn = (id: string) => attempt(reopenSitting(id), () => void navigate(`/sitting/${id}`));
  const drop = ({ id, title }: SittingSummary) =>
    attempt(dropSitting(id), () =>
      toast(t('sittings.wasDropped', { title }), {
        duration: 15_000,
        action: { label: t('common.undo'), onClick: () => attempt(restoreSitting(id)) },
      }),
    );
  const copy = (id: string) =>
    attempt(
      keepInLesson(id, {}).then(({ marks }) =>
        toast(
          marks.length === 0
            ? t('sittings.thereIsNothingOnThe')
            : t('sittings.marksWereCopiedIntoThe', { count: marks.length }),
        ),
      ),
    );
  const rename = (id: string, title: string) => {
    setRenaming(undefined);
    if (title.trim() !== '') attempt(renameSitting(id, title.trim()));
  };
  const choose = (id: string) =>
    setCompared(
      compared.includes(id) ? compared.filter((other) => other !== id) : [...compared.slice(-1), id],
    );
  return (
    <Modal
      title={t('sittings.classesOfThisLesson')}
      description={t('sittings.eachClassHasItsOwn')}
      open
      onOpenChange={onClose}
    >
      <ul className="mb-4 flex max-h-[55dvh] flex-col gap-2 overflow-auto">
        {sittings.map((sitting) => (
          <li key={sitting.id} className="rounded-xl border-2 border-paper-line p-2">
            <img
              src={`/api/sittings/${sitting.id}/cover`}
              alt=""
              loading="lazy"
              onError={({ currentTarget }) => currentTarget.remove()}
              className="float-end ms-2 max-h-20 max-w-28 rounded-lg"
            />
            {renaming === sitting.id ? (
              <form
                onSubmit={(event) => {
                  event.preventDefault();
                  rename(sitting.id, new FormData(event.currentTarget).get('title') as string);
                }}
              >
                <TextField
                  label={t('sittings.name')}
                  name="title"
                  defaultValue={sitting.title}
                  maxLength={200}
                  autoFocus
                />
                <Button type="submit">{t('common.keepThisName')}</Button>
              </form>
            ) : (
              <p className="font-bold">{sitting.title}</p>
            )}
            <p className="text-sm text-ink-soft">
              {dateAndTime(sitting.openedAt)} · {standing(sitting)}
            </p>
            <KeptUntil sitting={sitting} onProblem={toast.error} />
            <div className="flex flex-wrap gap-1 pt-1">
              {sitting.droppedAt !== null ? (
                <Action
                  icon={<Undo2 aria-hidden size={18} />}
                  onClick={() => attempt(restoreSitting(sitting.id))}
                >
                  {t('sittings.bringBack')}
                </Action>
              ) : (
                <>
                  {sitting.endedAt !== null && (
                    <Action
                      icon={<Eye aria-hidden size={18} />}
                      onClick={() => void navigate(`/sitting/${sitting.id}`)}
                    >
                      {t('sittings.look')}
                    </Action>
                  )}
                  <Action icon={<Play aria-hidden size={18} />} onClick={() => goOn(sitting.id)}>
                    {t('sittings.goOn')}
                  </Action>
                  <Action icon={<Import aria-hidden size={18} />} onClick={() => copy(sitting.id)}>
                    {t('sittings.copyIntoTheLesson')}
                  </Action>
                  <Action icon={<Pencil aria-hidden size={18} />} onClick={() => setRenaming(sitting.id)}>
                    {t('common.rename')}
                  </Action>
                  <Action
                    icon={<Columns2 aria-hidden size={18} />}
                    pressed={compared.includes(sitting.id)}
                    onClick={() => choose(sitting.id)}
                  >
                    {t('sittings.compare')}
                  </Action>
                  <Action icon={<Trash2 aria-hidden size={18} />} onClick={() => drop(sitting)}>
                    {t('sittings.drop')}
                  </Action>
                </>
              )}
            </div>
          </li>
        ))}
      </ul>
      <Button
        look="main"
        disabled={compared.length !== 2}
        onClick={() => void navigate(`/lesson/${lesson}/compare?a=${compared[0]}&b=${compared[1]}`)}
      >
        {compared.length === 2
          ? t('sittings.compareTheTwo')
          : t('sittings.chooseMoreToCompare', { number: 2 - compared.length })}
      </Button>
    </Modal>
  );
}

function Action({
  icon,
  pressed,
  onClick,
  children,
}: {
  icon: ReactNode;
  pressed?: boolean;
  onClick(): void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      onClick={onClick}
      className="flex min-h-11 items-center gap-1.5 rounded-xl px-3 hover:bg-paper-dim aria-pressed:bg-chalk aria-pressed:font-bold"
    >
      {icon}
      {children}
    </button>
  );
}

function standing({ endedAt, droppedAt }: SittingSummary): string {
  if (droppedAt !== null) return t('sittings.droppedGoneForGood');
  return endedAt === null ? t('sittings.stillOpen') : t('sittings.kept');
}
