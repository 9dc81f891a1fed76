import { ChevronLeft, ChevronRight, Minimize } from 'lucide-react';
import { useStore } from '../live/store';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import type { Workspace } from '../workspace/workspace';
import type { Presenting } from './presenting';

interface SlimTurnerProps {
  workspace: Workspace;
  side: 'left' | 'right';
  /** Left out where there is no way back to something fuller. */
  presenting?: Presenting;
}

/** The page turner while presenting: two arrows and the number. */
export default function SlimTurner({ workspace, side, presenting }: SlimTurnerProps) {
  const pages = useStore(workspace.pages);
  const current = useStore(workspace.pageId);
  const at = pages.findIndex(({ id }) => id === current);
  return (
    <div
      role="group"
      aria-label="Turn pages"
      className={classes(
        'absolute bottom-2 z-30 flex items-center rounded-2xl border-2 border-board-line bg-board/90 p-0.5 text-paper shadow-xl',
        side === 'left' ? 'left-2' : 'right-2',
      )}
    >
      <IconButton
        label="Previous page"
        shortcut="PageUp"
        disabled={at <= 0}
        icon={<ChevronLeft aria-hidden />}
        onClick={() => workspace.turnBy(-1)}
      />
      <span
        className="min-w-12 text-center text-sm font-bold"
        aria-label={`Page ${at + 1} of ${pages.length}`}
      >
        {at + 1} / {pages.length}
      </span>
      <IconButton
        label="Next page"
        shortcut="PageDown"
        disabled={at >= pages.length - 1}
        icon={<ChevronRight aria-hidden />}
        onClick={() => workspace.turnBy(1)}
      />
      {presenting && (
        <IconButton
          label="Stop presenting"
          shortcut={workspace.shortcuts.keyOf('present')}
          icon={<Minimize aria-hidden size={20} />}
          onClick={presenting.stop}
        />
      )}
    </div>
  );
}
