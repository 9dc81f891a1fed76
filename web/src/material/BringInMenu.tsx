import { FilePlus2 } from 'lucide-react';
import { lazy } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import type { Entry } from '../ui/entries';
import { EntryMenu } from '../ui/EntryMenu';
import { t } from '../words';

const ENTRIES: readonly Entry<{ desk: PageDesk }>[] = [
  { id: 'document', label: t('material.pagesOfADocument'), Sheet: lazy(() => import('./DocumentDialog')) },
  { id: 'web', label: t('material.aWebPage'), Sheet: lazy(() => import('./WebPageDialog')) },
  { id: 'photo', label: t('material.aPhotoOfAWorksheet'), Sheet: lazy(() => import('./PhotoDialog')) },
  { id: 'drawing', label: t('material.aDrawing'), Sheet: lazy(() => import('./DrawingDialog')) },
  { id: 'media', label: t('material.aSoundOrVideoFile'), Sheet: lazy(() => import('./MediaDialog')) },
  { id: 'figure', label: t('figures.title'), run: ({ desk }) => desk.plotEdit.set({ is: 'figure' }) },
  { id: 'ideaMap', label: t('ideaMap.title'), run: ({ desk }) => desk.plotEdit.set({ is: 'ideaMap' }) },
  { id: 'exercise', label: t('exercises.title'), Sheet: lazy(() => import('../exercises/ExerciseDialog')) },
];

/** What can be brought in as pages, before class and in the middle of it. */
export function BringInMenu({ desk }: { desk: PageDesk }) {
  return (
    <EntryMenu
      entries={ENTRIES}
      props={{ desk }}
      align="end"
      trigger={
        <Button look="onBoard" icon={<FilePlus2 aria-hidden size={18} />}>
          {t('material.bringIn')}
        </Button>
      }
    />
  );
}
