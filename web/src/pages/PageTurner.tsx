import {
  Crop,
  Keyboard,
  LayoutGrid,
  ListTree,
  Maximize,
  MoveHorizontal,
  Presentation,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import { NO_CLASS, NO_SCENE } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { TurnButtons } from './TurnButtons';

interface PageTurnerProps {
  desk: PageDesk;
  stage: Stage;
  side: 'left' | 'right';
  stripOpen: boolean;
  onToggleStrip(): void;
  listOpen: boolean;
  onToggleList(): void;
  onShowHelp(): void;
  onGrab(): void;
  onPresent(): void;
}

/** Turning and enlarging, in the corner away from the tools. */
export default function PageTurner({
  desk,
  stage,
  side,
  stripOpen,
  onToggleStrip,
  listOpen,
  onToggleList,
  onShowHelp,
  onGrab,
  onPresent,
}: PageTurnerProps) {
  const { scale } = useStore(stage.view);
  const fit = useStore(stage.fit);
  // May change with either.
  useStore(desk.classroom?.scene ?? NO_SCENE);
  useStore(desk.classroom?.state ?? NO_CLASS);
  const turns = desk.room.mayTurn;
  return (
    <div
      data-bar="pages"
      className={classes(
        'absolute bottom-2 z-30 flex flex-wrap items-center gap-0.5 rounded-2xl border-2 border-board-line bg-board p-1 text-paper shadow-xl',
        side === 'left' ? 'left-2' : 'right-2',
      )}
    >
      <div
        role="group"
        aria-label="Size"
        // On a phone, two fingers enlarge, and the arrows need the room.
        className={classes('flex items-center', turns && !desk.isTeacher && 'max-sm:hidden')}
      >
        <IconButton
          label="Smaller"
          shortcut={desk.room.shortcuts.keyOf('smaller')}
          icon={<ZoomOut aria-hidden size={20} />}
          onClick={() => stage.zoomOut()}
        />
        <output aria-label="Size of the page" className="w-14 text-center text-sm">
          {Math.round(scale * 100)} %
        </output>
        <IconButton
          label="Larger"
          shortcut={desk.room.shortcuts.keyOf('larger')}
          icon={<ZoomIn aria-hidden size={20} />}
          onClick={() => stage.zoomIn()}
        />
        <IconButton
          label="Fit the page"
          shortcut={desk.room.shortcuts.keyOf('fitPage')}
          active={fit === 'page'}
          icon={<Maximize aria-hidden size={20} />}
          onClick={() => stage.setFit('page')}
        />
        <IconButton
          label="Fit the width"
          shortcut={desk.room.shortcuts.keyOf('fitWidth')}
          active={fit === 'width'}
          icon={<MoveHorizontal aria-hidden size={20} />}
          onClick={() => stage.setFit('width')}
        />
      </div>
      <IconButton
        label="List of what is on the page"
        shortcut={desk.room.shortcuts.keyOf('listMarks')}
        active={listOpen}
        icon={<ListTree aria-hidden size={20} />}
        onClick={onToggleList}
      />
      <IconButton
        label="Grab a picture"
        shortcut={desk.room.shortcuts.keyOf('grab')}
        icon={<Crop aria-hidden size={20} />}
        onClick={onGrab}
      />
      {desk.isTeacher && (
        <IconButton
          label="Present: nothing but the page"
          shortcut={desk.room.shortcuts.keyOf('present')}
          icon={<Presentation aria-hidden size={20} />}
          onClick={onPresent}
        />
      )}
      <IconButton
        label="Keys and size of letters"
        shortcut={desk.room.shortcuts.keyOf('help')}
        icon={<Keyboard aria-hidden size={20} />}
        onClick={onShowHelp}
      />
      {turns && (
        <div className="flex items-center">
          <IconButton
            label="Show all pages"
            active={stripOpen}
            icon={<LayoutGrid aria-hidden size={20} />}
            onClick={onToggleStrip}
          />
          <TurnButtons desk={desk} />
        </div>
      )}
    </div>
  );
}
