import { useState } from 'react';
import type { DevicePlace } from '@doodla/core';
import type { ClassClient } from '@doodla/core/client';
import { devicePlace, leaveAsDevice } from '../api/devices';
import { WorkspaceView } from '../classroom/WorkspaceView';
import { RecordingSign } from '../explain/RecordingSign';
import { useWorkspace } from '../room/useWorkspace';
import type { Workspace } from '../room/workspace';
import { useStore } from '../store/useStore';
import { EnterDevice } from './EnterDevice';
import { useStay } from './useStay';
import { t } from '../words';

/** A classroom display: shows what the class sees, and writes as the teacher. */
export default function DisplayPage() {
  const [place, setPlace] = useState(() => devicePlace('display'));
  const [reason, setReason] = useState<string>();
  const leave = (why: string) => {
    leaveAsDevice('display');
    setReason(why);
    setPlace(undefined);
  };
  if (!place)
    return <EnterDevice title={t('common.classroomDisplay')} reason={reason} onEntered={setPlace} />;
  return <Showing place={place} onLeave={leave} />;
}

function Showing({ place, onLeave }: { place: DevicePlace; onLeave(why: string): void }) {
  const { lesson, sitting, token } = place;
  const workspace = useWorkspace({ lesson, sitting, token, device: 'display' });
  if (!workspace) return null;
  return <Display workspace={workspace} onLeave={onLeave} />;
}

function Display({ workspace, onLeave }: { workspace: Workspace; onLeave(why: string): void }) {
  const why = useStay(workspace.room);
  if (why !== undefined) return <Left why={why} onAgain={() => onLeave(why)} />;
  return (
    <WorkspaceView
      workspace={workspace}
      slim
      corners={() => <Light classroom={workspace.room.classroom!} />}
    />
  );
}

/** The sign that the class is being recorded. */
function Light({ classroom }: { classroom: ClassClient }) {
  if (!useStore(classroom.state)?.recording) return null;
  return (
    <div className="absolute end-2 top-2 z-30 rounded-2xl bg-board px-3 py-2 text-paper shadow-xl">
      <RecordingSign told={false} />
    </div>
  );
}

/** Says why the display shows nothing any more. */
function Left({ why, onAgain }: { why: string; onAgain(): void }) {
  return (
    <main className="grid min-h-dvh place-items-center bg-board p-8 text-center text-paper">
      <div>
        <h1 className="mb-4 text-4xl font-bold">{why}</h1>
        <button
          type="button"
          onClick={onAgain}
          className="min-h-14 rounded-xl border-2 border-paper bg-paper px-6 text-xl font-bold text-board"
        >
          {t('devices.typeANewCode')}
        </button>
      </div>
    </main>
  );
}
