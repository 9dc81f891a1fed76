import type { Page } from '@doodla/core';
import { toast } from 'sonner';
import { bringWebPage } from '../api/lessons';
import type { Room } from '../room/room';

/** Gets a web page again as it is now; marked words are found again on it. */
export async function fetchAnew(room: Room, page: Page): Promise<void> {
  if (page.surface.kind !== 'web') return;
  try {
    const source = await room.webPages.source(page.surface.material);
    if (source === undefined) return void toast('This web page came as a file. Bring the file in again.');
    await bringWebPage(room.lesson, { address: source, replace: page.id, sitting: room.sitting });
    toast('The web page is as it is now.');
  } catch (error) {
    toast.error((error as Error).message);
  }
}
