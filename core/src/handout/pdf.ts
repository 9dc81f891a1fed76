import fontkit from '@cantoo/fontkit';
import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { compose } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import { boundsOf, isExported } from '../marks/select.js';
import { pageExtent } from '../pages/extent.js';
import type { Page } from '../pages/page.js';
import { MAX_PAGE_SIDE, UNITS_PER_POINT } from '../pages/page.js';
import { paintSurface } from '../paint/paintSurface.js';
import { flattenAnnotations } from './annotations.js';
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
  for (const [i, { page, marks: all }] of pages.entries()) {
    const marks = all.filter(isExported);
    const extent = pageExtent(page, [boundsOf(marks)]);
    const target = await addPage(doc, copies, sources, page, extent);
    const toUserSpace = compose(fromExtent(extent), pageToUserSpace(geometryOf(target)));
    if (marks.length > 0) flattenAnnotations(target);
    const ground = paintSurface(page, extent);
    if (ground.length > 0) await painter.paintItems(target, ground, toUserSpace);
    await painter.paint(target, marks, toUserSpace);
    options.onProgress?.(i + 1, pages.length);
  }
  return doc.save();
}

async function addPage(
  doc: PDFDocument,
  copies: CopiedPages,
  sources: HandoutSources,
  page: Page,
  extent: Rect,
): Promise<PDFPage> {
  if (page.surface.kind === 'web') return addPicturePage(doc, sources, page);
  if (page.surface.kind !== 'pdf') {
    const points = scaleOf(extent) / UNITS_PER_POINT;
    return doc.addPage([extent.width * points, extent.height * points]);
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

/** Makes what is on a page begin at its corner, and no larger than a PDF page can be. */
function fromExtent(extent: Rect): Matrix {
  const scale = scaleOf(extent);
  return [scale, 0, 0, scale, -extent.x * scale, -extent.y * scale];
}

function scaleOf({ width, height }: Rect): number {
  return Math.min(1, MAX_PAGE_SIDE / Math.max(width, height));
}
