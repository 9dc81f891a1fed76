import type { LessonSummary } from '@doodla/core';
import { useQueryClient } from '@tanstack/react-query';
import { Ellipsis, Star, Undo2, Users } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { changeLesson, restoreLesson } from '../api/lessons';
import { classes } from '../ui/classes';
import { EntryMenu } from '../ui/EntryMenu';
import { Cover } from './Cover';
import { LESSON_CARD_ENTRIES } from './lessonEntries';
import { attempt } from './listedLesson';
import { t } from '../words';
import { timeSince } from '../words/dates';

interface LessonCardProps {
  lesson: LessonSummary;
  /** Its number among all, from 1. */
  place: number;
  of: number;
}

const BUTTON =
  'flex min-h-11 min-w-11 items-center justify-center gap-1.5 rounded-xl px-2 hover:bg-paper-dim';

/** A lesson as a picture, with what can be done with it. */
export function LessonCard({ lesson, place, of }: LessonCardProps) {
  const { id, title, tags, usedAt, deletedAt, owner } = lesson;
  const face = (
    <>
      <Cover src={`/api/lessons/${id}/cover`} className="h-40 border-b-2 border-paper-dim" />
      <div className="px-4 pt-3">
        <h2 className="line-clamp-2 text-lg leading-snug font-bold">{title}</h2>
        <p className="truncate text-ink-soft">
          {deletedAt === null
            ? t('lessons.used', { when: timeSince(usedAt) })
            : t('lessons.deletedWhen', { when: timeSince(deletedAt) })}
          {owner !== null && ` · ${t('lessons.with', { name: owner })}`}
          {tags.length > 0 && ` · ${tags.join(', ')}`}
        </p>
      </div>
    </>
  );
  return (
    <li
      aria-posinset={place}
      aria-setsize={of}
      className="group mb-5 flex h-80 flex-col overflow-hidden rounded-2xl border-2 border-transparent bg-white shadow-md focus-within:border-board hover:border-board"
    >
      {deletedAt === null ? (
        <Link to={`/lesson/${id}`} className="block grow">
          {face}
        </Link>
      ) : (
        <div className="grow">{face}</div>
      )}
      <div className="flex justify-between gap-1 px-2 pb-2">
        {deletedAt === null ? <ActionsOf lesson={lesson} /> : <BringBack lesson={lesson} />}
      </div>
    </li>
  );
}

function ActionsOf({ lesson }: { lesson: LessonSummary }) {
  const client = useQueryClient();
  const { id, title, favourite, owner } = lesson;
  return (
    <>
      {owner === null ? (
        <button
          type="button"
          aria-pressed={favourite}
          aria-label={t('lessons.favouriteLesson', { title })}
          onClick={() => void attempt(client, changeLesson(id, { favourite: !favourite }))}
          className={classes(BUTTON, favourite ? 'text-board' : 'text-ink-soft')}
        >
          <Star aria-hidden size={20} {...(favourite && { fill: 'currentColor' })} />
        </button>
      ) : (
        <Users aria-hidden size={20} className="m-3 text-ink-soft" />
      )}
      <EntryMenu
        entries={LESSON_CARD_ENTRIES}
        props={{ lesson, client }}
        align="end"
        trigger={
          <button
            type="button"
            aria-label={t('lessons.whatToDoWith', { title })}
            className={classes(BUTTON, 'text-ink-soft')}
          >
            <Ellipsis aria-hidden size={22} />
          </button>
        }
      />
    </>
  );
}

function BringBack({ lesson: { id, title } }: { lesson: LessonSummary }): ReactNode {
  const client = useQueryClient();
  return (
    <button
      type="button"
      aria-label={t('lessons.bringBackLesson', { title })}
      onClick={() => void attempt(client, restoreLesson(id))}
      className={classes(BUTTON, 'font-bold text-board')}
    >
      <Undo2 aria-hidden size={18} /> {t('lessons.bringBack')}
    </button>
  );
}
