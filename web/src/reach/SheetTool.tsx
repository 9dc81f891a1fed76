import { useStore } from '../store/store';
import { IconButton } from '../ui/IconButton';
import type { Workspace } from '../workspace/workspace';
import type { ToolEntry } from './tools';

/** A tool in the sheet of its group, which closes when it is taken. */
export function SheetTool({
  tool: { id, name, icon },
  workspace,
}: {
  tool: ToolEntry;
  workspace: Workspace;
}) {
  const { tool } = useStore(workspace.penCase);
  return (
    <IconButton
      data-closes
      label={name}
      caption={name}
      icon={icon}
      shortcut={workspace.shortcuts.keyOf(id)}
      active={tool === id}
      disabled={!workspace.mayTake(id)}
      className="min-h-14 border-2 border-board-line"
      onClick={() => workspace.takeTool(id)}
    />
  );
}
