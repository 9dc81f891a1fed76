import { lazy, Suspense, useEffect, useRef } from 'react';
import { useStore } from '../store/store';
import type { ToolId } from '../desk/penCase';
import type { Workspace } from '../workspace/workspace';
import { Stage } from '../stage/stage';

const CURSORS: Partial<Record<ToolId, string>> = { text: 'text', select: 'default', pointer: 'none' };

/** Not needed before the page shows. */
const TextEditor = lazy(() => import('../typing/TextEditor'));
const KeyPointerCross = lazy(() => import('../stage/KeyPointerCross'));
const FocusOverlay = lazy(() => import('../focus/FocusOverlay'));
const SelectionOverlay = lazy(() =>
  import('../selection/SelectionOverlay').then((module) => ({ default: module.SelectionOverlay })),
);

interface StageViewProps {
  workspace: Workspace;
  stage: Stage | undefined;
  onStage(stage: Stage | undefined): void;
}

/** The window onto the page, with a frame in the pen's colour while writing. */
export function StageView({ workspace, stage, onStage }: StageViewProps) {
  const host = useRef<HTMLDivElement>(null);
  const mode = useStore(workspace.mode);
  useStore(workspace.penCase);
  const picking = useStore(workspace.picking) !== undefined;
  const { tool } = workspace.penCase.get();
  const writing = mode === 'write' && workspace.mayTake(tool);

  useEffect(() => {
    const made = new Stage(host.current!, workspace);
    onStage(made);
    return () => {
      onStage(undefined);
      made.destroy();
    };
  }, [workspace, onStage]);

  return (
    <div
      className="absolute inset-0 overflow-hidden bg-board-light"
      style={{
        boxShadow: writing ? `inset 0 0 0 4px ${workspace.penCase.colour ?? 'var(--color-paper)'}` : 'none',
      }}
    >
      <div
        ref={host}
        data-testid="stage"
        role="application"
        aria-label="The page. Use the tools to write on it, the arrow keys to turn it."
        className="absolute inset-1 isolate touch-none overflow-hidden select-none"
        style={{ cursor: picking ? 'cell' : writing ? (CURSORS[tool] ?? 'crosshair') : 'grab' }}
      />
      {stage && (
        <div className="pointer-events-none absolute inset-1 overflow-hidden">
          <Suspense>
            <TextEditor workspace={workspace} stage={stage} />
            <KeyPointerCross pointer={stage.keyPointer} />
            <SelectionOverlay workspace={workspace} stage={stage} />
            {workspace.classroom && <FocusOverlay workspace={workspace} stage={stage} />}
          </Suspense>
        </div>
      )}
    </div>
  );
}
