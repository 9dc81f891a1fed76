import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import { useSearchParams } from 'react-router';
import { lessonsQuery, trashQuery } from '../api/lessons';
import { classes } from '../ui/classes';
import type { PlaceId, Sort, Wanted } from './arranged';
import { arranged, PLACES, SORTS, tagsOf } from './arranged';
import { FolderBar } from './FolderBar';
import { LessonGrid } from './LessonGrid';
import { OpenClasses } from './OpenClasses';
import { PastClasses } from './PastClasses';
import { t } from '../words';

const PLACE_NAMES = {
  lastUsed: t('lessons.lastUsed'),
  folders: t('lessons.folders'),
  favourites: t('lessons.favourites'),
  archive: t('lessons.archive'),
  trash: t('lessons.trash'),
} satisfies Record<PlaceId, string>;

const SORT_NAMES = {
  used: t('lessons.byLastUse'),
  created: t('lessons.byAge'),
  title: t('lessons.byTitle'),
} satisfies Record<Sort, string>;

const EMPTY = {
  lastUsed: undefined,
  folders: undefined,
  favourites: t('lessons.noFavouritesYet'),
  archive: t('lessons.theArchiveIsEmpty'),
  trash: t('lessons.theTrashIsEmpty'),
} satisfies Record<PlaceId, string | undefined>;

/** A teacher's lessons: those of one place, in one order. What is chosen stands in the address. */
export function LessonShelf() {
  const [search, setSearch] = useSearchParams();
  const wanted = wantedOf(search);
  const { place, folder, tag, sort } = wanted;
  const want = (set: Partial<Wanted>) =>
    setSearch(addressOf({ ...wanted, ...set }), { replace: 'sort' in set });
  const orderId = useId();
  const lessons = useQuery(lessonsQuery);
  const trash = useQuery({ ...trashQuery, enabled: place === 'trash' });
  const { data, error } = place === 'trash' ? trash : lessons;
  const shown = arranged(data ?? [], wanted);
  const tags = place === 'trash' ? [] : tagsOf(lessons.data ?? []);
  return (
    <>
      {place === 'lastUsed' && tag === undefined && (
        <>
          <OpenClasses />
          <PastClasses />
        </>
      )}
      {lessons.data?.length !== 0 || place !== 'lastUsed' ? (
        <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
          <nav aria-label={t('lessons.whichLessons')} className="flex flex-wrap gap-1">
            {PLACES.map((one) => (
              <ChipButton
                key={one}
                on={one === place}
                onClick={() => want({ place: one, folder: undefined })}
              >
                {PLACE_NAMES[one]}
              </ChipButton>
            ))}
          </nav>
          <div className="ms-auto flex items-center gap-2">
            <label htmlFor={orderId}>{t('lessons.order')}</label>
            <select
              id={orderId}
              value={sort}
              onChange={(event) => want({ sort: event.target.value as Sort })}
              className="min-h-11 rounded-xl border-2 border-paper-line bg-white px-2"
            >
              {SORTS.map((one) => (
                <option key={one} value={one}>
                  {SORT_NAMES[one]}
                </option>
              ))}
            </select>
          </div>
        </div>
      ) : (
        <EmptyShelf />
      )}
      {tags.length > 0 && (
        <div role="group" aria-label={t('lessons.tags')} className="mb-4 flex flex-wrap gap-1">
          {tags.map((one) => (
            <ChipButton
              key={one}
              on={one === tag}
              onClick={() => want({ tag: one === tag ? undefined : one })}
            >
              {one}
            </ChipButton>
          ))}
        </div>
      )}
      {place === 'folders' && <FolderBar open={folder} onOpen={(id) => want({ folder: id })} />}
      {place === 'trash' && <p className="mb-4 text-ink-soft">{t('lessons.trashIsKept')}</p>}
      {error && <p role="alert">{error.message}</p>}
      {data && shown.length === 0 && EMPTY[place] && <p>{EMPTY[place]}</p>}
      <LessonGrid lessons={shown} />
    </>
  );
}

function wantedOf(search: URLSearchParams): Wanted {
  const place = search.get('place') as PlaceId;
  const sort = search.get('sort') as Sort;
  return {
    place: PLACES.includes(place) ? place : 'lastUsed',
    folder: search.get('folder') ?? undefined,
    tag: search.get('tag') ?? undefined,
    sort: SORTS.includes(sort) ? sort : 'used',
  };
}

function addressOf({ place, folder, tag, sort }: Wanted): Record<string, string> {
  return {
    ...(place !== 'lastUsed' && { place }),
    ...(folder !== undefined && place === 'folders' && { folder }),
    ...(tag !== undefined && { tag }),
    ...(sort !== 'used' && { sort }),
  };
}

interface ChipButtonProps {
  on: boolean;
  onClick(): void;
  children: string;
}

function ChipButton({ on, onClick, children }: ChipButtonProps) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onClick}
      className={classes(
        'min-h-11 rounded-xl px-3',
        on ? 'bg-board font-bold text-paper' : 'hover:bg-paper-dim',
      )}
    >
      {children}
    </button>
  );
}

function EmptyShelf() {
  return (
    <div className="rounded-2xl border-2 border-dashed border-paper-line p-10 text-center text-lg">
      <p className="font-bold">{t('lessons.nothingHereYet')}</p>
      <p>{t('lessons.dropAPdfSlidesA')}</p>
    </div>
  );
}
