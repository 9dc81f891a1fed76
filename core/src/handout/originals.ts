import fontkit from '@cantoo/fontkit';
import type { PDFField, PDFFont, PDFPage } from '@cantoo/pdf-lib';
import {
  PDFDict,
  PDFDocument,
  PDFDropdown,
  PDFName,
  PDFNumber,
  PDFOptionList,
  PDFTextField,
} from '@cantoo/pdf-lib';
import type { PdfPageGeometry } from './pageTransform.js';

/**
 * Opens a stored original to take pages from. `font` is asked for where a field's words need letters that the
 * standard fonts lack. Throws where the file is too broken for that.
 */
export async function openOriginal(bytes: Uint8Array, font: () => Promise<Uint8Array>): Promise<PDFDocument> {
  const doc = await PDFDocument.load(bytes, { password: '', updateMetadata: false });
  if (doc.catalog.lookupMaybe(PDFName.of('AcroForm'), PDFDict)) await flattenForm(doc, font);
  return doc;
}

/** Makes filled-in fields part of the page, so that they do not lie over what was written on it. */
async function flattenForm(doc: PDFDocument, font: () => Promise<Uint8Array>): Promise<void> {
  try {
    const form = doc.getForm();
    form.deleteXFA();
    let wide: PDFFont | undefined;
    const narrow = form.getDefaultFont();
    const known = new Set(narrow.getCharacterSet());
    for (const field of form.getFields().filter((each) => each.needsAppearancesUpdate())) {
      const isKnown = [...wordsIn(field)].every((letter) => known.has(letter.codePointAt(0)!));
      if (!isKnown && !wide) {
        doc.registerFontkit(fontkit);
        wide = await doc.embedFont(await font(), { subset: true });
      }
      // A field that says what it holds but not how it looks is drawn, as readers do.
      field.defaultUpdateAppearances(isKnown ? narrow : wide!);
    }
    await doc.flush();
    form.flatten({ updateFieldAppearances: false });
  } catch {
    // A form that breaks the rules stays as it is: its fields are then drawn by the reader.
  }
}

function wordsIn(field: PDFField): string {
  if (field instanceof PDFTextField) return field.getText() ?? '';
  if (field instanceof PDFDropdown || field instanceof PDFOptionList) return field.getSelected().join('');
  return '';
}

/** The geometry that decides where page units lie; boxes that do not overlap count as the media box. */
export function geometryOf(page: PDFPage): PdfPageGeometry {
  const media = corners(page.getMediaBox());
  const crop = corners(page.getCropBox());
  const box = [
    Math.max(media[0], crop[0]),
    Math.max(media[1], crop[1]),
    Math.min(media[2], crop[2]),
    Math.min(media[3], crop[3]),
  ] as const;
  const overlaps = box[2] > box[0] && box[3] > box[1];
  const userUnit = page.node.lookupMaybe(PDFName.of('UserUnit'), PDFNumber)?.asNumber() ?? 1;
  return { box: overlaps ? box : media, rotate: page.getRotation().angle, userUnit };
}

function corners(box: {
  x: number;
  y: number;
  width: number;
  height: number;
}): [number, number, number, number] {
  return [
    Math.min(box.x, box.x + box.width),
    Math.min(box.y, box.y + box.height),
    Math.max(box.x, box.x + box.width),
    Math.max(box.y, box.y + box.height),
  ];
}
