import type { PDFDocument, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFHexString, PDFName, PDFRef, PDFString } from '@cantoo/pdf-lib';
import { formOf } from './losses.js';

const name = (text: string) => PDFName.of(text);
const [KIDS, PARENT, TITLE, FIELDS] = ['Kids', 'Parent', 'T', 'Fields'].map(name) as [
  PDFName,
  PDFName,
  PDFName,
  PDFName,
];
/** Deepest that fields lie in one another; a broken file may lead round in circles. */
const DEEPEST = 30;

/**
 * Gives a document the fields that are shown on pages copied into it (ISO 32000-1 §12.7), so that they can be filled in
 * there. `copied` gives an object of the original as it is in the new document. Fields of the same name would hold the same,
 * so those that come later get another.
 */
export function adoptFields(
  target: PDFDocument,
  pages: readonly PDFPage[],
  original: PDFDocument,
  copied: (object: PDFObject) => PDFObject,
): void {
  const source = formOf(original);
  const shown = new Set(pages.flatMap((page) => widgetsOf(page)));
  if (!source || shown.size === 0) return;
  const roots = new Set([...shown].flatMap((ref) => rootOf(target, ref) ?? []));
  const form = formFor(target, source, copied);
  const fields = form.lookup(FIELDS, PDFArray);
  const taken = new Set(fields.asArray().map((ref) => titleOf(target.context.lookup(ref))));
  for (const root of roots) {
    const field = target.context.lookup(root, PDFDict);
    prune(target, field, shown, 0);
    const title = titleOf(field);
    let free = title;
    for (let n = 2; taken.has(free); n++) free = `${title} (${n})`;
    if (free !== title) field.set(TITLE, PDFHexString.fromText(free));
    taken.add(free);
    fields.push(root);
  }
}

function widgetsOf(page: PDFPage): PDFRef[] {
  const annotations = page.node.Annots()?.asArray() ?? [];
  return annotations.filter((ref): ref is PDFRef => {
    const widget = page.doc.context.lookup(ref);
    return (
      ref instanceof PDFRef && widget instanceof PDFDict && widget.lookup(name('Subtype')) === name('Widget')
    );
  });
}

/** The field that one shown on a page belongs to in the end; undefined where that cannot be told. */
function rootOf({ context }: PDFDocument, widget: PDFRef): PDFRef | undefined {
  let ref = widget;
  for (let depth = 0; depth < DEEPEST; depth++) {
    const field = context.lookup(ref);
    if (!(field instanceof PDFDict)) return undefined;
    const parent = field.get(PARENT);
    if (!(parent instanceof PDFRef)) return field.has(TITLE) ? ref : undefined;
    ref = parent;
  }
  return undefined;
}

/** Takes out what is shown on pages that did not come along. */
function prune(doc: PDFDocument, field: PDFDict, shown: ReadonlySet<PDFObject>, depth: number): void {
  const kids = field.lookup(KIDS);
  if (!(kids instanceof PDFArray) || depth > DEEPEST) return;
  for (let i = kids.size() - 1; i >= 0; i--) {
    const [ref, kid] = [kids.get(i), kids.lookup(i)];
    if (shown.has(ref)) continue;
    if (kid instanceof PDFDict && kid.has(KIDS)) prune(doc, kid, shown, depth + 1);
    const isEmpty = !(kid instanceof PDFDict) || (kid.lookupMaybe(KIDS, PDFArray)?.size() ?? 0) === 0;
    if (isEmpty) kids.remove(i);
  }
}

/** The form of the new document, with the fonts that fields of the original are drawn in. */
function formFor(target: PDFDocument, source: PDFDict, copied: (object: PDFObject) => PDFObject): PDFDict {
  let form = formOf(target);
  if (!form) {
    form = target.context.obj({ Fields: [] });
    for (const key of ['DA', 'Q'].map(name)) if (source.has(key)) form.set(key, copied(source.get(key)!));
    target.catalog.set(name('AcroForm'), target.context.register(form));
  }
  const [own, more] = [form.lookup(name('DR')), source.lookup(name('DR'))];
  if (!(more instanceof PDFDict)) return form;
  if (own instanceof PDFDict) addFonts(own, target.context.lookup(copied(more)));
  else form.set(name('DR'), copied(more));
  return form;
}

function addFonts(own: PDFDict, more: PDFObject | undefined): void {
  const key = name('Font');
  const [ownFonts, moreFonts] = [own.lookup(key), more instanceof PDFDict ? more.lookup(key) : undefined];
  if (!(moreFonts instanceof PDFDict)) return;
  if (!(ownFonts instanceof PDFDict)) return own.set(key, moreFonts);
  for (const [font, ref] of moreFonts.entries()) if (!ownFonts.has(font)) ownFonts.set(font, ref);
}

function titleOf(field: PDFObject | undefined): string {
  const title = field instanceof PDFDict ? field.lookup(TITLE) : undefined;
  return title instanceof PDFString || title instanceof PDFHexString ? title.decodeText() : '';
}
