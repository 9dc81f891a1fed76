import { Check, CloudOff, Ellipsis } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { t } from '../words';

/** Saving that takes less is not worth a word, milliseconds. */
const QUICK_MS = 700;

const STATES = {
  saved: { Icon: Check, label: 'classroom.saved' },
  saving: { Icon: Ellipsis, label: 'classroom.saving' },
  waiting: { Icon: CloudOff, label: 'classroom.waitingToBeSaved' },
} as const;

/** A quiet sign that what is written is with the server, or on its way there. */
export function SavedSign({ room }: { room: Pick<Room, 'connection' | 'target'> }) {
  const connection = useStore(room.connection.status);
  const { waiting } = useStore(room.target.status);
  const slow = useLasting(waiting > 0);
  const state = waiting === 0 ? 'saved' : connection !== 'online' ? 'waiting' : slow ? 'saving' : 'saved';
  const { Icon, label } = STATES[state];
  return (
    <span
      data-saved={state}
      className="flex items-center gap-1 text-sm leading-5 whitespace-nowrap text-paper/80"
    >
      <Icon aria-hidden size={16} />
      <span className="compact:sr-only">{t(label)}</span>
    </span>
  );
}

/** Whether something is so and has been for a while. */
function useLasting(so: boolean): boolean {
  const [lasts, setLasts] = useState(false);
  useEffect(() => {
    if (!so) return;
    const timer = setTimeout(() => setLasts(true), QUICK_MS);
    return () => {
      clearTimeout(timer);
      setLasts(false);
    };
  }, [so]);
  return so && lasts;
}
