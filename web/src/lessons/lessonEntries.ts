import { lazy } from 'react';
import { toast } from 'sonner';
import { changeLesson, copyLesson, deleteLesson, leaveTeam, restoreLesson } from '../api/lessons';
import type { Entry } from '../ui/entries';
import type { ListedLesson } from './listedLesson';
import { attempt } from './listedLesson';
import { t } from '../words';

const UNDO_SHOWN_MS = 15_000;

/** Somebody else's lesson is theirs to name, put away and give. */
const isOwn = ({ lesson }: Pick<ListedLesson, 'lesson'>) => lesson.owner === null;

/** What can be done with a lesson. */
export const LESSON_CARD_ENTRIES: readonly Entry<ListedLesson>[] = [
  { id: 'rename', label: t('common.rename'), when: isOwn, Sheet: lazy(() => import('./RenameLessonDialog')) },
  {
    id: 'folder',
    label: t('lessons.putInAFolder'),
    when: isOwn,
    Sheet: lazy(() => import('./MoveLessonDialog')),
  },
  { id: 'tags', label: t('lessons.tags'), when: isOwn, Sheet: lazy(() => import('./TagsDialog')) },
  {
    id: 'copy',
    label: t('lessons.makeACopy'),
    run: ({ lesson, client }) =>
      void attempt(client, copyLesson(lesson.id, t('lessons.copyOf', { title: lesson.title }).slice(0, 200))),
  },
  { id: 'team', label: t('lessons.workTogether'), when: isOwn, Sheet: lazy(() => import('./TeamDialog')) },
  {
    id: 'leave',
    label: t('lessons.leaveLesson'),
    when: ({ lesson }) => lesson.owner !== null,
    run: ({ lesson, client }) => void attempt(client, leaveTeam(lesson.id)),
  },
  {
    id: 'give',
    label: t('lessons.giveToAColleague'),
    when: isOwn,
    Sheet: lazy(() => import('./GiveLessonDialog')),
  },
  {
    id: 'archive',
    label: t('lessons.putInTheArchive'),
    when: ({ lesson }) => isOwn({ lesson }) && !lesson.archived,
    run: (listed) => void archive(listed, true),
  },
  {
    id: 'unarchive',
    label: t('lessons.takeOutOfTheArchive'),
    when: ({ lesson }) => lesson.archived,
    run: (listed) => void archive(listed, false),
  },
  {
    id: 'delete',
    label: t('common.delete'),
    alarming: true,
    when: isOwn,
    run: (listed) => void remove(listed),
  },
];

async function archive({ lesson, client }: ListedLesson, archived: boolean): Promise<void> {
  if (!(await attempt(client, changeLesson(lesson.id, { archived })))) return;
  const { title } = lesson;
  toast(t(archived ? 'lessons.isInTheArchive' : 'lessons.isOutOfTheArchive', { title }), {
    duration: UNDO_SHOWN_MS,
    action: {
      label: t('common.undo'),
      onClick: () => void attempt(client, changeLesson(lesson.id, { archived: !archived })),
    },
  });
}

async function remove({ lesson, client }: ListedLesson): Promise<void> {
  if (!(await attempt(client, deleteLesson(lesson.id)))) return;
  toast(t('lessons.wasDeleted', { title: lesson.title }), {
    duration: UNDO_SHOWN_MS,
    action: { label: t('common.undo'), onClick: () => void attempt(client, restoreLesson(lesson.id)) },
  });
}
