import type { Rect } from '@doodla/core';
import { hasWords, markBounds, searchWords, typedIn } from '@doodla/core';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { t } from '../words';

/** Space between what was found and the line round it, CSS pixels. */
const AWAY = 3;

interface FoundLayerProps {
  desk: PageDesk;
  stage: Stage;
}

/** What was searched for, where it is on the page; the question stands in the address. */
export default function FoundLayer({ desk, stage }: FoundLayerProps) {
  const [params, setParams] = useSearchParams();
  const question = params.get('find') ?? '';
  const words = useMemo(() => searchWords(question), [question]);
  useStore(desk.pageId);
  useStore(desk.surfaces.wordsChanged);
  useStore(desk.marksChanged);
  const { scale, x, y } = useStore(stage.view);
  if (words.length === 0) return null;
  const close = () =>
    setParams(
      (now) => {
        now.delete('find');
        return now;
      },
      { replace: true },
    );
  return (
    <>
      {placesOf(desk, words).map((place, i) => (
        <div
          key={i}
          data-found
          className="absolute rounded-md border-3 border-board bg-board/15"
          style={{
            left: x + place.x * scale - AWAY,
            top: y + place.y * scale - AWAY,
            width: place.width * scale + 2 * AWAY,
            height: place.height * scale + 2 * AWAY,
          }}
        />
      ))}
      <button
        type="button"
        onClick={close}
        className="pointer-events-auto absolute bottom-16 left-1/2 z-20 flex min-h-11 max-w-[90vw] -translate-x-1/2 items-center gap-2 rounded-xl bg-board px-4 font-bold text-paper shadow-xl"
      >
        <span className="truncate">{t('pages.hideWhatWasFound', { question })}</span>{' '}
        <X aria-hidden size={18} />
      </button>
    </>
  );
}

/** Where words of the page, or marks with such words, lie on it, page units. */
function placesOf({ page, surfaces, layers }: PageDesk, words: readonly string[]): Rect[] {
  if (!page) return [];
  const printed = surfaces.wordsOf(page)?.beginningWith(words) ?? [];
  const marks = layers
    .flatMap((layer) => layer.on(page.id).all())
    .filter((mark) => words.some((word) => hasWords(typedIn(mark), [word])));
  return [...printed, ...marks.map(markBounds)];
}
