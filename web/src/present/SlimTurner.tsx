import { Columns2, Crop, Grid2x2, LayoutGrid, Maximize, Minimize, Pen, PenOff } from 'lucide-react';
import { NO_CLASS } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import type { Stage } from '../stage/stage';
import { TurnButtons } from '../pages/TurnButtons';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { Presenting } from './presenting';
import { pensLabel } from '../ui/pensLabel';
import { t } from '../words';

interface SlimTurnerProps {
  desk: PageDesk;
  side: 'left' | 'right';
  /** Left out where there is no way back to something fuller. */
  presenting?: Presenting;
  /** On a classroom display: what its teacher needs while standing there. */
  display?: DisplayActions;
}

export interface DisplayActions {
  stage: Stage;
  stripOpen: boolean;
  onToggleStrip(): void;
  onGrab(): void;
}

/** The page turner while presenting: two arrows and the number; on a display with a few things more. */
export default function SlimTurner({ desk, side, presenting, display }: SlimTurnerProps) {
  return (
    <div
      data-bar="pages"
      className={classes(
        'absolute bottom-2 z-30 flex items-center rounded-2xl bg-board/90 forced-colors:border-2 p-0.5 text-paper shadow-xl',
        side === 'left' ? 'left-2' : 'right-2',
      )}
    >
      {display && <AtTheBoard desk={desk} {...display} />}
      <TurnButtons desk={desk} />
      {presenting && (
        <IconButton
          label={t('present.stopPresenting')}
          shortcut={desk.room.shortcuts.keyOf('present')}
          icon={<Minimize aria-hidden size={20} />}
          onClick={presenting.stop}
        />
      )}
    </div>
  );
}

/** Pens, the whole page, all pages and a picture of it, within reach of one hand. */
function AtTheBoard({ desk, stage, stripOpen, onToggleStrip, onGrab }: DisplayActions & { desk: PageDesk }) {
  const state = useStore(desk.classroom?.state ?? NO_CLASS);
  const fit = useStore(stage.fit);
  const pensUp = state?.pensUp ?? false;
  return (
    <>
      {!state?.ended && (
        <IconButton
          label={pensLabel(pensUp)}
          active={pensUp}
          icon={pensUp ? <Pen aria-hidden /> : <PenOff aria-hidden />}
          onClick={() => desk.classroom?.setPens(!pensUp)}
        />
      )}
      <IconButton
        label={t('common.fitThePage')}
        active={fit === 'page'}
        icon={<Maximize aria-hidden />}
        onClick={() => stage.setFit('page')}
      />
      <IconButton
        label={t('common.showAllPages')}
        active={stripOpen}
        icon={<LayoutGrid aria-hidden />}
        onClick={onToggleStrip}
      />
      {!state?.ended && (
        <>
          <IconButton
            label={t('roster.twoAtScreen')}
            icon={<Columns2 aria-hidden />}
            onClick={() => desk.room.seats.set(2)}
          />
          <IconButton
            label={t('roster.fourAtScreen')}
            icon={<Grid2x2 aria-hidden />}
            onClick={() => desk.room.seats.set(4)}
          />
        </>
      )}
      <IconButton label={t('common.grabAPicture')} icon={<Crop aria-hidden />} onClick={onGrab} />
    </>
  );
}
