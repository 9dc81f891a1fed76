import { isBoundless } from '@doodla/core';
import type { ClassState, Scene } from '@doodla/core';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import type { FunctionComponent, ReactNode } from 'react';
import { Store } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import { Presenting } from '../present/presenting';
import type { MediaFrame } from '../media/mediaFrame';
import type { Stage } from '../stage/stage';
import { ConnectionSign } from './ConnectionSign';
import { Panes } from './Panes';
import type { Arrangement } from '../canvas/view';
import { Reach } from '../reach/reachState';
import { besidePages } from '../reach/stripRoom';
import { lazyAfter, pageShows } from '../ui/moments';
import { windowRoom } from '../ui/windowRoom';
import { picturesIn, useClipboard } from '../room/useClipboard';
import { useShortcuts } from './useShortcuts';
import type { PageDesk } from '../room/pageDesk';
import type { Workspace } from '../room/workspace';
import { t } from '../words';

/** The page shows first, its tools a moment later. */
const afterPage = <Props,>(load: () => Promise<{ default: FunctionComponent<Props> }>) =>
  lazyAfter(pageShows, load);

const ReachPanel = afterPage(async () => ({ default: (await import('../reach/ReachPanel')).ReachPanel }));

const DraftsNotice = afterPage(() => import('../pages/DraftsNotice'));
const CopySign = afterPage(() => import('../roster/CopySign'));
const IdeasBar = afterPage(() => import('../ideas/IdeasBar'));
const TalkPanel = afterPage(() => import('../talk/TalkPanel'));
const SeatsView = lazy(() => import('./SeatsView'));
const ShownSign = afterPage(() => import('../roster/ShownSign'));
const PageReading = afterPage(() => import('../pages/PageReading'));
const Announcer = afterPage(() => import('../pages/Announcer'));
const EdgeTouch = afterPage(() => import('../present/EdgeTouch'));
const SlimTurner = afterPage(() => import('../present/SlimTurner'));
const TimerPanel = afterPage(() => import('../focus/TimerPanel'));
const MediaBar = afterPage(() => import('../media/MediaBar'));
const OtherHand = afterPage(() => import('../reach/OtherHand'));
const ShortcutsDialog = afterPage(() => import('./ShortcutsDialog'));
const MarkList = afterPage(() => import('../pages/MarkList'));
const GrabDialog = afterPage(() => import('../handout/GrabDialog'));
const ShelfPanel = afterPage(() => import('../shelf/ShelfPanel'));
const ScreenBar = afterPage(() => import('../sharing/ScreenBar'));
const NotesPanel = afterPage(() => import('../pages/NotesPanel'));
const DocumentDialog = afterPage(() => import('../material/DocumentDialog'));
const TurnHint = afterPage(() => import('../pages/TurnHint'));
const PageTurner = afterPage(() => import('../pages/PageTurner'));
const PageMap = afterPage(() => import('../pages/PageMap'));
const PageStrip = afterPage(() => import('../pages/PageStrip'));

const NO_CLASS = new Store<ClassState | undefined>(undefined);
const NO_RECORDING = new Store<MediaFrame | undefined>(undefined);

interface WorkspaceViewProps {
  workspace: Workspace;
  /** Of a lesson between classes; a class knows its own. */
  lessonTitle?: string;
  /** What stands in the upper corners; on `side` there is room for a column. */
  corners(arrangement: Arrangement, side: 'left' | 'right'): ReactNode;
  children?: ReactNode;
  /** Starts, or stays, with nothing but the page and its tools. */
  slim?: boolean;
  /** Presents in another way than here; where it is given, the key and button for it do that. */
  onPresent?: (() => void) | undefined;
  /** Presents from the start, and is told when that is over. */
  presentingUntil?: (() => void) | undefined;
}

/** The page with everything round it. */
export function WorkspaceView({
  workspace,
  lessonTitle,
  corners,
  children,
  slim = false,
  onPresent,
  presentingUntil,
}: WorkspaceViewProps) {
  const { main: desk } = workspace;
  const [reach] = useState(() => new Reach());
  const [presenting] = useState(() => new Presenting(presentingUntil !== undefined));
  useEffect(() => presenting.onStop(presentingUntil), [presenting, presentingUntil]);
  const [stage, setStage] = useState<Stage>();
  const [stripOpen, setStripOpen] = useState(false);
  const { side, folded } = useStore(reach);
  const handRoom = useStore(windowRoom);
  const { on: isPresenting, toolsHidden } = useStore(presenting);
  usePageAlone(isPresenting, stage, reach);
  const active = useStore(workspace.active);
  const { ready } = useStore(desk.target.status);
  useStore(desk.pages);
  useStore(desk.pageId);
  const { page } = desk;
  const boundless = page?.surface.kind === 'blank' && isBoundless(page);
  const recording = useStore(stage?.recording ?? NO_RECORDING);
  const away = side === 'left' ? 'right' : 'left';
  const [dropped, setDropped] = useState<readonly File[]>([]);
  const screenShown = useScreenShown(desk);
  const hasTimer = useHasTimer(desk);
  const [helpOpen, setHelpOpen] = useState(false);
  const [grabbing, setGrabbing] = useState(false);
  const [listOpen, setListOpen] = useState(false);
  const { shelf } = desk.room;
  const shelfOpen = useStore(shelf) !== undefined;
  const screen = useMemo(
    () => ({
      swapSide: reach.swapSide,
      toggleFold: reach.toggleFold,
      showHelp: () => setHelpOpen(true),
      toggleList: () => {
        // Both lie at the same side.
        shelf.set(undefined);
        setListOpen((open) => !open);
      },
      grab: () => setGrabbing(true),
      present: onPresent ?? presenting.toggle,
      hideTools: presenting.toggleTools,
    }),
    [reach, presenting, onPresent, shelf],
  );
  useShortcuts(active, stage, screen);
  useClipboard(active);
  const bare = slim || isPresenting;
  const isDisplay = desk.room.device === 'display';
  return (
    <main
      className="group/view fixed inset-0"
      data-view
      data-presenting={isPresenting || undefined}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const box = stage?.host.getBoundingClientRect();
        const at = box && stage?.toPage(event.clientX - box.left, event.clientY - box.top);
        const files = [...event.dataTransfer.files];
        void desk.pictureActions.place(picturesIn(event.dataTransfer.files), at);
        if (desk.isTeacher && !desk.room.device)
          void import('../material/documents').then(({ pagesIn }) => setDropped(pagesIn(files)));
      }}
    >
      {/* First, since they stand above all others: the order of stops follows the screen. */}
      {stage && (!isPresenting || !desk.isTeacher) && <Corners stage={stage} side={away} corners={corners} />}
      <Panes workspace={workspace} stage={stage} onStage={setStage} toolSide={toolsHidden ? 'none' : side} />
      {!ready && (
        <p className="pointer-events-none absolute inset-0 grid place-items-center text-xl text-paper">
          {t('classroom.openingThePages')}
        </p>
      )}
      {stripOpen && stage && (!bare || isDisplay) && (
        <Suspense>
          <PageStrip desk={desk} stage={stage} side={away} />
        </Suspense>
      )}
      {boundless && stage && !bare && (
        <Suspense>
          <PageMap desk={desk} stage={stage} side={away} />
        </Suspense>
      )}
      <Suspense>
        {toolsHidden ? (
          <EdgeTouch onTouch={presenting.toggleTools} />
        ) : (
          <ReachPanel desk={active} reach={reach} />
        )}
        <OtherHand desk={desk} side={away} />
        {desk.isTeacher && !bare && <NotesPanel desk={desk} />}
        {dropped.length > 0 && (
          <DocumentDialog desk={desk} dropped={dropped} onClose={() => setDropped([])} />
        )}
        {screenShown && <ScreenBar desk={desk} side={side} />}
        {recording && page?.surface.kind === 'media' && (
          <MediaBar desk={desk} recording={recording} side={side} isRaised={screenShown} />
        )}
        {hasTimer && <TimerPanel room={desk.room} />}
      </Suspense>
      {stage && !toolsHidden && (
        <Suspense>
          {bare ? (
            desk.isTeacher && (
              <SlimTurner
                desk={active}
                side={away}
                {...(!slim && { presenting })}
                {...(isDisplay && {
                  display: {
                    stage,
                    stripOpen,
                    onToggleStrip: () => setStripOpen(!stripOpen),
                    onGrab: () => setGrabbing(true),
                  },
                })}
              />
            )
          ) : (
            <PageTurner
              onShowHelp={screen.showHelp}
              onToggleList={screen.toggleList}
              onGrab={screen.grab}
              onPresent={onPresent ?? presenting.start}
              listOpen={listOpen && !shelfOpen}
              shelfOpen={shelfOpen}
              onToggleShelf={() => shelf.set(shelfOpen ? undefined : 'own')}
              desk={desk}
              stage={stage}
              side={away}
              overStrip={handRoom.compact && !folded && !besidePages(handRoom)}
              stripOpen={stripOpen}
              onToggleStrip={() => setStripOpen(!stripOpen)}
            />
          )}
        </Suspense>
      )}
      <Suspense>
        {grabbing && <GrabDialog desk={active} onClose={() => setGrabbing(false)} />}
        {helpOpen && <ShortcutsDialog room={desk.room} onClose={() => setHelpOpen(false)} />}
        {stage && shelfOpen && <ShelfPanel desk={active} stage={stage} side={away} besideStrip={stripOpen} />}
        {listOpen && !shelfOpen && <MarkList desk={desk} side={away} onClose={() => setListOpen(false)} />}
      </Suspense>
      <Suspense>
        <PageReading desk={desk} />
        <Announcer desk={desk} lesson={lessonTitle} />
        <ShownSign room={desk.room} />
        {desk.classroom && <CopySign desk={desk} />}
        {stage && desk.room.chat && !desk.room.isLooking && (
          <TalkPanel room={desk.room} stage={stage} side={away} />
        )}
        {desk.classroom && !desk.room.isLooking && <IdeasBar desk={desk} />}
        {!bare && <TurnHint desk={desk} />}
        <DraftsNotice desk={desk} />
      </Suspense>
      {desk.classroom && desk.isTeacher && (
        <Suspense>
          <SeatsView desk={desk} />
        </Suspense>
      )}
      <ConnectionSign desk={desk} />
      {children}
    </main>
  );
}

/** While presenting, the page is as large as the window, and the tools wait as one button over it. */
function usePageAlone(isPresenting: boolean, stage: Stage | undefined, reach: Reach): void {
  useEffect(() => (isPresenting ? reach.foldForNow() : undefined), [isPresenting, reach]);
  useEffect(() => stage?.setAlone(isPresenting), [isPresenting, stage]);
}

/** Whether a screen is shown to the class now. */
function useScreenShown({ classroom }: PageDesk): boolean {
  const state = useStore(classroom?.state ?? NO_CLASS);
  return (state?.screen ?? null) !== null;
}

const NO_SCENE = new Store<Scene | undefined>(undefined);

function useHasTimer({ classroom }: PageDesk): boolean {
  const scene = useStore<Scene | undefined>((classroom?.scene as Store<Scene | undefined>) ?? NO_SCENE);
  return (scene?.timer ?? null) !== null;
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
