import { lazy, Suspense, useEffect, useRef } from 'react';
import { useStore } from '../store/useStore';
import { toolOf } from '../tools/tools';
import type { PageDesk } from '../room/pageDesk';
import { Stage } from '../stage/stage';

/** Not needed before the page shows. */
const TextEditor = lazy(() => import('../typing/TextEditor'));
const KeyPointerCross = lazy(() => import('../stage/KeyPointerCross'));
const FocusOverlay = lazy(() => import('../focus/FocusOverlay'));
const SelectionOverlay = lazy(() =>
  import('../selection/SelectionOverlay').then((module) => ({ default: module.SelectionOverlay })),
);

interface StageViewProps {
  desk: PageDesk;
  stage: Stage | undefined;
  onStage(stage: Stage | undefined): void;
}

/** The window onto the page, with a frame in the pen's colour while writing. */
export function StageView({ desk, stage, onStage }: StageViewProps) {
  const host = useRef<HTMLDivElement>(null);
  const mode = useStore(desk.room.mode);
  useStore(desk.penCase);
  const picking = useStore(desk.picking) !== undefined;
  const { tool } = desk.penCase.get();
  const writing = mode === 'write' && desk.room.mayTake(tool);

  useEffect(() => {
    const made = new Stage(host.current!, desk);
    onStage(made);
    return () => {
      onStage(undefined);
      made.destroy();
    };
  }, [desk, onStage]);

  return (
    <div
      className="absolute inset-0 overflow-hidden bg-board-light"
      style={{
        boxShadow: writing ? `inset 0 0 0 4px ${desk.penCase.colour ?? 'var(--color-paper)'}` : 'none',
      }}
    >
      <div
        ref={host}
        data-testid="stage"
        role="application"
        tabIndex={0}
        aria-label="The page. Use the tools to write on it, the arrow keys to turn it."
        className="absolute inset-1 isolate touch-none overflow-hidden select-none focus-visible:outline-3 focus-visible:-outline-offset-4"
        style={{ cursor: picking ? 'cell' : writing ? (toolOf(tool).cursor ?? 'crosshair') : 'grab' }}
      />
      {stage && (
        <div className="pointer-events-none absolute inset-1 overflow-hidden">
          <Suspense>
            <TextEditor desk={desk} stage={stage} />
            <KeyPointerCross pointer={stage.keyPointer} />
            <SelectionOverlay desk={desk} stage={stage} />
            {desk.classroom && <FocusOverlay desk={desk} stage={stage} />}
          </Suspense>
        </div>
      )}
    </div>
  );
}
