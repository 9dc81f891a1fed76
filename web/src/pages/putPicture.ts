import type { Page } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';
import { t } from '../words';

/** Pixels per page unit, and the most pixels across. */
const SCALE = 2;
const MAX_WIDTH = 2400;

/** Puts a page, with what is on it, as a movable picture on the shown page. */
export async function putPicture(desk: PageDesk, page: Page): Promise<void> {
  const canvas = document.createElement('canvas');
  try {
    await drawThumbnail(canvas, page, desk, Math.min(MAX_WIDTH, desk.extentOf(page).width * SCALE));
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error(t('pages.thePageCouldNotBe'));
    await desk.pictureActions.place([blob]);
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}
