import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { ToolEntry } from './tools';

/** A tool in the sheet of its group, which closes when it is taken. */
export function SheetTool({ tool: { id, name, icon }, desk }: { tool: ToolEntry; desk: PageDesk }) {
  const { tool } = useStore(desk.penCase);
  return (
    <IconButton
      data-closes
      label={name}
      caption={name}
      icon={icon}
      shortcut={desk.room.shortcuts.keyOf(id)}
      active={tool === id}
      disabled={!desk.room.mayTake(id)}
      className="min-h-14 border-2 border-board-line"
      onClick={() => desk.takeTool(id)}
    />
  );
}
