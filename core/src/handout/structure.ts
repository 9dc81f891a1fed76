import type { PDFDocument, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFBool, PDFDict, PDFHexString, PDFName, PDFNumber, PDFRef } from '@cantoo/pdf-lib';

const name = (text: string) => PDFName.of(text);

/** What a thing on a page is to those who have it read out (ISO 32000-1 §14.8.4). */
export interface Role {
  type: 'P' | 'Figure' | 'Annot';
  /** What it says or shows. */
  words: string;
}

/**
 * The logical structure of a document (§14.7): what screen readers read. Whole objects, annotations and forms, are put
 * into it, a section for each page.
 */
export class StructureTree {
  private readonly sections = new Map<PDFRef, PDFDict>();
  private readonly added: [number, PDFRef][] = [];
  private next: number;

  private constructor(
    private readonly doc: PDFDocument,
    private readonly root: PDFDict,
  ) {
    const next = root.lookup(name('ParentTreeNextKey'));
    this.next = next instanceof PDFNumber ? next.asNumber() : 1 + highestKey(root.lookup(name('ParentTree')));
  }

  /** The structure that a document has; undefined where it has none. */
  static of(doc: PDFDocument): StructureTree | undefined {
    const root = doc.catalog.lookup(name('StructTreeRoot'));
    return root instanceof PDFDict ? new StructureTree(doc, root) : undefined;
  }

  /** Gives a document that has nothing in it yet a structure. */
  static begin(doc: PDFDocument): StructureTree {
    const { context, catalog } = doc;
    const root = context.obj({ Type: 'StructTreeRoot', K: [], ParentTree: { Nums: [] } });
    catalog.set(name('StructTreeRoot'), context.register(root));
    catalog.set(name('MarkInfo'), context.obj({ Marked: PDFBool.True }));
    return new StructureTree(doc, root);
  }

  /** Says what an annotation or form on a page is. */
  add(page: PDFPage, ref: PDFRef, dict: PDFDict, { type, words }: Role): void {
    const { context } = this.doc;
    const section = this.sectionOf(page);
    const element = context.obj({
      Type: 'StructElem',
      S: type,
      P: section.ref,
      Pg: page.ref,
      K: { Type: 'OBJR', Obj: ref, Pg: page.ref },
      [type === 'P' ? 'ActualText' : 'Alt']: PDFHexString.fromText(words),
    });
    const elementRef = context.register(element);
    section.kids.push(elementRef);
    dict.set(name('StructParent'), PDFNumber.of(this.next));
    this.added.push([this.next, elementRef]);
    this.next += 1;
  }

  /** Writes down what belongs to what; nothing can be added afterwards. */
  finish(): void {
    if (this.added.length === 0) return;
    const { context } = this.doc;
    const tree = this.parentTree();
    const numbers = this.added.flatMap(([key, ref]) => [PDFNumber.of(key), ref]);
    const kids = tree.lookup(name('Kids'));
    if (kids instanceof PDFArray) {
      const limits = [this.added[0]![0], this.added.at(-1)![0]];
      kids.push(context.register(context.obj({ Limits: limits, Nums: numbers })));
    } else {
      const own = tree.lookup(name('Nums'));
      const all = own instanceof PDFArray ? own : PDFArray.withContext(context);
      for (const each of numbers) all.push(each);
      tree.set(name('Nums'), all);
    }
    this.root.set(name('ParentTreeNextKey'), PDFNumber.of(this.next));
  }

  private parentTree(): PDFDict {
    const known = this.root.lookup(name('ParentTree'));
    if (known instanceof PDFDict) return known;
    const made = PDFDict.withContext(this.doc.context);
    this.root.set(name('ParentTree'), made);
    return made;
  }

  private sectionOf(page: PDFPage): { ref: PDFRef; kids: PDFArray } {
    const { context } = this.doc;
    let section = this.sections.get(page.ref);
    if (!section) {
      section = context.obj({ Type: 'StructElem', S: 'Sect', P: this.rootRef, K: [] });
      this.sections.set(page.ref, section);
      this.rootKids().push(context.register(section));
      page.node.set(name('Tabs'), name('S'));
    }
    return { ref: context.getObjectRef(section)!, kids: section.lookup(name('K'), PDFArray) };
  }

  private get rootRef(): PDFObject {
    return this.doc.catalog.get(name('StructTreeRoot'))!;
  }

  /** What stands at the top, as a list. */
  private rootKids(): PDFArray {
    const known = this.root.get(name('K'));
    const kids = this.doc.context.lookup(known);
    if (kids instanceof PDFArray) return kids;
    const made = PDFArray.withContext(this.doc.context);
    if (known) made.push(known);
    this.root.set(name('K'), made);
    return made;
  }
}

/** The highest key of a number tree (§7.9.7); -1 where it has none. */
function highestKey(tree: PDFObject | undefined, depth = 0): number {
  if (!(tree instanceof PDFDict) || depth > 20) return -1;
  const numbers = tree.lookup(name('Nums'));
  const keys = numbers instanceof PDFArray ? numbers.asArray().filter((_, i) => i % 2 === 0) : [];
  const own = keys.map((key) => (key instanceof PDFNumber ? key.asNumber() : -1));
  const kids = tree.lookup(name('Kids'));
  const below =
    kids instanceof PDFArray ? kids.asArray().map((_, i) => highestKey(kids.lookup(i), depth + 1)) : [];
  return Math.max(-1, ...own, ...below);
}
