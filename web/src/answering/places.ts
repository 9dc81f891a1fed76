import type { Rect } from '@doodla/core';

/** Smaller than this nothing can be touched (WCAG 2.2, 2.5.8); CSS pixels. */
const LEAST = 24;

/** Where something is on a page that is shown so many times its size. */
export const sizeOf = ({ x, y, width, height }: Rect, scale: number) => ({
  left: x * scale,
  top: y * scale,
  width: width * scale,
  height: height * scale,
});

/** The same, large enough to be touched. */
export function placeOf({ x, y, width, height }: Rect, scale: number) {
  const [w, h] = [Math.max(LEAST, width * scale), Math.max(LEAST, height * scale)];
  return {
    left: x * scale - (w - width * scale) / 2,
    top: y * scale - (h - height * scale) / 2,
    width: w,
    height: h,
  };
}
