import type { PDFDocumentProxy } from 'pdfjs-dist';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

interface Drawn {
  canvas: unknown;
  context: { getImageData(x: number, y: number, width: number, height: number): { data: Uint8ClampedArray } };
}

export const opened = (bytes: Uint8Array): Promise<PDFDocumentProxy> =>
  getDocument({ data: bytes.slice(), verbosity: 0 }).promise;

/** How pdf.js shows a page, at one pixel a point: the colour at a place from the top left, as #rrggbb. */
export async function shownBy(bytes: Uint8Array, index = 0): Promise<(x: number, y: number) => string> {
  const doc = await opened(bytes);
  const page = await doc.getPage(index + 1);
  const viewport = page.getViewport({ scale: 1 });
  const factory = doc.canvasFactory as { create(width: number, height: number): Drawn };
  const { canvas, context } = factory.create(Math.ceil(viewport.width), Math.ceil(viewport.height));
  await page.render({ canvas: canvas as never, canvasContext: context as never, viewport }).promise;
  return (x, y) => {
    const [r, g, b] = context.getImageData(x, y, 1, 1).data;
    return `#${[r!, g!, b!].map((value) => value.toString(16).padStart(2, '0')).join('')}`;
  };
}
