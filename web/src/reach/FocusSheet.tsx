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
import { t } from '../words';

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
      className="min-h-14 bg-board-light"
      onClick={() => onClick(desk)}
    />
  );
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label={t('reach.focus')} className="grid grid-cols-3 gap-1.5">
        {action(
          'spotlight',
          t('common.spotlight'),
          <Flashlight aria-hidden />,
          focus?.kind === 'spotlight',
          spotlight,
        )}
        {action('cover', t('common.cover'), <PanelTopClose aria-hidden />, focus?.kind === 'cover', cover)}
        {action(
          'magnifier',
          t('common.magnifier'),
          <ScanSearch aria-hidden />,
          focus?.kind === 'magnifier',
          magnifier,
        )}
        {toolsIn('Focus').map((tool) => (
          <SheetTool key={tool} tool={tool} desk={desk} />
        ))}
        {action('twoPages', t('reach.twoPages'), <BookOpen aria-hidden />, split !== null, twoPages)}
        {uncovered.length > 0 && (
          <IconButton
            data-closes
            label={t('reach.coverTheAnswersAgain')}
            caption={t('reach.coverAgain')}
            icon={<RotateCcw aria-hidden />}
            className="min-h-14 bg-board-light"
            onClick={() => coverAgain(desk)}
          />
        )}
      </div>
      {!inClass && <p className="text-sm">{t('reach.patchesCanBePreparedThe')}</p>}
      {inClass && (
        <div role="group" aria-label={t('reach.time')} className="grid grid-cols-3 gap-1.5">
          {MINUTES.map((minutes) => (
            <IconButton
              key={minutes}
              data-closes
              label={t('reach.minStartTheCountdown', { minutes })}
              icon={
                <span className="text-base font-bold">
                  {minutes} <span className="text-xs font-normal">{t('reach.min')}</span>
                </span>
              }
              className="min-h-12 bg-board-light"
              onClick={() => {
                if (timer) desk.classroom!.setScene({ timer: null });
                countdown(desk, minutes);
              }}
            />
          ))}
          <IconButton
            data-closes
            label={t('common.stopwatch')}
            icon={
              <span className="flex items-center gap-2">
                <Timer aria-hidden size={20} /> {t('common.stopwatch')}
              </span>
            }
            className="col-span-3 min-h-12 bg-board-light"
            onClick={() => stopwatch(desk)}
          />
        </div>
      )}
    </div>
  );
}
