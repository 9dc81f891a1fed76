import type { PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFHexString, PDFName, PDFRef, PDFString } from '@cantoo/pdf-lib';

/** Most entries of a tree that are read; a broken file may lead round in circles. */
const MOST = 200_000;
const LINK = PDFName.of('Link');

/** Where links, and the contents list, of a PDF lead (ISO 32000-1 §12.3.2). */
export class Destinations {
  private named: Map<string, PDFObject> | undefined;

  constructor(private readonly doc: PDFDocument) {}

  /** The place that a destination names, as an array that begins with the page; undefined where there is none. */
  explicit(destination: PDFObject | undefined): PDFArray | undefined {
    const object = this.doc.context.lookup(destination);
    if (object instanceof PDFArray) return object;
    if (object instanceof PDFDict) return this.explicit(object.get(PDFName.of('D')));
    const name = nameOf(object);
    if (name === undefined) return undefined;
    this.named ??= this.readNames();
    const found = this.doc.context.lookup(this.named.get(name));
    // A name that stands for a name leads nowhere.
    return nameOf(found) === undefined ? this.explicit(found) : undefined;
  }

  /** The destination of a link or an entry of the contents list, also where an action goes there. */
  of(dict: PDFDict): PDFArray | undefined {
    const action = dict.lookup(PDFName.of('A'));
    if (dict.has(PDFName.of('Dest'))) return this.explicit(dict.get(PDFName.of('Dest')));
    if (!(action instanceof PDFDict) || action.lookup(PDFName.of('S')) !== PDFName.of('GoTo'))
      return undefined;
    return this.explicit(action.get(PDFName.of('D')));
  }

  /**
   * Makes the links of a page lead to places, not to names that another document does not know; those that lead
   * to pages that are not taken go.
   */
  spellOut(annotations: PDFArray | undefined, isTaken: (page: PDFRef) => boolean): void {
    for (let i = (annotations?.size() ?? 0) - 1; i >= 0; i--) {
      const link = annotations!.lookup(i);
      if (!(link instanceof PDFDict) || link.lookup(PDFName.of('Subtype')) !== LINK) continue;
      const place = this.of(link);
      const page = pageOf(place);
      if (!place || !page) continue;
      if (!isTaken(page)) annotations!.remove(i);
      link.delete(PDFName.of('A'));
      link.set(PDFName.of('Dest'), place);
    }
  }

  private readNames(): Map<string, PDFObject> {
    const named = new Map<string, PDFObject>();
    const { catalog } = this.doc;
    const old = catalog.lookup(PDFName.of('Dests'));
    if (old instanceof PDFDict)
      for (const [name, value] of old.entries()) named.set(name.decodeText(), value);
    const names = catalog.lookup(PDFName.of('Names'));
    const tree = names instanceof PDFDict ? names.lookup(PDFName.of('Dests')) : undefined;
    const waiting = [tree];
    for (let node = waiting.pop(), read = 0; read < MOST && node; node = waiting.pop(), read++) {
      if (!(node instanceof PDFDict)) continue;
      const [kids, pairs] = [node.lookup(PDFName.of('Kids')), node.lookup(PDFName.of('Names'))];
      if (kids instanceof PDFArray) for (let i = 0; i < kids.size(); i++) waiting.push(kids.lookup(i));
      if (!(pairs instanceof PDFArray)) continue;
      for (let i = 0; i + 1 < pairs.size(); i += 2) {
        const name = nameOf(pairs.lookup(i));
        if (name !== undefined) named.set(name, pairs.get(i + 1));
      }
    }
    return named;
  }
}

/** The page of a destination. */
export function pageOf(destination: PDFArray | undefined): PDFRef | undefined {
  const page = destination?.get(0);
  return page instanceof PDFRef ? page : undefined;
}

function nameOf(object: PDFObject | undefined): string | undefined {
  if (object instanceof PDFName || object instanceof PDFString || object instanceof PDFHexString)
    return object.decodeText();
  return undefined;
}
