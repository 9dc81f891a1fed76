import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** Two arrows and the number of the page. */
export function TurnButtons({ desk }: { desk: PageDesk }) {
  const pages = useStore(desk.pages);
  const current = useStore(desk.pageId);
  const at = pages.findIndex(({ id }) => id === current);
  return (
    <div role="group" aria-label={t('common.turnPages')} className="flex items-center">
      <IconButton
        label={t('common.previousPage')}
        shortcut={desk.room.shortcuts.keyOf('previousPage')}
        disabled={at <= 0}
        icon={<ChevronLeft aria-hidden />}
        onClick={() => desk.turnBy(-1)}
      />
      <span
        className="min-w-14 text-center font-bold"
        aria-live="polite"
        aria-label={t('pages.pageOf', { number: at + 1, count: pages.length })}
      >
        {at + 1} / {pages.length}
      </span>
      <IconButton
        label={t('common.nextPage')}
        shortcut={desk.room.shortcuts.keyOf('nextPage')}
        disabled={at >= pages.length - 1 && !desk.room.mayAddPages}
        icon={<ChevronRight aria-hidden />}
        onClick={() => desk.turnBy(1)}
      />
    </div>
  );
}
