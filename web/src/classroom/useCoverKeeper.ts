import { useEffect } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { CoverKeeper, drawCover } from './coverKeeper';

/** Keeps the picture on the start page as long as a teacher works on a lesson or class. */
export function useCoverKeeper(desk: PageDesk | undefined): void {
  useEffect(() => {
    if (!desk) return;
    const keeper = new CoverKeeper(desk, () => drawCover(desk));
    return () => keeper.stop();
  }, [desk]);
}
