import type { Locator, Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { ssim } from 'ssim.js';
import { stageState } from './stage';

/** What is drawn of the page on screen (`width` × `height` page units from a height on), cut out of the window. */
export async function pageOnScreen(page: Page, width: number, height: number, from = 0): Promise<PNG> {
  const source = await page
    .locator('canvas[data-layer=dry]')
    .evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const whole = PNG.sync.read(Buffer.from(source.split(',')[1]!, 'base64'));
  const { x, y, scale } = await stageState(page);
  const host = (await page.getByTestId('stage').boundingBox())!;
  const cut = new PNG({ width: Math.floor(width * scale), height: Math.floor(height * scale) });
  PNG.bitblt(
    whole,
    cut,
    Math.round(x - host.x),
    Math.round(y + from * scale - host.y),
    cut.width,
    cut.height,
    0,
    0,
  );
  return cut;
}

/** Structural similarity of two pictures (Wang et al. 2004), 1 for the same; the part that both have. */
export function similarity(a: PNG, b: PNG): number {
  const [width, height] = [Math.min(a.width, b.width), Math.min(a.height, b.height)];
  const same = (picture: PNG) => {
    const cut = new PNG({ width, height });
    PNG.bitblt(picture, cut, 0, 0, width, height, 0, 0);
    return { data: new Uint8ClampedArray(cut.data), width, height };
  };
  return ssim(same(a), same(b)).mssim;
}

/** How many pixels of a canvas are darker than paper. */
export function darkInCanvas(canvas: Locator): Promise<number> {
  return canvas.evaluate((element: HTMLCanvasElement) => {
    const { data } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height);
    let dark = 0;
    for (let i = 0; i < data.length; i += 4)
      // What was never drawn on is black, and cannot be seen.
      if (data[i + 3]! > 0 && Math.min(data[i]!, data[i + 1]!, data[i + 2]!) < 170) dark += 1;
    return dark;
  });
}
