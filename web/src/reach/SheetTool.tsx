import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { ToolId } from '../tools/tools';
import { TOOLS } from '../tools/tools';
import { WORK } from '../tools/work';

/** A tool in the sheet of its group, which closes when it is taken. */
export function SheetTool({ tool: id, desk }: { tool: ToolId; desk: PageDesk }) {
  const { tool } = useStore(desk.penCase);
  useStore(desk.room.rules);
  const { name } = TOOLS[id];
  return (
    <IconButton
      data-closes
      label={name}
      caption={name}
      icon={WORK[id].icon}
      shortcut={desk.room.shortcuts.keyOf(id)}
      active={tool === id}
      disabled={!desk.room.mayTake(id)}
      className="min-h-14 bg-board-light"
      onClick={() => desk.takeTool(id)}
    />
  );
}
