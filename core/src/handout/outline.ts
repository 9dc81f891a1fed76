import type { PDFContext, PDFDocument, PDFObject, PDFRef } from '@cantoo/pdf-lib';
import { PDFDict, PDFName } from '@cantoo/pdf-lib';
import { Destinations } from './destinations.js';

/** An entry of a contents list, with a place in the new document. */
export interface OutlineItem {
  /** The entry's own fields: title, colour, style. */
  fields: Map<PDFName, PDFObject>;
  destination: PDFObject | undefined;
  isOpen: boolean;
  items: OutlineItem[];
}

/** Most entries that are read; a broken file may lead round in circles. */
const MOST = 50_000;
const KEPT = ['Title', 'C', 'F'].map((name) => PDFName.of(name));
const NEXT = PDFName.of('Next');
const FIRST = PDFName.of('First');
const COUNT = PDFName.of('Count');

/**
 * The contents list of a document (ISO 32000-1 §12.3.3), as far as it leads to pages that are taken over. `copied`
 * gives an object as it is in the new document, or undefined for a place on a page that is not.
 */
export function readOutline(
  doc: PDFDocument,
  copied: { value(object: PDFObject): PDFObject; place(dict: PDFDict): PDFObject | undefined },
): OutlineItem[] {
  const seen = new Set<PDFDict>();
  const itemsFrom = (first: PDFObject | undefined, depth: number): OutlineItem[] => {
    const items: OutlineItem[] = [];
    for (let node = first; node instanceof PDFDict && depth < 50; node = node.lookup(NEXT)) {
      if (seen.has(node) || seen.size > MOST) break;
      seen.add(node);
      const destination = copied.place(node);
      const inner = itemsFrom(node.lookup(FIRST), depth + 1);
      if (!destination && inner.length === 0) continue;
      const fields = new Map<PDFName, PDFObject>();
      for (const name of KEPT) if (node.has(name)) fields.set(name, copied.value(node.get(name)!));
      items.push({
        fields,
        destination,
        isOpen: !String(node.lookup(COUNT) ?? '').startsWith('-'),
        items: inner,
      });
    }
    return items;
  };
  const root = doc.catalog.lookup(PDFName.of('Outlines'));
  return root instanceof PDFDict ? itemsFrom(root.lookup(FIRST), 0) : [];
}

/** Adds to the contents list of a document; what it has already comes first. */
export function addOutline(doc: PDFDocument, added: readonly OutlineItem[]): void {
  if (added.length === 0) return;
  const destinations = new Destinations(doc);
  const own = readOutline(doc, { value: (object) => object, place: (entry) => destinations.of(entry) });
  const items = [...own, ...added];
  const { context } = doc;
  const root = context.obj({ Type: 'Outlines' });
  const ref = context.register(root);
  writeItems(context, items, root, ref);
  root.set(COUNT, context.obj(visible(items)));
  doc.catalog.set(PDFName.of('Outlines'), ref);
}

function writeItems(
  context: PDFContext,
  items: readonly OutlineItem[],
  parent: PDFDict,
  parentRef: PDFRef,
): void {
  const refs = items.map(() => context.nextRef());
  items.forEach((item, i) => {
    const dict = context.obj({ Parent: parentRef });
    for (const [name, value] of item.fields) dict.set(name, value);
    if (item.destination) dict.set(PDFName.of('Dest'), item.destination);
    if (i > 0) dict.set(PDFName.of('Prev'), refs[i - 1]!);
    if (i + 1 < refs.length) dict.set(NEXT, refs[i + 1]!);
    if (item.items.length > 0) {
      writeItems(context, item.items, dict, refs[i]!);
      dict.set(COUNT, context.obj((item.isOpen ? 1 : -1) * visible(item.items)));
    }
    context.assign(refs[i]!, dict);
  });
  parent.set(FIRST, refs[0]!);
  parent.set(PDFName.of('Last'), refs.at(-1)!);
}

/** How many entries show where nothing is folded further than it was. */
function visible(items: readonly OutlineItem[]): number {
  return items.reduce((sum, item) => sum + 1 + (item.isOpen ? visible(item.items) : 0), 0);
}
