import { isBoundless } from '@doodla/core';
import type { ClassState } from '@doodla/core';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import { Store, useStore } from '../live/store';
import { isDocument } from '../material/documents';
import { Announcer } from '../page/Announcer';
import type { Stage } from '../page/stage';
import { StageView } from '../page/StageView';
import type { Arrangement } from '../page/view';
import { Reach } from '../reach/reachState';
import { picturesIn, useClipboard } from '../workspace/useClipboard';
import { useShortcuts } from '../workspace/useShortcuts';
import type { Workspace } from '../workspace/workspace';
import { ConnectionSign } from './ConnectionSign';

/** The page shows first, its tools a moment later. */
const ReachPanel = lazy(() =>
  import('../reach/ReachPanel').then((module) => ({ default: module.ReachPanel })),
);

const OtherHand = lazy(() => import('../reach/OtherHand'));
const ShortcutsDialog = lazy(() => import('./ShortcutsDialog'));
const MarkList = lazy(() => import('../page/MarkList'));
const GrabDialog = lazy(() => import('../grab/GrabDialog'));
const ScreenBar = lazy(() => import('../screen/ScreenBar'));
const NotesPanel = lazy(() => import('../page/NotesPanel'));
const DocumentDialog = lazy(() => import('../material/DocumentDialog'));
const PageTurner = lazy(() => import('../page/PageTurner'));
const PageMap = lazy(() => import('../page/PageMap'));
const PageStrip = lazy(() => import('../page/PageStrip'));

const NO_CLASS = new Store<ClassState | undefined>(undefined);

interface WorkspaceViewProps {
  workspace: Workspace;
  /** What stands in the upper corners; on `side` there is room for a column. */
  corners(arrangement: Arrangement, side: 'left' | 'right'): ReactNode;
  children?: ReactNode;
}

/** The page with everything round it. */
export function WorkspaceView({ workspace, corners, children }: WorkspaceViewProps) {
  const [reach] = useState(() => new Reach());
  const [stage, setStage] = useState<Stage>();
  const [stripOpen, setStripOpen] = useState(false);
  const { side } = useStore(reach);
  const { ready } = useStore(workspace.lessonLog.status);
  useStore(workspace.pages);
  useStore(workspace.pageId);
  const { page } = workspace;
  const boundless = page?.surface.kind === 'blank' && isBoundless(page);
  const away = side === 'left' ? 'right' : 'left';
  const [dropped, setDropped] = useState<readonly File[]>([]);
  const screenShown = useScreenShown(workspace);
  const [helpOpen, setHelpOpen] = useState(false);
  const [grabbing, setGrabbing] = useState(false);
  const [listOpen, setListOpen] = useState(false);
  const screen = useMemo(
    () => ({
      swapSide: reach.swapSide,
      toggleFold: reach.toggleFold,
      showHelp: () => setHelpOpen(true),
      toggleList: () => setListOpen((open) => !open),
      grab: () => setGrabbing(true),
    }),
    [reach],
  );
  useShortcuts(workspace, stage, screen);
  useClipboard(workspace);
  useEffect(() => stage?.setToolSide(side), [stage, side]);
  return (
    <div
      className="fixed inset-0"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const box = stage?.host.getBoundingClientRect();
        const at = box && stage?.toPage(event.clientX - box.left, event.clientY - box.top);
        const files = [...event.dataTransfer.files];
        if (workspace.isTeacher) setDropped(files.filter(isDocument));
        void workspace.pictureActions.place(picturesIn(event.dataTransfer.files), at);
      }}
    >
      <StageView workspace={workspace} stage={stage} onStage={setStage} />
      {!ready && (
        <p className="absolute inset-0 grid place-items-center text-xl text-paper">Opening the pages …</p>
      )}
      {stripOpen && stage && (
        <Suspense>
          <PageStrip workspace={workspace} stage={stage} side={away} />
        </Suspense>
      )}
      {boundless && stage && (
        <Suspense>
          <PageMap workspace={workspace} stage={stage} side={away} />
        </Suspense>
      )}
      <Suspense>
        <ReachPanel workspace={workspace} reach={reach} />
        <OtherHand workspace={workspace} side={away} />
        {workspace.isTeacher && <NotesPanel workspace={workspace} />}
        {dropped.length > 0 && (
          <DocumentDialog workspace={workspace} dropped={dropped} onClose={() => setDropped([])} />
        )}
        {screenShown && <ScreenBar workspace={workspace} side={side} />}
      </Suspense>
      {stage && (
        <>
          <Suspense>
            <PageTurner
              onShowHelp={screen.showHelp}
              onToggleList={screen.toggleList}
              onGrab={screen.grab}
              listOpen={listOpen}
              workspace={workspace}
              stage={stage}
              side={away}
              stripOpen={stripOpen}
              onToggleStrip={() => setStripOpen(!stripOpen)}
            />
          </Suspense>
          <Corners stage={stage} side={away} corners={corners} />
        </>
      )}
      <Suspense>
        {grabbing && <GrabDialog workspace={workspace} onClose={() => setGrabbing(false)} />}
        {helpOpen && <ShortcutsDialog workspace={workspace} onClose={() => setHelpOpen(false)} />}
        {listOpen && <MarkList workspace={workspace} side={away} onClose={() => setListOpen(false)} />}
      </Suspense>
      <Announcer workspace={workspace} />
      <ConnectionSign workspace={workspace} />
      {children}
    </div>
  );
}

/** Whether a screen is shown to the class now. */
function useScreenShown({ classroom }: Workspace): boolean {
  const state = useStore(classroom?.state ?? NO_CLASS);
  return (state?.screen ?? null) !== null;
}

function Corners({
  stage,
  side,
  corners,
}: {
  stage: Stage;
  side: 'left' | 'right';
  corners: WorkspaceViewProps['corners'];
}) {
  return corners(useStore(stage.arrangement), side);
}
