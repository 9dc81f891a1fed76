import { PenOff, Pen } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Place } from '../api/joining';
import { placeIn } from '../api/joining';
import { useStore } from '../live/store';
import { classes } from '../ui/classes';
import { Front } from '../ui/Front';
import { useWorkspace } from '../workspace/useWorkspace';
import type { Workspace } from '../workspace/workspace';
import { WorkspaceView } from './WorkspaceView';

const ShowMenu = lazy(() => import('../screen/ShowMenu').then((module) => ({ default: module.ShowMenu })));

/** The class as a student sees it. */
export default function StudentPage() {
  const { sitting = '' } = useParams();
  const [place] = useState(() => placeIn(sitting));
  return place ? <InClass place={place} /> : <NotIn />;
}

function NotIn() {
  return (
    <Front title="You are not in this class">
      <p className="mb-4">Ask your teacher for the code.</p>
      <Link to="/join" className="font-bold underline">
        Join a class
      </Link>
    </Front>
  );
}

function InClass({ place }: { place: Place }) {
  const { sitting, lesson, token, student } = place;
  const workspace = useWorkspace({ lesson, sitting, token, colour: student.colour });
  if (!workspace) return <p className="p-8 text-lg">Opening the class …</p>;
  return (
    <WorkspaceView
      workspace={workspace}
      corners={(_, side) => <StudentSign workspace={workspace} place={place} side={side} />}
    />
  );
}

interface StudentSignProps {
  workspace: Workspace;
  place: Place;
  side: 'left' | 'right';
}

function StudentSign({ workspace, place: { student }, side }: StudentSignProps) {
  const state = useStore(workspace.classroom!.state);
  return (
    <div
      className={classes(
        'absolute top-2 z-30 flex items-center gap-3 rounded-2xl border-2 border-board-line bg-board px-4 py-2 text-paper shadow-xl',
        side === 'left' ? 'left-2' : 'right-2',
      )}
    >
      <span className="size-4 rounded-full border-2 border-paper" style={{ background: student.colour }} />
      <span className="max-w-40 truncate font-bold">{student.name}</span>
      <span role="status" className="flex items-center gap-1.5">
        {state?.presenters.includes(student.id) && !state.ended && <MayShow workspace={workspace} />}
        {state?.ended ? 'This class has ended' : state?.pensUp ? <PensUp /> : <PensDown />}
      </span>
    </div>
  );
}

/** A student whom the teacher lets may show their screen too. */
function MayShow({ workspace }: { workspace: Workspace }) {
  return (
    <Suspense>
      <ShowMenu workspace={workspace} />
    </Suspense>
  );
}

function PensUp() {
  return (
    <>
      <Pen aria-hidden size={18} /> Pens up
    </>
  );
}

function PensDown() {
  return (
    <>
      <PenOff aria-hidden size={18} /> Pens down
    </>
  );
}
