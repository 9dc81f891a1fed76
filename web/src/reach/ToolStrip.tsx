import { Minimize2, MoreHorizontal, Redo2, Undo2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import { windowRoom } from '../ui/windowRoom';
import { keepNewFocus } from '../ui/focus';
import type { PageDesk } from '../room/pageDesk';
import type { ToolId } from '../tools/tools';
import type { Reach } from './reachState';
import { CHOOSING_SHEET } from './sheet';
import { besidePages, shownTools, toolsThatFit } from './stripRoom';
import { ToolButton } from './ToolButton';
import { ToolOptions } from './ToolOptions';
import { t } from '../words';

const MoreTools = lazy(() => import('./MoreTools'));

/** What is wanted most comes first. */
const ORDER: readonly ToolId[] = [
  'pen',
  'highlighter',
  'eraser',
  'text',
  'select',
  'shape',
  'line',
  'stamp',
  'note',
  'fill',
];

interface ToolStripProps {
  desk: PageDesk;
  reach: Reach;
}

/** The tools of a hand-held screen along its lower edge: as many as there is room for, all others one tap away. */
export function ToolStrip({ desk, reach }: ToolStripProps) {
  const { side } = useStore(reach);
  const room = useStore(windowRoom);
  const { tool: inHand } = useStore(desk.penCase);
  return (
    <div
      role="toolbar"
      data-bar="tools"
      aria-label={t('reach.tools')}
      className={classes(
        'absolute bottom-0 z-30 flex rounded-t-2xl bg-board p-0.5 text-paper shadow-xl',
        besidePages(room) ? (side === 'left' ? 'left-0' : 'right-0') : 'inset-x-0 justify-between',
      )}
    >
      {shownTools(ORDER, toolsThatFit(room), inHand).map((tool) => (
        <ToolButton key={tool} tool={tool} desk={desk} side="top" named={false} />
      ))}
      <UndoButton desk={desk} />
      <ToolOptions desk={desk} side="top" />
      <More desk={desk} reach={reach} />
    </div>
  );
}

function UndoButton({ desk }: { desk: PageDesk }) {
  const { canUndo } = useStore(desk.target.status);
  useStore(desk.room.mode);
  return (
    <IconButton
      label={t('common.undo')}
      icon={<Undo2 aria-hidden size={20} />}
      disabled={!canUndo || !desk.mayWrite}
      onClick={() => desk.target.undo()}
    />
  );
}

function More({ desk, reach }: ToolStripProps) {
  const [open, setOpen] = useState(false);
  const { canRedo } = useStore(desk.target.status);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <IconButton
          label={t('reach.moreTools')}
          data-undoes-fold
          icon={<MoreHorizontal aria-hidden />}
          tooltipSide="none"
        />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={t('reach.moreTools')}
          side="top"
          sideOffset={8}
          collisionPadding={8}
          onCloseAutoFocus={keepNewFocus}
          onClick={(event) => {
            if ((event.target as HTMLElement).closest('[data-closes]')) setOpen(false);
          }}
          className={CHOOSING_SHEET}
        >
          <Suspense fallback={<p>{t('common.opening')}</p>}>
            <MoreTools desk={desk} />
          </Suspense>
          <div className="mt-2 grid grid-cols-2 gap-1 border-t border-board-hover pt-2">
            <IconButton
              label={t('common.redo')}
              caption={t('common.redo')}
              icon={<Redo2 aria-hidden size={20} />}
              disabled={!canRedo || !desk.mayWrite}
              tooltipSide="none"
              onClick={() => desk.target.redo()}
            />
            <IconButton
              data-closes
              label={t('common.foldTheToolsAway')}
              caption={t('reach.foldAway')}
              icon={<Minimize2 aria-hidden size={20} />}
              tooltipSide="none"
              onClick={reach.toggleFold}
            />
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
