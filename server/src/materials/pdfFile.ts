import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { PDFDocumentLoadingTask, PDFPageProxy } from 'pdfjs-dist';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { createCanvas } from '@napi-rs/canvas';
import type { PictureWish } from './pdfTask.js';

const assets = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** Begins to open a PDF; for processes that read strangers' files alone. */
export async function loadPdf(path: string): Promise<PDFDocumentLoadingTask> {
  return getDocument({
    data: new Uint8Array(await readFile(path)),
    cMapUrl: join(assets, 'cmaps/'),
    standardFontDataUrl: join(assets, 'standard_fonts/'),
    wasmUrl: join(assets, 'wasm/'),
    isEvalSupported: false,
    verbosity: VerbosityLevel.ERRORS,
  });
}

/** Of 100: letters stay crisp, and a page of them is some 50 kB. */
const WEBP_QUALITY = 72;

/** A page as a picture, `width` pixels wide and `tallest` times that high at most. */
export async function drawPdfPage(
  page: PDFPageProxy,
  { width, tallest, type }: Omit<PictureWish, 'index'>,
): Promise<Buffer> {
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = createCanvas(
    Math.ceil(viewport.width),
    Math.ceil(Math.min(viewport.height, width * tallest)),
  );
  await page.render({ canvas: canvas as never, viewport }).promise;
  return type === 'png' ? canvas.encode('png') : canvas.encode('webp', WEBP_QUALITY);
}
