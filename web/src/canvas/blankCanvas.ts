import type { Context } from './markPainter';

/** What can be drawn on, in a page and in a worker. */
export type Canvas = HTMLCanvasElement | OffscreenCanvas;

/** An empty canvas, of the page where there is one, else of the worker; pixels. */
export function blankCanvas(width: number, height: number): Canvas {
  if (typeof document === 'undefined') return new OffscreenCanvas(width, height);
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  return canvas;
}

export function contextOf(canvas: Canvas): Context {
  return (canvas as OffscreenCanvas).getContext('2d')!;
}

export function copyOf(picture: Canvas): Canvas {
  const copy = blankCanvas(picture.width, picture.height);
  contextOf(copy).drawImage(picture, 0, 0);
  return copy;
}
