import { lazy } from 'react';
import { toast } from 'sonner';
import { keepInLessonToo, ownPages } from '../material/broughtIn';
import type { Entry } from '../ui/entries';
import { annotationsToMarks } from './annotationsToMarks';
import { fetchAnew } from './fetchAnew';
import type { NumberedPage } from './numberedPage';
import { putPicture } from './putPicture';

/** What can be done with one page. */
export const PAGE_ENTRIES: readonly Entry<NumberedPage>[] = [
  {
    id: 'after',
    label: 'Add a page after this',
    Sheet: lazy(() => import('./AddPageDialog').then(({ AfterDialog }) => ({ default: AfterDialog }))),
  },
  {
    id: 'before',
    label: 'Add a page before this',
    Sheet: lazy(() => import('./AddPageDialog').then(({ BeforeDialog }) => ({ default: BeforeDialog }))),
  },
  { id: 'duplicate', label: 'Duplicate', run: ({ desk, page }) => desk.pageActions.duplicate(page.id) },
  { id: 'name', label: 'Rename', Sheet: lazy(() => import('./RenamePageDialog')) },
  {
    id: 'paper',
    label: 'Change the paper',
    enabled: ({ page: { surface } }) => surface.kind === 'blank' || surface.kind === 'picture',
    Sheet: lazy(() => import('./PaperDialog')),
  },
  {
    id: 'up',
    label: 'Move up',
    enabled: ({ number }) => number > 1,
    run: ({ desk, page, number }) => desk.pageActions.moveTo(page.id, number - 2),
  },
  {
    id: 'down',
    label: 'Move down',
    enabled: ({ desk, number }) => number < desk.pages.get().length,
    run: ({ desk, page, number }) => desk.pageActions.moveTo(page.id, number),
  },
  {
    id: 'anew',
    label: 'Fetch this web page anew',
    when: ({ page }) => page.surface.kind === 'web',
    run: ({ desk, page }) => void fetchAnew(desk.room, page),
  },
  {
    id: 'annotations',
    label: 'Make the document’s annotations marks',
    when: ({ page }) => page.surface.kind === 'pdf',
    run: ({ desk, page }) => void annotationsToMarks(desk.room, page),
  },
  {
    id: 'picture',
    label: 'Put a picture of it on the shown page',
    enabled: ({ desk, page }) => page.id !== desk.pageId.get(),
    run: ({ desk, page }) => void putPicture(desk, page),
  },
  {
    id: 'keep',
    label: 'Keep in the lesson too',
    when: ({ desk, page }) => ownPages(desk).includes(page.id),
    run: ({ desk, page }) => void keepInLessonToo(desk, [page.id]),
  },
  { id: 'copy', label: 'Copy or move to another lesson', Sheet: lazy(() => import('./CopyPageDialog')) },
  { id: 'delete', label: 'Delete', alarming: true, run: remove },
];

function remove({ desk, page, number }: NumberedPage): void {
  const step = desk.pageActions.remove([page.id]);
  if (step === undefined) return void toast('A lesson keeps at least one page.');
  toast(`Page ${number} was deleted.`, {
    duration: 15_000,
    action: { label: 'Undo', onClick: () => desk.target.takeBack(step) },
  });
}
