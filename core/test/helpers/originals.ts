import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument } from '@cantoo/pdf-lib';
import { makePdf } from '../../src/handout/index.js';
import type { HandoutSources, Loss } from '../../src/handout/index.js';
import type { Mark, Page } from '../../src/index.js';
import { andika } from './fonts.js';
import { aPage, aStroke } from './marks.js';

/** A page of a lesson that shows one of a document, by its index. */
export const pdfPage = (index: number): Page =>
  aPage({ id: `page-${index}`, surface: { kind: 'pdf', material: 'm', index } });

/** A handout of some pages of a document, or of others, with marks on the first; `losses` gets what is said to be lost. */
export function handout(
  bytes: Uint8Array,
  pages: readonly (number | Page)[],
  marks: readonly Mark[] = [],
  losses: Loss[] = [],
): Promise<Uint8Array> {
  const sources: Partial<HandoutSources> = {
    pdf: () => Promise.resolve(bytes),
    font: () => Promise.resolve(andika),
  };
  const handed = pages.map((page, i) => ({
    page: typeof page === 'number' ? pdfPage(page) : page,
    marks: i === 0 ? marks : [],
  }));
  const onLoss = (loss: Loss) => losses.push(loss);
  return makePdf(handed, sources as HandoutSources, { title: 'Handout', onLoss });
}

/** A thick stroke from left to right, 100 points from the top. */
export const line = aStroke({
  points: Array.from({ length: 20 }, (_, i) => [20 + i * 18, 133, 0.5, i * 16]).flat(),
  style: { nature: 'marker', colour: '#0000ff', width: 20, opacity: 1 },
});

/** A document of pages of 300 × 200 points. */
export async function withPages(
  count: number,
  change: (doc: PDFDocument, pages: PDFPage[]) => unknown,
): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const pages = Array.from({ length: count }, () => doc.addPage([300, 200]));
  await change(doc, pages);
  return doc.save({ updateFieldAppearances: false });
}
