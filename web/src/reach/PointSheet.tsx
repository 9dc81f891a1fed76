import { useStore } from '../store/store';
import { Slider } from '../ui/Slider';
import type { Workspace } from '../workspace/workspace';
import { SheetTool } from './SheetTool';
import { POINT_TOOLS } from './tools';

/** Pointing: a dot that leaves nothing behind, and ink that fades. */
export default function PointSheet({ workspace }: { workspace: Workspace }) {
  const { wispSeconds } = useStore(workspace.penCase);
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label="Point" className="grid grid-cols-2 gap-1.5">
        {POINT_TOOLS.map((tool) => (
          <SheetTool key={tool.id} tool={tool} workspace={workspace} />
        ))}
      </div>
      <Slider
        label="A wisp fades after"
        unit="s"
        min={1}
        max={15}
        step={1}
        value={wispSeconds}
        onChange={(seconds) => workspace.penCase.patch({ wispSeconds: seconds })}
      />
    </div>
  );
}
