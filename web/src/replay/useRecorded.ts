import { useEffect, useState } from 'react';
import type { RecordedWithStops } from '../api/replay';
import { fetchRecorded } from '../api/replay';
import type { Room } from '../room/room';
import { logOf } from '../room/logOf';

interface Fetching {
  recorded?: RecordedWithStops;
  problem?: string;
  /** How much is here, 0 to 1. */
  share: number;
  again(): void;
}

/** What was done in the lesson or class that is open, read once; closing ends the reading. */
export function useRecorded(room: Room): Fetching {
  const [tries, setTries] = useState(0);
  const [state, setState] = useState<Omit<Fetching, 'again'>>({ share: 0 });
  useEffect(() => {
    const ending = new AbortController();
    const { signal } = ending;
    const onProgress = (share: number) => setState({ share });
    fetchRecorded(logOf(room), { token: room.token, signal, onProgress }).then(
      (recorded) => setState({ recorded, share: 1 }),
      (error: Error) => !signal.aborted && setState({ problem: error.message, share: 0 }),
    );
    return () => ending.abort();
  }, [room, tries]);
  return { ...state, again: () => setTries(tries + 1) };
}
