import type { Mark, Rect } from '@doodla/core';
import { byOrder } from '@doodla/core';
import type { Canvas } from './blankCanvas';
import { contextOf } from './blankCanvas';
import type { Pictures } from './markPainter';
import { drawMark } from './markPainter';

/** Draws marks over a picture of their page, which shows a part of the plane in page units. */
export function paintMarks(
  picture: Canvas,
  { x, y, width }: Rect,
  marks: readonly Mark[],
  pictures: Pictures,
): void {
  const scale = picture.width / width;
  const ctx = contextOf(picture);
  ctx.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
  for (const mark of [...marks].sort(byOrder)) drawMark(ctx, mark, pictures);
}
