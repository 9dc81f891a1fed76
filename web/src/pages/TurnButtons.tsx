import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';

/** Two arrows and the number of the page. */
export function TurnButtons({ desk }: { desk: PageDesk }) {
  const pages = useStore(desk.pages);
  const current = useStore(desk.pageId);
  const at = pages.findIndex(({ id }) => id === current);
  return (
    <div role="group" aria-label="Turn pages" className="flex items-center">
      <IconButton
        label="Previous page"
        shortcut={desk.room.shortcuts.keyOf('previousPage')}
        disabled={at <= 0}
        icon={<ChevronLeft aria-hidden />}
        onClick={() => desk.turnBy(-1)}
      />
      <span
        className="min-w-14 text-center font-bold"
        aria-live="polite"
        aria-label={`Page ${at + 1} of ${pages.length}`}
      >
        {at + 1} / {pages.length}
      </span>
      <IconButton
        label="Next page"
        shortcut={desk.room.shortcuts.keyOf('nextPage')}
        disabled={at >= pages.length - 1 && !desk.room.mayAddPages}
        icon={<ChevronRight aria-hidden />}
        onClick={() => desk.turnBy(1)}
      />
    </div>
  );
}
