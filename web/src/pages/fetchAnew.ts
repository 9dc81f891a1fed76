import type { Page } from '@doodla/core';
import { toast } from 'sonner';
import { bringWebPage } from '../api/lessons';
import type { Room } from '../room/room';
import { t } from '../words';

/** Gets a web page again as it is now; marked words are found again on it. */
export async function fetchAnew(room: Room, page: Page): Promise<void> {
  if (page.surface.kind !== 'web') return;
  try {
    const source = await room.webPages.source(page.surface.material);
    if (source === undefined) return void toast(t('pages.thisWebPageCameAs'));
    await bringWebPage(room.lesson, { address: source, replace: page.id, sitting: room.sitting });
    toast(t('pages.theWebPageIsAs'));
  } catch (error) {
    toast.error((error as Error).message);
  }
}
