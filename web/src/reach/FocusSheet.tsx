import { BookOpen, Flashlight, PanelTopClose, RotateCcw, ScanSearch, Timer } from 'lucide-react';
import type { ReactNode } from 'react';
import { NO_SCENE } from '../live/classClient';
import { useStore } from '../store/store';
import { SheetTool } from './SheetTool';
import { FOCUS_TOOLS } from './tools';
import { IconButton } from '../ui/IconButton';
import type { ActionId } from '../desk/shortcuts';
import type { Workspace } from '../workspace/workspace';
import {
  countdown,
  cover,
  coverAgain,
  magnifier,
  spotlight,
  stopwatch,
  twoPages,
} from '../focus/focusActions';

/** Ready lengths of a countdown, minutes; three is usual. */
const MINUTES = [3, 5, 1, 2, 10, 15];

/** Leading the class's eye, and its time. */
export default function FocusSheet({ workspace }: { workspace: Workspace }) {
  const { focus, split, timer, uncovered } = useStore(workspace.classroom?.scene ?? NO_SCENE);
  const inClass = workspace.classroom !== undefined;
  const action = (
    id: ActionId,
    caption: string,
    icon: ReactNode,
    active: boolean,
    onClick: (workspace: Workspace) => void,
  ) => (
    <IconButton
      data-closes
      label={caption}
      caption={caption}
      icon={icon}
      shortcut={workspace.shortcuts.keyOf(id)}
      active={active}
      disabled={!inClass}
      className="min-h-14 border-2 border-board-line"
      onClick={() => onClick(workspace)}
    />
  );
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label="Focus" className="grid grid-cols-3 gap-1.5">
        {action('spotlight', 'Spotlight', <Flashlight aria-hidden />, focus?.kind === 'spotlight', spotlight)}
        {action('cover', 'Cover', <PanelTopClose aria-hidden />, focus?.kind === 'cover', cover)}
        {action('magnifier', 'Magnifier', <ScanSearch aria-hidden />, focus?.kind === 'magnifier', magnifier)}
        {FOCUS_TOOLS.map((tool) => (
          <SheetTool key={tool.id} tool={tool} workspace={workspace} />
        ))}
        {action('twoPages', 'Two pages', <BookOpen aria-hidden />, split !== null, twoPages)}
        {uncovered.length > 0 && (
          <IconButton
            data-closes
            label="Cover the answers again"
            caption="Cover again"
            icon={<RotateCcw aria-hidden />}
            className="min-h-14 border-2 border-board-line"
            onClick={() => coverAgain(workspace)}
          />
        )}
      </div>
      {!inClass && <p className="text-sm">Patches can be prepared; the rest is there in class.</p>}
      {inClass && (
        <div role="group" aria-label="Time" className="grid grid-cols-3 gap-1.5">
          {MINUTES.map((minutes) => (
            <IconButton
              key={minutes}
              data-closes
              label={`${minutes} min: start the countdown`}
              icon={
                <span className="text-base font-bold">
                  {minutes} <span className="text-xs font-normal">min</span>
                </span>
              }
              className="min-h-12 border-2 border-board-line"
              onClick={() => {
                if (timer) workspace.classroom!.setScene({ timer: null });
                countdown(workspace, minutes);
              }}
            />
          ))}
          <IconButton
            data-closes
            label="Stopwatch"
            icon={
              <span className="flex items-center gap-2">
                <Timer aria-hidden size={20} /> Stopwatch
              </span>
            }
            className="col-span-3 min-h-12 border-2 border-board-line"
            onClick={() => stopwatch(workspace)}
          />
        </div>
      )}
    </div>
  );
}
