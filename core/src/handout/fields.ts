import fontkit from '@cantoo/fontkit';
import type { PDFDocument, PDFField, PDFFont, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import {
  PDFArray,
  PDFDict,
  PDFDropdown,
  PDFName,
  PDFOptionList,
  PDFRef,
  PDFTextField,
} from '@cantoo/pdf-lib';
import type { Rect } from '../geometry/rect.js';
import { rectsTouch } from '../geometry/rect.js';
import { flattenAnnotations, rectOf } from './annotations.js';
import { formOf } from './losses.js';

const name = (text: string) => PDFName.of(text);
const WIDGET = name('Widget');

/**
 * Gives fields that say what they hold but not how it looks their looks, as readers do. `font` is asked for where their
 * words need letters that the standard fonts lack.
 */
export async function drawFields(doc: PDFDocument, font: () => Promise<Uint8Array>): Promise<void> {
  if (!formOf(doc)) return;
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
      field.defaultUpdateAppearances(isKnown ? narrow : wide!);
    }
    await doc.flush();
  } catch {
    // A form that breaks the rules stays as it is: its fields are then drawn by the reader.
  }
}

/** Makes those fields part of a page that lie under what is written on it: readers draw fields over everything. Tells whether there were any. */
export function flattenFieldsUnder(page: PDFPage, written: Rect): boolean {
  const under = (widget: PDFDict) => {
    const rect = widget.lookup(name('Subtype')) === WIDGET ? rectOf(widget) : undefined;
    return rect !== undefined && rectsTouch(rect, written);
  };
  const taken = flattenAnnotations(page, under);
  for (const ref of taken) withdraw(page.doc, ref);
  return taken.length > 0;
}

/** Takes a field, or one of the places where it is shown, out of its form; so goes what is left empty by that. */
function withdraw(doc: PDFDocument, ref: PDFObject): void {
  const field = doc.context.lookup(ref);
  if (!(field instanceof PDFDict)) return;
  const parentRef = field.get(name('Parent'));
  const parent = doc.context.lookup(parentRef);
  const list = parent instanceof PDFDict ? parent.lookup(name('Kids')) : formOf(doc)?.lookup(name('Fields'));
  if (!(list instanceof PDFArray)) return;
  const at = list.asArray().indexOf(ref);
  if (at >= 0) list.remove(at);
  if (list.size() === 0 && parentRef instanceof PDFRef) withdraw(doc, parentRef);
}

function wordsIn(field: PDFField): string {
  if (field instanceof PDFTextField) return field.getText() ?? '';
  if (field instanceof PDFDropdown || field instanceof PDFOptionList) return field.getSelected().join('');
  return '';
}
