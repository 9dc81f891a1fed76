import type { SharedLinkSummary } from '@doodla/core';
import { makeLink } from '../api/links';
import type { PageDesk } from '../room/pageDesk';

/** What is chosen of a link beside its pages. */
export interface LinkChoice {
  /** Empty for none. */
  password: string;
  /** The last day on which it shows something, as a date field says it; empty for no end. */
  until: string;
  mayDownload: boolean;
}

export const USUAL_LINK: LinkChoice = { password: '', until: '', mayDownload: true };

interface Shared {
  title: string;
  /** Pages, which are one HTML file, or a packed explanation. */
  shown: Blob;
  /** The explanation that is packed. */
  explanation?: string;
  link: LinkChoice;
}

/** Makes a link that shows pages or plays an explanation. Throws with a sentence. */
export function shareLink(
  desk: PageDesk,
  { title, shown, explanation, link }: Shared,
): Promise<SharedLinkSummary> {
  const { password, until, mayDownload } = link;
  return makeLink(
    desk.room.lesson,
    {
      title: title.slice(0, 200),
      mayDownload,
      ...(desk.sitting !== undefined && { sitting: desk.sitting }),
      ...(explanation !== undefined && { explanation }),
      ...(password !== '' && { password }),
      ...(until !== '' && { endsAt: endOf(until) }),
    },
    shown,
  );
}

/** The end of a day, in this browser's time. */
function endOf(day: string): number {
  return new Date(`${day}T23:59:59`).getTime();
}
