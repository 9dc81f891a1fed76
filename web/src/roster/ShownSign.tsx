import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { t } from '../words';

/** Says that only some marks are shown here, and shows all again. */
export default function ShownSign({ room }: { room: Room }) {
  const shown = useStore(room.shown.of);
  if (shown === 'everybody') return null;
  const what =
    shown === 'no-students'
      ? t('roster.allButStudents')
      : shown.author === room.target.actor?.id
        ? t('roster.onlyMine')
        : t('roster.onlyOf', { name: room.nameOf(shown.author) });
  return (
    <div
      role="status"
      className="absolute top-16 left-1/2 z-20 flex max-w-[calc(100vw-1rem)] -translate-x-1/2 items-center gap-3 rounded-2xl bg-board py-1 ps-4 pe-1 text-paper shadow-xl forced-colors:border-2"
    >
      <span>{t('roster.shown', { what })}</span>
      <button
        type="button"
        onClick={() => room.shown.of.set('everybody')}
        className="min-h-11 rounded-xl bg-paper px-3 font-bold text-board"
      >
        {t('roster.showAll')}
      </button>
    </div>
  );
}
