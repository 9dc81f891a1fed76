import type { Mark, Rect } from '@doodla/core';
import { useEffect, useRef } from 'react';
import { drawMark } from '../canvas/markPainter';
import type { PictureCache } from '../pictures/pictureCache';

interface ThingPictureProps {
  marks: readonly Mark[];
  /** What of the page plane is drawn. */
  rect: Rect;
  /** CSS pixels to a page unit. */
  scale: number;
  pictures: PictureCache;
}

/** Marks as a picture of their own. */
export function ThingPicture({ marks, rect, scale, pictures }: ThingPictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const { current } = canvas;
    const ctx = current?.getContext('2d');
    if (!current || !ctx) return;
    const fine = scale * window.devicePixelRatio;
    current.width = Math.max(1, Math.ceil(rect.width * fine));
    current.height = Math.max(1, Math.ceil(rect.height * fine));
    ctx.setTransform(fine, 0, 0, fine, -rect.x * fine, -rect.y * fine);
    for (const mark of marks) drawMark(ctx, mark, pictures);
  });
  return <canvas ref={canvas} aria-hidden className="pointer-events-none absolute inset-0 size-full" />;
}
