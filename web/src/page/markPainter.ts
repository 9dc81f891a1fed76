import type { Mark, PaintItem } from '@doodla/core';
import { paintMark, toSvgPath } from '@doodla/core';

type Drawable = { item: PaintItem; path?: Path2D };

/** Marks never change in place, so what is computed of one holds as long as it does. */
const drawables = new WeakMap<Mark, Drawable[]>();

/** Draws a mark into a context whose units are page units. */
export function drawMark(
  ctx: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  mark: Mark,
): void {
  let drawable = drawables.get(mark);
  if (!drawable) {
    drawable = paintMark(mark).map((item) => ({
      item,
      ...(item.kind === 'fill' && { path: new Path2D(toSvgPath(item.path)) }),
    }));
    drawables.set(mark, drawable);
  }
  for (const { item, path } of drawable) drawItem(ctx, item, path);
}

function drawItem(
  ctx: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  item: PaintItem,
  path?: Path2D,
): void {
  ctx.fillStyle = item.colour;
  if (item.kind === 'fill') {
    ctx.globalAlpha = item.opacity;
    ctx.globalCompositeOperation = item.blend === 'multiply' ? 'multiply' : 'source-over';
    ctx.fill(path!);
    ctx.globalAlpha = 1;
    ctx.globalCompositeOperation = 'source-over';
    return;
  }
  ctx.font = `${item.size}px ${item.fallback ? 'sans-serif' : 'Andika'}`;
  // The layout counts plain advance widths, so kerning must not move letters.
  ctx.fontKerning = 'none';
  ctx.textBaseline = 'alphabetic';
  if (item.fallback) ctx.fillText(item.text, item.x, item.y, item.width);
  else ctx.fillText(item.text, item.x, item.y);
}
