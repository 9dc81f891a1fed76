import type { Scene } from '@doodla/core';
import type { Store } from '@doodla/core/client';
import { lazy, Suspense, useEffect, useRef } from 'react';
import { useStore } from '../store/useStore';
import { lazyAfter, pageShows, toolsHere } from '../ui/moments';
import { toolOf } from '../tools/tools';
import type { PageDesk } from '../room/pageDesk';
import { Stage } from '../stage/stage';
import { t } from '../words';

/** Not needed before the page shows. */
const TextEditor = lazyAfter(toolsHere, () => import('../typing/TextEditor'));
const PlotEditor = lazyAfter(toolsHere, () => import('../plotting/PlotEditor'));
const KeyPointerCross = lazyAfter(toolsHere, () => import('../stage/KeyPointerCross'));
const AuthorTag = lazyAfter(toolsHere, () => import('../roster/AuthorTag'));
const PenTags = lazyAfter(toolsHere, () => import('../roster/PenTags'));
const FieldsLayer = lazyAfter(toolsHere, () => import('../roster/FieldsLayer'));
const FoundLayer = lazyAfter(toolsHere, () => import('../pages/FoundLayer'));
const IdeasLayer = lazyAfter(toolsHere, () => import('../ideas/IdeasLayer'));
const InstrumentsOverlay = lazyAfter(toolsHere, () => import('../instruments/InstrumentsOverlay'));
const focusOverlay = () => import('../focus/FocusOverlay');
const FocusOverlay = lazy(focusOverlay);
const ReadingsBar = lazyAfter(toolsHere, () => import('../selection/ReadingsBar'));
const MarksOverlay = lazyAfter(pageShows, () => import('../selection/MarksOverlay'));

/** What the class's eye is led to. What a cover hides is not seen before the cover is here. */
function Led({ desk, stage, scene }: { desk: PageDesk; stage: Stage; scene: Store<Scene> }) {
  useStore(scene);
  useStore(desk.pageId);
  useEffect(() => void toolsHere.passed.then(focusOverlay).catch(() => undefined), []); // Asked again when wanted.
  const { focus } = desk;
  if (!focus) return null;
  return (
    <Suspense fallback={focus.kind === 'cover' && <div className="absolute inset-0 bg-board-light" />}>
      <FocusOverlay desk={desk} stage={stage} />
    </Suspense>
  );
}

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
  useStore(desk.room.rules);
  const picking = useStore(desk.picking) !== undefined;
  const offer = useStore(desk.shapeOffer) !== undefined;
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
        aria-label={t('classroom.thePageUseTheTools')}
        className="absolute inset-1 isolate touch-none overflow-hidden select-none focus-visible:outline-3 focus-visible:-outline-offset-4"
        style={{ cursor: picking ? 'cell' : writing ? (toolOf(tool).cursor ?? 'crosshair') : 'grab' }}
      />
      {stage && (
        <div className="pointer-events-none absolute inset-1 overflow-hidden">
          <Suspense>
            <TextEditor desk={desk} stage={stage} />
            <PlotEditor desk={desk} />
            <KeyPointerCross pointer={stage.keyPointer} />
          </Suspense>
          <Suspense>
            <InstrumentsOverlay desk={desk} stage={stage} />
            <MarksOverlay desk={desk} stage={stage} />
          </Suspense>
          {offer && (
            <Suspense>
              <ReadingsBar desk={desk} stage={stage} />
            </Suspense>
          )}
          {desk.classroom && (
            <Suspense>
              <AuthorTag desk={desk} stage={stage} />
              <FieldsLayer desk={desk} stage={stage} />
              <PenTags desk={desk} stage={stage} />
              <IdeasLayer desk={desk} stage={stage} />
            </Suspense>
          )}
          {desk.isTeacher && (
            <Suspense>
              <FoundLayer desk={desk} stage={stage} />
            </Suspense>
          )}
          {desk.classroom && <Led desk={desk} stage={stage} scene={desk.classroom.scene} />}
        </div>
      )}
    </div>
  );
}
