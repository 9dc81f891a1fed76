import type { Rect } from '@doodla/core';
import type { Size } from './view';

/** Largest picture of a page, pixels each way. */
const MAX_SIDE = 8000;

/** A web page, or a part of it, as a picture, for thumbnails and handouts: an SVG that holds it (SVG 2 §12.4), which runs nothing. */
export async function drawWebPage(
  html: string,
  { width, height }: Size,
  scale: number,
  part: Rect = { x: 0, y: 0, width, height },
): Promise<HTMLCanvasElement> {
  const k = Math.min(scale, MAX_SIDE / Math.max(part.width, part.height));
  const document_ = new DOMParser().parseFromString(html, 'text/html');
  const markup = new XMLSerializer().serializeToString(document_.documentElement);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${part.width * k}" height="${part.height * k}" viewBox="${part.x} ${part.y} ${part.width} ${part.height}"><foreignObject width="${width}" height="${height}">${markup}</foreignObject></svg>`;
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(part.width * scale));
  canvas.height = Math.max(1, Math.round(part.height * scale));
  const ctx = canvas.getContext('2d')!;
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  ctx.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas;
}
