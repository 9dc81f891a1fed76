import { lazy, Suspense, useEffect, useState } from 'react';
import { useStore } from '../store/useStore';
import type { Stage } from '../stage/stage';
import { windowRoom } from '../ui/windowRoom';
import { StageView } from './StageView';
import type { Workspace } from '../room/workspace';

const Divider = lazy(() => import('./Divider'));

interface PanesProps {
  workspace: Workspace;
  stage: Stage | undefined;
  onStage(stage: Stage | undefined): void;
  toolSide: 'left' | 'right' | 'none';
}

/** The page, or two beside each other with a divider that moves. */
export function Panes({ workspace, stage, onStage, toolSide }: PanesProps) {
  const { main } = workspace;
  const side = useStore(workspace.side);
  const { compact } = useStore(windowRoom);
  const [sideStage, setSideStage] = useState<Stage>();
  const two = side !== undefined && !compact;
  const at = two ? (main.classroom?.scene.get().split?.at ?? 0.5) : 1;
  useEffect(
    () => stage?.setToolSide(two && toolSide === 'right' ? 'none' : toolSide, two),
    [stage, two, toolSide],
  );
  useEffect(
    () => sideStage?.setToolSide(toolSide === 'left' ? 'none' : toolSide, true),
    [sideStage, toolSide],
  );
  return (
    <>
      <div
        className="absolute inset-y-0 left-0"
        style={{ width: `${at * 100}%` }}
        onPointerDownCapture={() => workspace.active.set(main)}
      >
        <StageView desk={main} stage={stage} onStage={onStage} />
      </div>
      {two && (
        <>
          <div
            className="absolute inset-y-0 right-0"
            style={{ width: `${(1 - at) * 100}%` }}
            onPointerDownCapture={() => workspace.active.set(side)}
          >
            <StageView desk={side} stage={sideStage} onStage={setSideStage} />
          </div>
          <Suspense>
            <Divider workspace={workspace} at={at} />
          </Suspense>
        </>
      )}
    </>
  );
}
