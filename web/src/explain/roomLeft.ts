import { useEffect, useState } from 'react';
import { spaceHere } from '../secure/secureOnly';
import { t } from '../words';

/** Bytes that a second takes, a little more than it mostly is: of voice with what is noted, of what moves, of a small picture. */
const VOICE_BYTES = 6000;
const MOVING_BYTES = 130_000;
const FACE_BYTES = 20_000;

interface Recorded {
  /** Whether something moves under the marks. */
  moving: boolean;
  face: boolean;
}

/** For how many seconds there is room, in this browser and at the server; undefined until that is known. */
export function useRoomLeft(server: number | undefined, { moving, face }: Recorded): number | undefined {
  const [here, setHere] = useState<number>();
  useEffect(() => {
    // A browser that does not tell has what room it has.
    spaceHere().then(setHere, () => setHere(Infinity));
  }, []);
  if (here === undefined || server === undefined) return undefined;
  return Math.min(here, server) / (VOICE_BYTES + (moving ? MOVING_BYTES : 0) + (face ? FACE_BYTES : 0));
}

/** Says for how long there is room. */
export function roomText(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  if (minutes < 120) return t('explain.minutesLeft', { count: minutes });
  return t('explain.hoursLeft', { count: Math.min(1000, Math.floor(minutes / 60)) });
}
