import { growRect } from '@doodla/core';
import { copyPng } from '../secure/clipboard';
import type { PageDesk } from '../room/pageDesk';
import { drawMark } from '../canvas/markPainter';

/** Pixels per page unit. */
const SCALE = 2;
const MAX_SIDE = 4000;
const MARGIN = 6;

/** Puts a picture of the selected marks on the system's clipboard. */
export async function copyPicture(desk: PageDesk): Promise<void> {
  const bounds = desk.selection.bounds();
  if (!bounds) return;
  const area = growRect(bounds, MARGIN);
  const scale = Math.min(SCALE, MAX_SIDE / Math.max(area.width, area.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(area.width * scale);
  canvas.height = Math.ceil(area.height * scale);
  const ctx = canvas.getContext('2d')!;
  ctx.setTransform(scale, 0, 0, scale, -area.x * scale, -area.y * scale);
  for (const mark of desk.selection.marks()) drawMark(ctx, mark, desk.pictures);
  const png = new Promise<Blob>((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/png');
  });
  try {
    await copyPng(png);
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}
