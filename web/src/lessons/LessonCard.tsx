import { useQueryClient } from '@tanstack/react-query';
import { Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { LessonSummary } from '@doodla/core';
import { deleteLesson, lessonsQuery, renameLesson, restoreLesson } from '../api/lessons';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { timeSince } from '../words/dates';

interface LessonCardProps {
  lesson: LessonSummary;
  /** Its number among all, from 1. */
  place: number;
  of: number;
}

export function LessonCard({ lesson, place, of }: LessonCardProps) {
  const client = useQueryClient();
  const [renaming, setRenaming] = useState(false);
  const [hasCover, setHasCover] = useState(true);
  const refresh = () => client.invalidateQueries({ queryKey: lessonsQuery.queryKey });
  const attempt = (action: Promise<void>) =>
    action.then(refresh, (error: Error) => toast.error(error.message));

  const remove = async () => {
    await attempt(deleteLesson(lesson.id));
    toast(t('lessons.wasDeleted', { title: lesson.title }), {
      duration: 15_000,
      action: { label: t('common.undo'), onClick: () => void attempt(restoreLesson(lesson.id)) },
    });
  };
  const rename = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const title = new FormData(event.currentTarget).get('title') as string;
    setRenaming(false);
    void attempt(renameLesson(lesson.id, title));
  };

  return (
    <li
      aria-posinset={place}
      aria-setsize={of}
      className="group mb-5 flex h-80 flex-col overflow-hidden rounded-2xl border-2 border-transparent bg-white shadow-md focus-within:border-board hover:border-board"
    >
      <Link to={`/lesson/${lesson.id}`} className="block grow">
        <div className="flex h-40 items-center justify-center overflow-hidden border-b-2 border-paper-dim bg-paper-dim">
          {hasCover && (
            <img
              src={`/api/lessons/${lesson.id}/cover`}
              alt=""
              loading="lazy"
              onError={() => setHasCover(false)}
              className="max-h-full max-w-full object-contain p-2"
            />
          )}
        </div>
        <div className="px-4 pt-3">
          <h2 className="line-clamp-2 text-lg font-bold">{lesson.title}</h2>
          <p className="text-ink-soft">{t('lessons.used', { when: timeSince(lesson.usedAt) })}</p>
        </div>
      </Link>
      <div className="flex justify-end gap-1 px-2 pb-2">
        <CardButton label={t('lessons.rename', { title: lesson.title })} onClick={() => setRenaming(true)}>
          <Pencil aria-hidden size={18} /> {t('common.rename')}
        </CardButton>
        <CardButton label={t('lessons.delete', { title: lesson.title })} onClick={() => void remove()}>
          <Trash2 aria-hidden size={18} /> {t('common.delete')}
        </CardButton>
      </div>
      <Modal title={t('lessons.renameLesson')} open={renaming} onOpenChange={setRenaming}>
        <form onSubmit={rename}>
          <TextField
            label={t('lessons.title')}
            name="title"
            defaultValue={lesson.title}
            maxLength={200}
            required
          />
          <Button type="submit" look="main">
            {t('lessons.keepThisTitle')}
          </Button>
        </form>
      </Modal>
    </li>
  );
}

function CardButton({
  label,
  onClick,
  children,
}: {
  label: string;
  onClick(): void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="flex min-h-11 items-center gap-1.5 rounded-xl px-3 text-ink-soft hover:bg-paper-dim hover:text-ink"
    >
      {children}
    </button>
  );
}
