import type { Page, Rect } from '@doodla/core';
import { isExported, paintSurface, paneOf, placeOf } from '@doodla/core';
import { drawItems, drawMark } from '../canvas/markPainter';
import { drawThumbnail } from '../room/thumbnail';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** Pixels per page unit, and the most pixels across. */
const SCALE = 2;
const MAX_WIDTH = 2400;

/** A picture of the shown page as it is now, of a live screen too, with or without what is written on it. */
export async function grabPicture(desk: PageDesk, withMarks: boolean): Promise<HTMLCanvasElement> {
  const canvas = document.createElement('canvas');
  const { page, screen } = desk;
  if (!page) throw new Error(t('handout.thereIsNoPageTo'));
  if (page.surface.kind === 'media') return grabFrame(desk, page, withMarks);
  const live = screen.state.get();
  if (live?.page !== page.id) {
    const width = Math.min(MAX_WIDTH, desk.extentOf(page).width * SCALE);
    await drawThumbnail(canvas, page, desk, width, () => withMarks);
    return canvas;
  }
  canvas.width = screen.canvas.width;
  canvas.height = screen.canvas.height;
  const ctx = canvas.getContext('2d')!;
  ctx.drawImage(screen.canvas, 0, 0);
  const k = canvas.width / page.width;
  for (const layer of withMarks ? desk.layers : [])
    for (const mark of layer.on(page.id).all().filter(isExported)) {
      const { x, y, scale } = placeOf(live.panes, paneOf(mark, live.panes));
      ctx.setTransform(k * scale, 0, 0, k * scale, x * k, y * k);
      drawMark(ctx, mark, desk.pictures);
    }
  return canvas;
}

/** The frame of a recording that is seen now. */
function grabFrame(desk: PageDesk, page: Page, withMarks: boolean): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  const k = Math.min(SCALE, MAX_WIDTH / page.width);
  [canvas.width, canvas.height] = [Math.round(page.width * k), Math.round(page.height * k)];
  const ctx = canvas.getContext('2d')!;
  ctx.scale(k, k);
  drawItems(ctx, paintSurface(page), desk.pictures);
  desk.glass.get()?.drawRecording(ctx);
  for (const layer of withMarks ? desk.layers : [])
    for (const mark of layer.on(page.id).all().filter(isExported)) drawMark(ctx, mark, desk.pictures);
  return canvas;
}

/** The chosen part of a picture, each side 0 to 1, as PNG. */
export function cutPicture(picture: HTMLCanvasElement, part: Rect): Promise<Blob> {
  const [x, y] = [part.x * picture.width, part.y * picture.height];
  const [width, height] = [part.width * picture.width, part.height * picture.height];
  const cut = document.createElement('canvas');
  cut.width = Math.max(1, Math.round(width));
  cut.height = Math.max(1, Math.round(height));
  cut.getContext('2d')!.drawImage(picture, x, y, width, height, 0, 0, cut.width, cut.height);
  return new Promise((resolve, reject) => {
    cut.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error(t('handout.thePictureCouldNotBe')))),
      'image/png',
    );
  });
}
