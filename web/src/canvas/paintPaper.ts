import type { Page, Rect } from '@doodla/core';
import { paintSurface } from '@doodla/core';
import type { Canvas } from './blankCanvas';
import { contextOf } from './blankCanvas';
import type { Pictures } from './markPainter';
import { drawItems } from './markPainter';
import { needRuling } from './rulings';

/** Draws the paper of a page that Doodla draws by itself onto a canvas as wide as `extent`. Its pictures have to be here. */
export async function paintPaper(
  canvas: Canvas,
  page: Page,
  extent: Rect,
  pictures: Pictures,
): Promise<void> {
  await needRuling(page.surface);
  const scale = canvas.width / extent.width;
  const ctx = contextOf(canvas);
  ctx.setTransform(scale, 0, 0, scale, -extent.x * scale, -extent.y * scale);
  drawItems(ctx, paintSurface(page, extent), pictures);
}
