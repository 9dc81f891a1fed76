import { CloudOff } from 'lucide-react';
import { useStore } from '../live/store';
import type { Workspace } from '../workspace/workspace';

/** A quiet sign while the connection is away or work is still to be sent. */
export default function ConnectionSign({ workspace }: { workspace: Workspace }) {
  const connection = useStore(workspace.connection.status);
  const { waiting } = useStore(workspace.target.status);
  if (connection === 'online' || connection === 'connecting') return null;
  return (
    <p
      role="status"
      className="pointer-events-none absolute top-16 left-1/2 z-30 flex -translate-x-1/2 items-center gap-2 rounded-full border-2 border-board bg-chalk px-4 py-1.5 font-bold text-board"
    >
      <CloudOff aria-hidden size={18} />
      {connection === 'rejected'
        ? 'You are no longer signed in. Sign in again in another tab; your work waits here.'
        : `No connection. Go on; your work is kept here and sent later${waiting > 0 ? ` (${waiting} waiting)` : ''}.`}
    </p>
  );
}
