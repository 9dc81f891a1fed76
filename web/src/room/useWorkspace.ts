import { useEffect, useState } from 'react';
import type { PageDesk } from './pageDesk';
import type { RoomOptions } from './room';
import { limitWaiting, waitForNothing } from '../ui/moments';
import { Workspace } from './workspace';
import { t } from '../words';

/** So long a second press means to take the offer, milliseconds. */
const OFFER_MS = 5000;

/** Offers a page like the last one; asking for the next page again takes the offer. */
function offerPage(desk: PageDesk): () => void {
  let offeredAt = -Infinity;
  return () => {
    const now = performance.now();
    const isAgain = now - offeredAt < OFFER_MS;
    offeredAt = isAgain ? -Infinity : now;
    void import('sonner').then(({ toast }) => {
      if (isAgain) {
        toast.dismiss('last page');
        return desk.addPageLikeThis();
      }
      return toast(t('room.thisIsTheLastPage'), {
        id: 'last page',
        duration: OFFER_MS,
        action: { label: t('room.aNewPageLikeIt'), onClick: () => desk.addPageLikeThis() },
      });
    });
  };
}

/** A workspace that lives as long as the component; undefined until it is made. */
export function useWorkspace(options: RoomOptions): Workspace | undefined {
  const [workspace, setWorkspace] = useState<Workspace>();
  const key = JSON.stringify(options);
  useEffect(() => {
    const settings = JSON.parse(key) as RoomOptions;
    if (settings.token === undefined) {
      waitForNothing();
      // Most pages are of PDFs: what draws them comes while the connection is made.
      void import('../canvas/pdfEngine');
    } else limitWaiting();
    const made = new Workspace(settings);
    made.room.problems.subscribe(
      (message) => void import('sonner').then(({ toast }) => toast.error(message, { id: message })),
    );
    made.room.notices.subscribe(
      (message) => void import('sonner').then(({ toast }) => toast(message, { id: message })),
    );
    made.main.atEnd.subscribe(offerPage(made.main));
    setWorkspace(made);
    return () => {
      setWorkspace(undefined);
      made.close();
    };
  }, [key]);
  return workspace;
}
