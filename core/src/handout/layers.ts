import type { PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName } from '@cantoo/pdf-lib';

/** Layers of a document: all of them, those that are hidden, and how they are listed. */
export interface Layers {
  all: PDFObject[];
  hidden: PDFObject[];
  listed: PDFObject[];
}

const name = (text: string) => PDFName.of(text);

/** The layers of a document as it shows when it is opened (ISO 32000-1 §8.11.4.3). */
export function layersOf(doc: PDFDocument): Layers | undefined {
  const properties = doc.catalog.lookup(name('OCProperties'));
  if (!(properties instanceof PDFDict)) return undefined;
  const all = entries(properties.lookup(name('OCGs')));
  const shown = properties.lookup(name('D'));
  if (!(shown instanceof PDFDict)) return { all, hidden: [], listed: all };
  const on = new Set(entries(shown.lookup(name('ON'))));
  const startsHidden = shown.lookup(name('BaseState')) === name('OFF');
  const hidden = startsHidden ? all.filter((layer) => !on.has(layer)) : entries(shown.lookup(name('OFF')));
  return { all, hidden, listed: entries(shown.lookup(name('Order'))) };
}

/** Gives a document more layers, hidden ones hidden. */
export function addLayers(doc: PDFDocument, added: Layers): void {
  if (added.all.length === 0) return;
  const own = layersOf(doc);
  const together = (key: keyof Layers) => [...(own?.[key] ?? []), ...added[key]];
  const [all, hidden, listed] = [together('all'), together('hidden'), together('listed')];
  const { context } = doc;
  const list = (objects: readonly PDFObject[]) => {
    const array = PDFArray.withContext(context);
    for (const object of objects) array.push(object);
    return array;
  };
  const shown = context.obj({ BaseState: 'ON' });
  shown.set(name('OFF'), list(hidden));
  shown.set(name('Order'), list(listed));
  const properties = PDFDict.withContext(context);
  properties.set(name('OCGs'), list(all));
  properties.set(name('D'), shown);
  doc.catalog.set(name('OCProperties'), properties);
}

function entries(array: PDFObject | undefined): PDFObject[] {
  return array instanceof PDFArray ? array.asArray() : [];
}
