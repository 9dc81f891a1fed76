import type { PDFEmbeddedPage, PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { compose, inverse } from '../geometry/matrix.js';
import { FORMATS, UNITS_PER_POINT } from '../pages/page.js';
import { flattenAnnotations } from './annotations.js';
import { ContentWriter } from './contentWriter.js';
import { geometryOf } from './originals.js';
import { prepareContents } from './pageContents.js';
import { pageToUserSpace } from './pageTransform.js';

/** How many pages a sheet of paper can show, and how they lie on it. */
export const PER_SHEET = {
  2: { columns: 2, rows: 1 },
  4: { columns: 2, rows: 2 },
  6: { columns: 3, rows: 2 },
  8: { columns: 4, rows: 2 },
} as const;
export type PerSheet = keyof typeof PER_SHEET;

/** A4, points; the longer side across. */
const PAPER = { width: FORMATS.a4.width / UNITS_PER_POINT, height: FORMATS.a4.height / UNITS_PER_POINT };
/** Room round the pages and between them, points. */
const GAP = 18;
const LINE_GRAY = 0.75;

/**
 * Several pages of a PDF on each sheet of A4, as large as they fit there, each with a thin line round it. What readers act
 * on, such as links and fields, is only looks there.
 */
export async function onSheets(bytes: Uint8Array, perSheet: PerSheet): Promise<Uint8Array> {
  const source = await PDFDocument.load(bytes, { updateMetadata: false });
  const pages = source.getPages();
  for (const page of pages) {
    prepareContents(page);
    flattenAnnotations(page, () => true);
  }
  const doc = await PDFDocument.create();
  doc.setTitle(source.getTitle() ?? '', { showInWindowTitleBar: true });
  doc.setCreator('Doodla');
  doc.setProducer('Doodla');
  const boxes = pages.map((page) => edges(geometryOf(page).box));
  const embedded = await doc.embedPages(pages, boxes);
  const { columns, rows } = PER_SHEET[perSheet];
  const cell = {
    width: (PAPER.width - GAP * (columns + 1)) / columns,
    height: (PAPER.height - GAP * (rows + 1)) / rows,
  };
  for (let first = 0; first < pages.length; first += perSheet) {
    const sheet = doc.addPage([PAPER.width, PAPER.height]);
    const writer = new ContentWriter();
    for (let i = first; i < Math.min(first + perSheet, pages.length); i++) {
      const [column, row] = [(i - first) % columns, Math.floor((i - first) / columns)];
      const x = GAP + column * (cell.width + GAP);
      const top = PAPER.height - GAP - row * (cell.height + GAP);
      place(sheet, writer, pages[i]!, embedded[i]!, { x, top, ...cell });
    }
    const stream = doc.context.stream(writer.finish(), { Filter: 'FlateDecode' });
    sheet.node.addContentStream(doc.context.register(stream));
  }
  return doc.save({ updateFieldAppearances: false });
}

interface Cell {
  x: number;
  /** Its upper edge, up from the foot of the sheet. */
  top: number;
  width: number;
  height: number;
}

function place(
  sheet: PDFPage,
  writer: ContentWriter,
  page: PDFPage,
  embedded: PDFEmbeddedPage,
  { x, top, width, height }: Cell,
): void {
  const geometry = geometryOf(page);
  const [left, bottom, right, upper] = geometry.box;
  const isAcross = Math.abs(geometry.rotate % 180) === 90;
  const scaleOfUnit = UNITS_PER_POINT * geometry.userUnit;
  const [across, down] = [(right - left) * scaleOfUnit, (upper - bottom) * scaleOfUnit];
  const own = isAcross ? { width: down, height: across } : { width: across, height: down };
  const scale = Math.min(width / own.width, height / own.height);
  const at = { x: x + (width - own.width * scale) / 2, top: top - (height - own.height * scale) / 2 };
  const onSheet: Matrix = [scale, 0, 0, -scale, at.x, at.top];
  writer.save();
  writer.transform(compose(inverse(pageToUserSpace(geometry)), onSheet));
  writer.write('Do', String(sheet.node.newXObject('Page', embedded.ref)));
  writer.restore();
  writer.write('G', LINE_GRAY);
  writer.write('w', 0.5);
  writer.write('re', at.x, at.top - own.height * scale, own.width * scale, own.height * scale);
  writer.write('S');
}

function edges([left, bottom, right, top]: readonly [number, number, number, number]) {
  return { left, bottom, right, top };
}
