import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useStore } from '../store/store';
import { IconButton } from '../ui/IconButton';
import type { Workspace } from '../workspace/workspace';

/** Two arrows and the number of the page. */
export function TurnButtons({ workspace }: { workspace: Workspace }) {
  const pages = useStore(workspace.pages);
  const current = useStore(workspace.pageId);
  const at = pages.findIndex(({ id }) => id === current);
  return (
    <div role="group" aria-label="Turn pages" className="flex items-center">
      <IconButton
        label="Previous page"
        shortcut={workspace.shortcuts.keyOf('previousPage')}
        disabled={at <= 0}
        icon={<ChevronLeft aria-hidden />}
        onClick={() => workspace.turnBy(-1)}
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
        shortcut={workspace.shortcuts.keyOf('nextPage')}
        disabled={at >= pages.length - 1 && !workspace.mayAddPages}
        icon={<ChevronRight aria-hidden />}
        onClick={() => workspace.turnBy(1)}
      />
    </div>
  );
}
