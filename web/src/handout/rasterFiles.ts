import type { Mark } from '@doodla/core';
import { paintSurface } from '@doodla/core';
import type { MadeFile } from '@doodla/core/formats';
import { extentOf, facesOn, hasOriginal, pageName, picturesOn } from '@doodla/core/formats';
import type { HandoutPage } from '@doodla/core/handout';
import { footOf, paintFoot } from '@doodla/core/handout';
import { drawItems, drawMark } from '../canvas/markPainter';
import { needFace } from '../canvas/faces';

/** What pages are drawn from. */
export interface RasterSources {
  /** What something else has to draw under the marks, `scale` pixels to a page unit. */
  pageBitmap(page: HandoutPage['page'], scale: number): Promise<ImageBitmap>;
  picture(material: string): Promise<ImageBitmap | undefined>;
}

interface RasterOptions {
  type: 'png' | 'webp';
  scale: number;
  foot?: string | undefined;
  onProgress(done: number, total: number): void;
}

/** Largest side of a picture, pixels; larger ones many programs cannot open. */
const MAX_SIDE = 8192;
/** Nobody sees the difference to a picture that is exactly right. */
const QUALITY = 0.92;

/** Each page with its marks as a picture, one after the other, so that only one of them is held at a time. */
export async function* rasterFiles(
  pages: readonly HandoutPage[],
  sources: RasterSources,
  { type, scale, foot, onProgress }: RasterOptions,
): AsyncGenerator<MadeFile> {
  for (const [i, handed] of pages.entries()) {
    const words = foot === undefined ? undefined : footOf(foot, i + 1, pages.length);
    const canvas = await drawn(handed, sources, scale, words);
    const blob = await canvas.convertToBlob({ type: `image/${type}`, quality: QUALITY });
    canvas.width = 0;
    yield { name: pageName(i, pages.length, type), bytes: new Uint8Array(await blob.arrayBuffer()) };
    onProgress(i + 1, pages.length);
  }
}

async function drawn(
  handed: HandoutPage,
  sources: RasterSources,
  wanted: number,
  foot: string | undefined,
): Promise<OffscreenCanvas> {
  const { page, marks } = handed;
  for (const face of await facesOn(handed)) await needFace(face);
  const extent = extentOf(handed);
  const scale = Math.min(wanted, MAX_SIDE / Math.max(extent.width, extent.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(extent.width * scale)),
    Math.max(1, Math.round(extent.height * scale)),
  );
  const ctx = canvas.getContext('2d')!;
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  if (hasOriginal(handed)) {
    const bitmap = await sources.pageBitmap(page, scale);
    ctx.drawImage(bitmap, 0, 0, page.width * scale, page.height * scale);
    bitmap.close();
  }
  ctx.setTransform(scale, 0, 0, scale, -extent.x * scale, -extent.y * scale);
  const bitmaps = new Map<string, ImageBitmap | undefined>();
  for (const material of picturesOn(handed)) bitmaps.set(material, await sources.picture(material));
  const pictures = { get: (material: string) => bitmaps.get(material) };
  drawItems(ctx, paintSurface(page, extent), pictures);
  for (const mark of marks as Mark[]) drawMark(ctx, mark, pictures);
  if (foot !== undefined) {
    await needFace('andika');
    drawItems(ctx, paintFoot(extent, foot));
  }
  for (const bitmap of bitmaps.values()) bitmap?.close();
  return canvas;
}
