import { PageWords, UNITS_PER_POINT, wordsOfRuns } from '@doodla/core';
import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The words of a page of a PDF and where they lie. */
export async function wordsOfPdf(page: PDFPageProxy): Promise<PageWords> {
  const { items } = await page.getTextContent();
  const { transform } = page.getViewport({ scale: UNITS_PER_POINT });
  return new PageWords(wordsOfRuns(items, transform));
}
