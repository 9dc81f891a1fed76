import type { Cover, Rect } from '@doodla/core';
import { greyFrame, lineStops } from '@doodla/core/focus';
import { drawThumbnail } from '../room/thumbnail';
import type { PageDesk } from '../room/pageDesk';

/** Width of the picture in which lines are looked for, pixels. */
const LOOK_WIDTH = 420;

/** The sheet drawn back from the top to the end of the next line of what is under it; undefined when none is left. */
export async function nextStop(desk: PageDesk, sheet: Cover): Promise<Cover | undefined> {
  const { page } = desk;
  if (!page) return undefined;
  const extent = desk.extentOf(page);
  const bottom = sheet.y + sheet.height;
  const stop = (await stopsOf(desk, extent)).find((y) => y > sheet.y + 1 && y < bottom - 1);
  return stop === undefined ? undefined : { ...sheet, y: stop, height: bottom - stop };
}

/** Where a sheet over the shown page can stop, page units. */
async function stopsOf(desk: PageDesk, extent: Rect): Promise<number[]> {
  const canvas = document.createElement('canvas');
  await drawThumbnail(canvas, desk.page!, desk, LOOK_WIDTH);
  const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
  const grey = greyFrame(data, canvas.width, canvas.height);
  return lineStops(grey).map((part) => extent.y + part * extent.height);
}
