import type { LooksMessage } from '@doodla/core';
import { LIVE } from '@doodla/core';
import { Suspense, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Place } from '../api/joining';
import { placeIn } from '../api/joining';
import { Front } from '../ui/Front';
import { lazyAfter, pageShows } from '../ui/moments';
import { useWorkspace } from '../room/useWorkspace';
import type { Workspace } from '../room/workspace';
import { WorkspaceView } from './WorkspaceView';
import { t } from '../words';

/** Icons and the like come after the page. */
const PollSheet = lazyAfter(pageShows, () => import('../asking/PollSheet'));
const StudentSign = lazyAfter(pageShows, () => import('./StudentSign'));

/** The class as a student sees it. */
export default function StudentPage() {
  const { sitting = '' } = useParams();
  const [place] = useState(() => placeIn(sitting));
  return place ? <InClass place={place} /> : <NotIn />;
}

function NotIn({ reason = t('classroom.askYourTeacherForThe') }: { reason?: string }) {
  return (
    <Front title={t('classroom.youAreNotInThis')}>
      <p className="mb-4">{reason}</p>
      <Link to="/join" className="font-bold underline">
        {t('common.joinAClass')}
      </Link>
    </Front>
  );
}

/** Whether the server has sent this student away. */
function useThrownOut(workspace: Workspace | undefined): boolean {
  const [out, setOut] = useState(false);
  useEffect(() => workspace?.room.connection.on(LIVE.out, () => setOut(true)), [workspace]);
  return out;
}

/** Tells the teacher when something else is looked at, also after the connection was lost. */
function useLooks(workspace: Workspace | undefined): void {
  useEffect(() => {
    if (!workspace) return;
    const { connection, sitting = '' } = workspace.room;
    const tell = () => {
      const message: LooksMessage = { sitting, away: document.hidden };
      connection.send(LIVE.looks, message);
    };
    document.addEventListener('visibilitychange', tell);
    const stop = connection.onOnline(tell);
    return () => {
      document.removeEventListener('visibilitychange', tell);
      stop();
    };
  }, [workspace]);
}

function InClass({ place }: { place: Place }) {
  const { sitting, lesson, token, student } = place;
  const workspace = useWorkspace({ lesson, sitting, token, colour: student.colour });
  const out = useThrownOut(workspace);
  useLooks(workspace);
  if (out) return <NotIn reason={t('classroom.yourTeacherHasTakenYou')} />;
  if (!workspace) return <p className="p-8 text-lg">{t('classroom.openingTheClass')}</p>;
  return (
    <WorkspaceView
      workspace={workspace}
      corners={(_, side) => (
        <Suspense>
          <StudentSign desk={workspace.main} place={place} side={side} />
        </Suspense>
      )}
    >
      <Suspense>
        <PollSheet room={workspace.room} />
      </Suspense>
    </WorkspaceView>
  );
}
