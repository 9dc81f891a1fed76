import fontkit from '@cantoo/fontkit';
import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import { parseHex } from '../colour/contrast.js';
import type { Page } from '../pages/page.js';
import { UNITS_PER_POINT } from '../pages/page.js';
import { paintRuling } from '../pages/ruling.js';
import { CopiedPages } from './copiedPages.js';
import { geometryOf } from './originals.js';
import { pageToUserSpace } from './pageTransform.js';
import { PdfPainter } from './pdfPainter.js';
import type { HandoutOptions, HandoutPage, HandoutSources } from './sources.js';

/**
 * The pages with their marks as one PDF: originals taken over as they are (text stays text), ink
 * as filled outlines, typed text in an embedded font, highlighter by the Multiply blend mode
 * (ISO 32000-1 §11.3.5.2). An original that cannot be taken over is put in as a picture.
 */
export async function makePdf(
  pages: readonly HandoutPage[],
  sources: HandoutSources,
  options: HandoutOptions,
): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  doc.setTitle(options.title, { showInWindowTitleBar: true });
  doc.setCreator('Doodla');
  doc.setProducer('Doodla');
  const painter = new PdfPainter(doc, sources);
  const copies = await CopiedPages.from(
    doc,
    sources,
    pages.map(({ page }) => page),
  );
  for (const [i, { page, marks }] of pages.entries()) {
    const target = await addPage(doc, copies, painter, sources, page);
    await painter.paint(target, marks, pageToUserSpace(geometryOf(target)));
    options.onProgress?.(i + 1, pages.length);
  }
  return doc.save();
}

async function addPage(
  doc: PDFDocument,
  copies: CopiedPages,
  painter: PdfPainter,
  sources: HandoutSources,
  page: Page,
): Promise<PDFPage> {
  if (page.surface.kind === 'blank') {
    const blank = doc.addPage([page.width / UNITS_PER_POINT, page.height / UNITS_PER_POINT]);
    blank.drawRectangle({ ...blank.getMediaBox(), color: rgb(...parseHex(page.surface.colour)) });
    await painter.paintItems(blank, paintRuling(page, page.surface), pageToUserSpace(geometryOf(blank)));
    return blank;
  }
  const copy = copies.get(page.id);
  return copy ? doc.addPage(copy) : addPicturePage(doc, sources, page);
}

async function addPicturePage(doc: PDFDocument, sources: HandoutSources, page: Page): Promise<PDFPage> {
  const { bytes } = await sources.pagePicture(page);
  const target = doc.addPage([page.width / UNITS_PER_POINT, page.height / UNITS_PER_POINT]);
  target.drawImage(await doc.embedPng(bytes), target.getMediaBox());
  return target;
}
