import type { Space } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { t } from '../words';

/** Says that the page is somebody's copy, and goes back to the common page. */
export default function CopySign({ desk }: { desk: PageDesk }) {
  const { room } = desk;
  const page = useStore(desk.pageId);
  const opened = useStore(room.spaces.opened);
  const state = useStore(room.classroom!.state);
  const copy = state?.copy?.page === page ? state?.copy : undefined;
  const isOpen = opened !== undefined && opened.page === page;
  if (isOpen)
    return (
      <Sign
        text={t('roster.youAreInCopyOf', { name: nameOfSpace(desk, opened.space) })}
        action={t('roster.backToTheCommonPage')}
        onAct={() => room.spaces.opened.set(undefined)}
      />
    );
  if (copy)
    return (
      <Sign
        text={
          copy.named
            ? t('roster.shownIsCopyOf', { name: nameOfSpace(desk, copy.space) })
            : t('roster.shownIsACopy')
        }
        action={t('roster.backToTheCommonPage')}
        {...(room.isTeacher && { onAct: () => room.classroom!.showCopy(null) })}
      />
    );
  const way = page === undefined ? undefined : state?.ways[page];
  if (room.isTeacher || !way || desk.space === 'class') return null;
  return <Sign text={t(way === 'own' ? 'roster.thisIsYourCopy' : 'roster.thisIsYourTables')} />;
}

function Sign({ text, action, onAct }: { text: string; action?: string; onAct?(): void }) {
  return (
    <div
      role="status"
      className="absolute top-16 left-1/2 z-20 flex max-w-[calc(100vw-1rem)] -translate-x-1/2 items-center gap-3 rounded-2xl bg-board px-4 py-1 text-paper shadow-xl compact:top-auto compact:bottom-28 forced-colors:border-2"
    >
      <span>{text}</span>
      {onAct && (
        <button
          type="button"
          onClick={onAct}
          className="min-h-11 rounded-xl bg-paper px-3 font-bold text-board"
        >
          {action}
        </button>
      )}
    </div>
  );
}

function nameOfSpace({ room }: PageDesk, space: Space): string {
  const [kind, id = ''] = space.split(':');
  return kind === 'table' ? t('roster.table', { number: id }) : room.nameOf(id);
}
