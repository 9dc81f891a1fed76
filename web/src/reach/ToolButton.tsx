import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { ToolId } from '../tools/tools';
import { TOOLS } from '../tools/tools';
import { WORK } from '../tools/work';
import type { OpensTo } from './reachState';

interface ToolButtonProps {
  tool: ToolId;
  desk: PageDesk;
  side: OpensTo;
  /** Whether its name is written under it. */
  named?: boolean;
}

/** Takes a tool in hand. */
export function ToolButton({ tool: id, desk, side, named = true }: ToolButtonProps) {
  const { tool } = useStore(desk.penCase);
  useStore(desk.room.rules);
  const mode = useStore(desk.room.mode);
  const may = desk.room.mayTake(id);
  const { name } = TOOLS[id];
  return (
    <IconButton
      label={name}
      {...(named && { caption: name })}
      data-closes
      icon={WORK[id].icon}
      shortcut={desk.room.shortcuts.keyOf(id)}
      active={mode === 'write' && may && tool === id}
      disabled={!may}
      tooltipSide={side}
      className="min-h-11"
      onClick={() => desk.takeTool(id)}
    />
  );
}
