import type { Mark, PaintItem, PaintOf } from '@doodla/core';
import {
  areFiguresKnown,
  hasFigures,
  inkFill,
  isFilledInk,
  outlineCorners,
  paintMark,
  paintStroke,
  toSvgPath,
} from '@doodla/core';
import { Signal } from '@doodla/core/client';
import { cssFont } from './cssFont';
import { needFace } from './faces';
import type { WetInk } from './preview';

export type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** A paint item with its path built; the steps of the path are let go, since they take far more room. */
type Drawable =
  | (Omit<PaintOf<'fill'>, 'path'> & { path: Path2D })
  | (Omit<PaintOf<'line'>, 'path'> & { path: Path2D })
  | PaintOf<'text'>
  | PaintOf<'picture'>;

/** Pictures that are here, by their ids. */
export interface Pictures {
  get(material: string): ImageBitmap | undefined;
}

/** Marks never change in place, so what is computed of one holds as long as it does. */
let drawables = new WeakMap<Mark, readonly Drawable[]>();

/** Tells that a font has arrived and text has to be drawn anew. */
export const fontArrived = new Signal();

/** Draws a mark into a context whose units are page units. */
export function drawMark(ctx: Context, mark: Mark, pictures?: Pictures): void {
  let drawable = drawables.get(mark);
  if (!drawable) {
    drawable =
      mark.kind === 'stroke' && isFilledInk(mark.style)
        ? [inkDrawable(mark, true)]
        : paintMark(mark).map(drawableOf);
    drawables.set(mark, drawable);
    drawable.forEach(fetchFont);
    fetchFigures(mark);
  }
  for (const each of drawable) draw(ctx, each, pictures);
}

/** Draws ink that is not a mark yet, as much of it as is left; `blended`: the canvas itself is blended with what is under it. */
export function drawInk(ctx: Context, ink: WetInk, blended = false): void {
  const items = isFilledInk(ink.style) ? [inkDrawable(ink, false)] : paintStroke(ink, false).map(drawableOf);
  const { left = 1 } = ink;
  for (const item of items) {
    const faded = 'opacity' in item ? { ...item, opacity: item.opacity * left } : item;
    draw(ctx, blended && faded.kind === 'fill' ? { ...faded, blend: 'normal' } : faded);
  }
}

/** Draws items that belong to no mark, such as rulings. */
export function drawItems(ctx: Context, items: readonly PaintItem[], pictures?: Pictures): void {
  for (const item of items) draw(ctx, drawableOf(item), pictures);
}

function drawableOf(item: PaintItem): Drawable {
  if (item.kind === 'text' || item.kind === 'picture') return item;
  const { path, ...rest } = item;
  return { ...rest, path: new Path2D(toSvgPath(path)) };
}

/** The same as `paintStroke`, built without the steps between: pages hold thousands of strokes. */
function inkDrawable(ink: Pick<WetInk, 'points' | 'style'>, finished: boolean): Drawable {
  const path = new Path2D();
  const ring = outlineCorners(ink, finished);
  const count = ring.length;
  for (let i = 0; count >= 3 && i <= count; i++) {
    const [x, y] = ring[i % count] as [number, number];
    const [nextX, nextY] = ring[(i + 1) % count] as [number, number];
    if (i === 0) path.moveTo((x + nextX) / 2, (y + nextY) / 2);
    else path.quadraticCurveTo(x, y, (x + nextX) / 2, (y + nextY) / 2);
  }
  path.closePath();
  return { ...inkFill(ink.style), path };
}

/** Measures are painted once it is known how, which is fetched when a mark first shows some. */
function fetchFigures(mark: Mark): void {
  if (areFiguresKnown() || !('measures' in mark) || !hasFigures(mark)) return;
  import('@doodla/core/measure').then(
    () => {
      drawables = new WeakMap();
      fontArrived.tell();
    },
    // Without a connection the next drawing of it asks again; the shape itself is there.
    () => drawables.delete(mark),
  );
}

function fetchFont(item: Drawable): void {
  if (item.kind !== 'text' || item.face === 'andika') return;
  needFace(item.face).then(
    (fresh) => {
      if (fresh) drawables = new WeakMap();
      fontArrived.tell();
    },
    // Until it can be fetched, the letters are drawn in the nearest font there is.
    () => undefined,
  );
}

function draw(ctx: Context, item: Drawable, pictures?: Pictures): void {
  switch (item.kind) {
    case 'fill':
      ctx.globalAlpha = item.opacity;
      ctx.globalCompositeOperation = item.blend === 'multiply' ? 'multiply' : 'source-over';
      ctx.fillStyle = item.colour;
      ctx.fill(item.path, item.rule);
      break;
    case 'line':
      ctx.globalAlpha = item.opacity;
      ctx.strokeStyle = item.colour;
      ctx.lineWidth = item.width;
      ctx.lineCap = 'round';
      ctx.lineJoin = 'round';
      ctx.setLineDash(item.dash as number[]);
      ctx.stroke(item.path);
      break;
    case 'text':
      drawText(ctx, item);
      break;
    case 'picture':
      drawPicture(ctx, item, pictures?.get(item.material));
      break;
  }
  ctx.globalAlpha = 1;
  ctx.globalCompositeOperation = 'source-over';
}

function drawText(ctx: Context, item: PaintOf<'text'>): void {
  if (item.matrix) {
    ctx.save();
    ctx.transform(...(item.matrix as [number, number, number, number, number, number]));
  }
  ctx.fillStyle = item.colour;
  ctx.font = item.fallback ? `${item.size}px sans-serif` : cssFont(item.face, item.size);
  // The layout counts plain advance widths, so kerning must not move letters.
  ctx.fontKerning = 'none';
  ctx.textRendering = 'optimizeSpeed';
  ctx.textBaseline = 'alphabetic';
  if (item.fallback) ctx.fillText(item.text, item.x, item.y, item.width);
  else ctx.fillText(item.text, item.x, item.y);
  if (item.matrix) ctx.restore();
}

function drawPicture(ctx: Context, item: PaintOf<'picture'>, bitmap: ImageBitmap | undefined): void {
  ctx.save();
  if (item.matrix) ctx.transform(...(item.matrix as [number, number, number, number, number, number]));
  const { x, y, width, height, crop } = item;
  if (bitmap) {
    ctx.globalAlpha = item.opacity;
    // Made smaller by leaving pixels out, thin lines would be lost.
    ctx.imageSmoothingQuality = 'high';
    const [sx, sy] = [crop.x * bitmap.width, crop.y * bitmap.height];
    ctx.drawImage(
      bitmap,
      sx,
      sy,
      crop.width * bitmap.width,
      crop.height * bitmap.height,
      x,
      y,
      width,
      height,
    );
  } else {
    ctx.fillStyle = '#d9d4c4';
    ctx.fillRect(x, y, width, height);
  }
  ctx.restore();
}
