import { Minimize } from 'lucide-react';
import { TurnButtons } from '../page/TurnButtons';
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
  return (
    <div
      data-bar="pages"
      className={classes(
        'absolute bottom-2 z-30 flex items-center rounded-2xl border-2 border-board-line bg-board/90 p-0.5 text-paper shadow-xl',
        side === 'left' ? 'left-2' : 'right-2',
      )}
    >
      <TurnButtons workspace={workspace} />
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
