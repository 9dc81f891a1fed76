import type { ExplanationsReply } from '@doodla/core';
import { useEffect, useState } from 'react';
import { listExplanations } from '../api/explanations';
import { logOf } from '../room/logOf';
import type { Room } from '../room/room';
import { studioOf } from './studio';

/** What there is is looked at again so often, milliseconds: others finish theirs meanwhile. */
const LOOK_MS = 5000;

/** The explanations of what is open, kept up to date; students have no store of queries. */
export function useExplanations(room: Room) {
  const [found, setFound] = useState<ExplanationsReply>();
  const [problem, setProblem] = useState<string>();
  const [looks, setLooks] = useState(0);
  useEffect(() => {
    let gone = false;
    listExplanations(logOf(room), { token: room.token }).then(
      (reply) => {
        if (gone) return;
        setFound(reply);
        setProblem(undefined);
      },
      (error: Error) => !gone && setProblem(error.message),
    );
    const again = () => setLooks((count) => count + 1);
    const timer = setTimeout(again, LOOK_MS);
    const stop = studioOf(room)?.finished.subscribe(again);
    return () => {
      gone = true;
      clearTimeout(timer);
      stop?.();
    };
  }, [room, looks]);
  return { found, problem, again: () => setLooks((count) => count + 1) };
}
