import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { useBlocker, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { NO_CLASS } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import type { SittingDetail } from '@doodla/core';
import { sittingQuery } from '../api/lessons';
import { keepAwake } from '../present/keepAwake';
import { useWorkspace } from '../room/useWorkspace';
import { AsksNotice } from '../roster/AsksNotice';
import { CLASS_ENTRIES } from './classEntries';
import { LeaveDialog } from './LeaveDialog';
import { CannotOpen } from '../ui/CannotOpen';
import { OpenedEntry } from '../ui/entries';
import { EntryBar, entryToOpen } from '../ui/EntryBar';
import { SavedSign } from './SavedSign';
import { TopBar } from './TopBar';
import { useCoverKeeper } from './useCoverKeeper';
import { WorkspaceView } from './WorkspaceView';
import { t } from '../words';

const RecordingDesk = lazy(() => import('../explain/RecordingDesk'));
const FloatingHelper = lazy(() => import('../present/FloatingHelper'));

/** Navigation state of a class that has just been started: the first thing to do is to let the class in. */
export const JUST_STARTED = 'just-started';
/** … of one that was started only to present without a class. */
export const PRESENTING = 'presenting';

/** A class in session, as its teacher sees it; or one that has ended, to look at. */
export default function TeachPage() {
  const { sitting = '' } = useParams();
  const query = useQuery(sittingQuery(sitting));
  if (query.isError) return <CannotOpen what="class" reason={query.error.message} />;
  return query.data ? <Teaching sitting={query.data} /> : null;
}

function Teaching({ sitting }: { sitting: SittingDetail }) {
  const location = useLocation();
  const [params] = useSearchParams();
  const [startPage] = useState(() => params.get('page'));
  const workspace = useWorkspace({
    lesson: sitting.lessonId,
    sitting: sitting.id,
    ...(startPage !== null && { startPage }),
  });
  const desk = workspace?.main;
  const [sheet, setSheet] = useState<string | undefined>(
    location.state === JUST_STARTED ? 'join' : undefined,
  );
  const client = useQueryClient();
  const navigate = useNavigate();
  const close = () => {
    setSheet(undefined);
    // A reload must not ask again.
    if (location.state === JUST_STARTED) void navigate('.', { replace: true, state: null });
  };

  const [isPresenting] = useState(() => location.state === PRESENTING);
  const askToKeep = useCallback(() => setSheet('end'), []);
  const state = useStore(desk?.classroom?.state ?? NO_CLASS);
  const isOpen = !(state?.ended ?? sitting.endedAt !== null);
  const leaving = useRef(false);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      isOpen && !leaving.current && currentLocation.pathname !== nextLocation.pathname,
  );
  const ended = async () => {
    leaving.current = true;
    await client.invalidateQueries();
    await navigate(`/lesson/${sitting.lessonId}`);
  };
  useEffect(keepAwake, []);
  useCoverKeeper(desk);

  if (!workspace || !desk) return null;
  const { room } = workspace;
  const { title } = sitting;
  const inClass = { room, desk, sitting, title, state, isOpen, onEnded: () => void ended() };
  return (
    <WorkspaceView
      workspace={workspace}
      presentingUntil={isPresenting ? askToKeep : undefined}
      corners={(arrangement, side) => (
        <TopBar
          back={`/lesson/${sitting.lessonId}`}
          backLabel={t('classroom.backToTheLesson')}
          title={sitting.title}
          doing={isOpen ? 'inClass' : 'ended'}
          sign={isOpen && <SavedSign room={desk.room} />}
          arrangement={arrangement}
          side={side}
        >
          <EntryBar entries={CLASS_ENTRIES} props={inClass} onOpen={setSheet} />
        </TopBar>
      )}
    >
      <AsksNotice room={desk.room} />
      <LeaveDialog blocker={blocker} onEnd={askToKeep} />
      <OpenedEntry entry={entryToOpen(CLASS_ENTRIES, sheet)} props={inClass} onClose={close} />
      <Suspense>
        <RecordingDesk desk={desk} />
        <FloatingHelper desk={desk} />
      </Suspense>
    </WorkspaceView>
  );
}
