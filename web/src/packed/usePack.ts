import { useEffect, useState } from 'react';
import { t } from '../words';
import type { OpenedPack } from './openPack';
import { openPack } from './openPack';
import { readPack } from './packFiles';

interface Opening {
  pack?: OpenedPack;
  /** Why it cannot be played, or not be heard. */
  problem?: string;
}

/** A packed explanation, opened once. */
export function usePack(bytes: Uint8Array): Opening {
  const [opening, setOpening] = useState<Opening>({});
  useEffect(() => {
    let gone = false;
    const tellSilent = () => setOpening((now) => ({ ...now, problem: t('explain.noSound') }));
    const opened = Promise.resolve()
      .then(() => readPack(bytes))
      .then((files) => openPack(files, tellSilent))
      .catch((error: unknown) => {
        // What is in it may be of any kind, and fail anywhere.
        console.error(error);
        throw new Error(t('explain.packUnreadable'));
      });
    opened.then(
      (pack) => !gone && setOpening({ pack }),
      (error: Error) => !gone && setOpening({ problem: error.message }),
    );
    return () => {
      gone = true;
      // What could not be opened was told.
      opened.then((pack) => pack.close()).catch(() => undefined);
    };
  }, [bytes]);
  return opening;
}
