import { BookOpen, Flashlight, PanelTopClose, RotateCcw, ScanSearch, Timer } from 'lucide-react';
import type { ReactNode } from 'react';
import { NO_SCENE } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import { SheetTool } from './SheetTool';
import { toolsIn } from '../tools/tools';
import { IconButton } from '../ui/IconButton';
import type { ActionId } from '../desk/shortcuts';
import type { PageDesk } from '../room/pageDesk';
import {
  countdown,
  cover,
  coverAgain,
  magnifier,
  spotlight,
  stopwatch,
  twoPages,
} from '../focus/focusActions';

/** Ready lengths of a countdown, minutes. */
const MINUTES = [1, 2, 3, 5, 10, 15];

/** Leading the class's eye, and its time. */
export default function FocusSheet({ desk }: { desk: PageDesk }) {
  const { focus, split, timer, uncovered } = useStore(desk.classroom?.scene ?? NO_SCENE);
  const inClass = desk.classroom !== undefined;
  const action = (
    id: ActionId,
    caption: string,
    icon: ReactNode,
    active: boolean,
    onClick: (desk: PageDesk) => void,
  ) => (
    <IconButton
      data-closes
      label={caption}
      caption={caption}
      icon={icon}
      shortcut={desk.room.shortcuts.keyOf(id)}
      active={active}
      disabled={!inClass}
      className="min-h-14 border-2 border-board-line"
      onClick={() => onClick(desk)}
    />
  );
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label="Focus" className="grid grid-cols-3 gap-1.5">
        {action('spotlight', 'Spotlight', <Flashlight aria-hidden />, focus?.kind === 'spotlight', spotlight)}
        {action('cover', 'Cover', <PanelTopClose aria-hidden />, focus?.kind === 'cover', cover)}
        {action('magnifier', 'Magnifier', <ScanSearch aria-hidden />, focus?.kind === 'magnifier', magnifier)}
        {toolsIn('Focus').map((tool) => (
          <SheetTool key={tool} tool={tool} desk={desk} />
        ))}
        {action('twoPages', 'Two pages', <BookOpen aria-hidden />, split !== null, twoPages)}
        {uncovered.length > 0 && (
          <IconButton
            data-closes
            label="Cover the answers again"
            caption="Cover again"
            icon={<RotateCcw aria-hidden />}
            className="min-h-14 border-2 border-board-line"
            onClick={() => coverAgain(desk)}
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
                if (timer) desk.classroom!.setScene({ timer: null });
                countdown(desk, minutes);
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
            onClick={() => stopwatch(desk)}
          />
        </div>
      )}
    </div>
  );
}
