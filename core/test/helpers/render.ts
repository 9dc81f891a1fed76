import type { PDFDocumentProxy } from 'pdfjs-dist';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

interface Drawn {
  canvas: unknown;
  context: { getImageData(x: number, y: number, width: number, height: number): { data: Uint8ClampedArray } };
}

export const opened = (bytes: Uint8Array): Promise<PDFDocumentProxy> =>
  getDocument({ data: bytes.slice(), verbosity: 0 }).promise;

/** How pdf.js shows a page, at so many pixels a point: RGBA, and the colour at a place from the top left, as #rrggbb. */
export async function pixelsOf(bytes: Uint8Array, index = 0, scale = 1) {
  const doc = await opened(bytes);
  const page = await doc.getPage(index + 1);
  const viewport = page.getViewport({ scale });
  const [width, height] = [Math.ceil(viewport.width), Math.ceil(viewport.height)];
  const factory = doc.canvasFactory as { create(width: number, height: number): Drawn };
  const { canvas, context } = factory.create(width, height);
  await page.render({ canvas: canvas as never, canvasContext: context as never, viewport }).promise;
  const { data } = context.getImageData(0, 0, width, height);
  const at = (x: number, y: number) => {
    const place = 4 * (Math.floor(y) * width + Math.floor(x));
    const [r, g, b] = data.subarray(place, place + 3);
    return `#${[r!, g!, b!].map((value) => value.toString(16).padStart(2, '0')).join('')}`;
  };
  return { width, height, data, at };
}

/** How pdf.js shows a page, at one pixel a point: the colour at a place from the top left, as #rrggbb. */
export const shownBy = async (bytes: Uint8Array, index = 0): Promise<(x: number, y: number) => string> =>
  (await pixelsOf(bytes, index)).at;
