import { useEffect, useState } from 'react';
import { spaceHere } from '../secure/secureOnly';
import { t } from '../words';

/** Bytes that a second of voice takes with what is noted, a little more than it mostly is. */
const BYTES_PER_SECOND = 6000;

/** For how many seconds there is room, in this browser and at the server; undefined until that is known. */
export function useRoomLeft(server: number | undefined): number | undefined {
  const [here, setHere] = useState<number>();
  useEffect(() => {
    // A browser that does not tell has what room it has.
    spaceHere().then(setHere, () => setHere(Infinity));
  }, []);
  if (here === undefined || server === undefined) return undefined;
  return Math.min(here, server) / BYTES_PER_SECOND;
}

/** Says for how long there is room. */
export function roomText(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  if (minutes < 120) return t('explain.minutesLeft', { count: minutes });
  return t('explain.hoursLeft', { count: Math.min(1000, Math.floor(minutes / 60)) });
}
