import { lazy } from 'react';
import { toast } from 'sonner';
import { keepInLessonToo, ownPages } from '../material/broughtIn';
import { putOnShelf } from '../shelf/putOnShelf';
import type { Entry } from '../ui/entries';
import { annotationsToMarks } from './annotationsToMarks';
import { fetchAnew } from './fetchAnew';
import type { NumberedPage } from './numberedPage';
import { putPicture } from './putPicture';
import { t } from '../words';

/** What can be done with one page. */
export const PAGE_ENTRIES: readonly Entry<NumberedPage>[] = [
  {
    id: 'after',
    label: t('pages.addAPageAfterThis'),
    Sheet: lazy(() => import('./AddPageDialog').then(({ AfterDialog }) => ({ default: AfterDialog }))),
  },
  {
    id: 'before',
    label: t('pages.addAPageBeforeThis'),
    Sheet: lazy(() => import('./AddPageDialog').then(({ BeforeDialog }) => ({ default: BeforeDialog }))),
  },
  {
    id: 'duplicate',
    label: t('common.duplicate'),
    run: ({ desk, page }) => desk.pageActions.duplicate(page.id),
  },
  { id: 'name', label: t('common.rename'), Sheet: lazy(() => import('./RenamePageDialog')) },
  {
    id: 'paper',
    label: t('pages.changeThePaper'),
    enabled: ({ page: { surface } }) => surface.kind === 'blank' || surface.kind === 'picture',
    Sheet: lazy(() => import('./PaperDialog')),
  },
  {
    id: 'up',
    label: t('pages.moveUp'),
    enabled: ({ number }) => number > 1,
    run: ({ desk, page, number }) => desk.pageActions.moveTo(page.id, number - 2),
  },
  {
    id: 'down',
    label: t('pages.moveDown'),
    enabled: ({ desk, number }) => number < desk.pages.get().length,
    run: ({ desk, page, number }) => desk.pageActions.moveTo(page.id, number),
  },
  {
    id: 'anew',
    label: t('pages.fetchThisWebPageAnew'),
    when: ({ page }) => page.surface.kind === 'web',
    run: ({ desk, page }) => void fetchAnew(desk.room, page),
  },
  {
    id: 'annotations',
    label: t('pages.makeTheDocumentsAnnotationsMarks'),
    when: ({ page }) => page.surface.kind === 'pdf',
    run: ({ desk, page }) => void annotationsToMarks(desk.room, page),
  },
  {
    id: 'template',
    label: t('templates.putAReadyTemplate'),
    enabled: ({ desk, page }) => page.id === desk.pageId.get(),
    run: ({ desk }) => desk.room.shelf.set('templates'),
  },
  {
    id: 'shelf',
    label: t('shelf.putThePageOn'),
    // A display has no shelf of its own.
    when: ({ desk }) => desk.isTeacher && desk.room.device === undefined,
    run: ({ desk, page }) => void putOnShelf(desk, ({ keepPages }) => keepPages(desk, [page.id])),
  },
  {
    id: 'picture',
    label: t('pages.putAPictureOfIt'),
    enabled: ({ desk, page }) => page.id !== desk.pageId.get(),
    run: ({ desk, page }) => void putPicture(desk, page),
  },
  {
    id: 'keep',
    label: t('common.keepInTheLessonToo'),
    when: ({ desk, page }) => ownPages(desk).includes(page.id),
    run: ({ desk, page }) => void keepInLessonToo(desk, [page.id]),
  },
  {
    id: 'history',
    label: t('pages.earlierStates'),
    // A display writes as its teacher, but asks for nothing by REST.
    when: ({ desk }) => desk.room.device === undefined,
    Sheet: lazy(() => import('./HistoryDialog')),
  },
  {
    id: 'replay',
    label: t('replay.entry'),
    when: ({ desk }) => desk.room.device === undefined,
    Sheet: lazy(() => import('./ReplayOfPage')),
  },
  { id: 'copy', label: t('pages.copyOrMoveToAnother'), Sheet: lazy(() => import('./CopyPageDialog')) },
  { id: 'delete', label: t('common.delete'), alarming: true, run: remove },
];

function remove({ desk, page, number }: NumberedPage): void {
  const step = desk.pageActions.remove([page.id]);
  if (step === undefined) return void toast(t('common.aLessonKeepsAtLeast'));
  toast(t('pages.pageWasDeleted', { number }), {
    duration: 15_000,
    action: { label: t('common.undo'), onClick: () => desk.target.takeBack(step) },
  });
}
