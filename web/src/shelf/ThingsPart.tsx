import type { ShelfThing } from '@doodla/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Files, FileStack, SquarePlus } from 'lucide-react';
import { useDeferredValue, useEffect, useState } from 'react';
import { THINGS_KEY, thingsQuery } from '../api/shelf';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { t } from '../words';
import { keepMarks, keepPages } from './keepOnShelf';
import { SearchField } from './SearchField';
import { openFolder, shelfChanged } from './shelfState';
import { ThingCard } from './ThingCard';

/** Things that were put on the shelf: one's own, or those that the school shares. */
export function ThingsPart({ desk, of }: { desk: PageDesk; of: 'own' | 'school' }) {
  const client = useQueryClient();
  const [words, setWords] = useState('');
  const ownFolder = useStore(openFolder);
  const [schoolFolder, openSchoolFolder] = useState('');
  const [folder, setFolder] =
    of === 'own' ? [ownFolder, (name: string) => openFolder.set(name)] : [schoolFolder, openSchoolFolder];
  const { data: things, error } = useQuery(thingsQuery({ of, words: useDeferredValue(words) }));
  useEffect(
    () => shelfChanged.subscribe(() => void client.invalidateQueries({ queryKey: THINGS_KEY })),
    [client],
  );
  const folders = foldersOf(things ?? [], folder);
  const shown = (things ?? []).filter((thing) => folder === '' || thing.folder === folder);
  return (
    <>
      <div className="px-3">
        <SearchField label={t('shelf.search')} value={words} onChange={setWords} />
        {folders.length > 0 && (
          <SelectField
            label={t('shelf.folder')}
            value={folder}
            options={[
              { value: '', name: t('shelf.allFolders') },
              ...folders.map((value) => ({ value, name: value })),
            ]}
            onChange={setFolder}
          />
        )}
      </div>
      <div className="min-h-0 grow overflow-y-auto px-2">
        {error && <Problem>{error.message}</Problem>}
        {things && shown.length === 0 && <Empty of={of} searched={words !== '' || folder !== ''} />}
        <ul
          aria-label={t(of === 'own' ? 'shelf.yourThings' : 'shelf.theSchools')}
          className="grid grid-cols-2 gap-1"
        >
          {shown.map((thing) => (
            <li key={thing.id} className="relative">
              <ThingCard desk={desk} thing={thing} folders={folders} />
            </li>
          ))}
        </ul>
      </div>
      {of === 'own' && <PutButtons desk={desk} />}
    </>
  );
}

/** The folders that there are, and the one that is open, by name. */
function foldersOf(things: readonly ShelfThing[], open: string): string[] {
  const names = new Set([...things.map(({ folder }) => folder), open]);
  names.delete('');
  return [...names].sort((a, b) => a.localeCompare(b));
}

function Empty({ of, searched }: { of: 'own' | 'school'; searched: boolean }) {
  const text = searched ? 'shelf.nothingFound' : of === 'own' ? 'shelf.ownIsEmpty' : 'shelf.schoolIsEmpty';
  return <p className="px-2 py-4 text-ink-soft">{t(text)}</p>;
}

/** Putting things on the shelf without dragging. */
function PutButtons({ desk }: { desk: PageDesk }) {
  const selected = useStore(desk.selection.ids);
  const page = useStore(desk.pageId);
  const pages = useStore(desk.pages);
  return (
    <div className="flex flex-col gap-2 border-t-2 border-paper-line p-3">
      <p className="text-sm text-ink-soft">{t('shelf.dragHere')}</p>
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={selected.size === 0}
          icon={<SquarePlus aria-hidden size={18} />}
          onClick={() => void keepMarks(desk)}
        >
          {t('shelf.putSelected')}
        </Button>
        <Button
          disabled={page === undefined}
          icon={<FileStack aria-hidden size={18} />}
          onClick={() => void keepPages(desk, [page!])}
        >
          {t('shelf.putPage')}
        </Button>
        <Button
          disabled={pages.length < 2}
          icon={<Files aria-hidden size={18} />}
          onClick={() =>
            void keepPages(
              desk,
              pages.map(({ id }) => id),
            )
          }
        >
          {t('shelf.putAllPages')}
        </Button>
      </div>
    </div>
  );
}
