import type { PDFDict, PDFObject, PDFPageLeaf } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import { PDFName, PDFNull, PDFObjectCopier, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import type { Page } from '../pages/page.js';
import { Destinations, pageOf } from './destinations.js';
import type { Layers } from './layers.js';
import { adoptFields } from './adoptFields.js';
import { addLayers, layersOf } from './layers.js';
import type { Loss } from './losses.js';
import { lossesOfParts } from './losses.js';
import type { Originals } from './originals.js';
import type { OutlineItem } from './outline.js';
import { addOutline, readOutline } from './outline.js';
import type { PageLabel } from './pageLabels.js';
import { labelsOf } from './pageLabels.js';

/**
 * Pages taken over from stored PDFs, with the links among them, their entries in the contents list and their
 * layers. All pages of one original are copied in one go, so that what they share is copied once.
 */
export class CopiedPages {
  private readonly copies = new Map<string, PDFPage>();
  private readonly outline: OutlineItem[] = [];
  private readonly layers: Layers = { all: [], hidden: [], listed: [] };
  private readonly labels = new Map<string, PageLabel | undefined>();

  private constructor(
    private readonly target: PDFDocument,
    private readonly onLoss: (loss: Loss) => void,
  ) {}

  static async from(
    target: PDFDocument,
    originals: Originals,
    pages: readonly Page[],
    onLoss: (loss: Loss) => void,
  ): Promise<CopiedPages> {
    const copied = new CopiedPages(target, onLoss);
    for (const [material, wanted] of byMaterial(pages)) {
      const original = await originals.open(material);
      if (!original) continue;
      lossesOfParts(original).forEach(onLoss);
      copyLanguage(original, target);
      for (const round of withoutRepeats(wanted)) copied.copy(original, round);
    }
    addOutline(target, copied.outline);
    addLayers(target, copied.layers);
    return copied;
  }

  /** How a page is numbered where it comes from; undefined where its document numbers none. */
  labelOf(page: string): PageLabel | undefined {
    return this.labels.get(page);
  }

  /** The copy for a page, or undefined where its original could not be taken over. */
  get(page: string): PDFPage | undefined {
    return this.copies.get(page);
  }

  private copy(original: PDFDocument, round: Map<number, string>): void {
    try {
      const copier = new PageCopier(original, this.target, [...round.keys()]);
      [...round.values()].forEach((page, i) => this.copies.set(page, copier.pages[i]!));
      this.outline.push(...copier.outline());
      adoptFields(this.target, copier.pages, original, copier.value);
      const labelOf = labelsOf(original);
      for (const [index, page] of round) this.labels.set(page, labelOf?.(index));
      const layers = layersOf(original);
      if (!layers) return;
      for (const key of ['all', 'hidden', 'listed'] as const)
        this.layers[key].push(...layers[key].map(copier.value));
    } catch {
      // Left out here, these pages are put in as pictures.
      this.onLoss('everything');
    }
  }
}

/** Copies some pages of a document into another. */
class PageCopier {
  readonly pages: PDFPage[];
  private readonly copier: PDFObjectCopier;
  private readonly destinations: Destinations;

  constructor(
    private readonly original: PDFDocument,
    target: PDFDocument,
    indices: readonly number[],
  ) {
    const { context } = target;
    this.copier = PDFObjectCopier.for(original.context, context);
    this.destinations = new Destinations(original);
    const all = original.getPages();
    // Each page has its place before any is copied: links lead to copies, and no page comes along that is not wanted.
    const places = (this.copier as unknown as { traversedObjects: Map<PDFObject, PDFObject> })
      .traversedObjects;
    for (const { ref } of all) places.set(ref, PDFNull);
    const wanted = indices.map((index) => ({ page: all[index]!, ref: context.nextRef() }));
    for (const { page, ref } of wanted) places.set(page.ref, ref);
    this.pages = wanted.map(({ page, ref }) => {
      this.destinations.spellOut(page.node.Annots(), (taken) => places.get(taken) instanceof PDFRef);
      const node: PDFPageLeaf = this.copier.copy(page.node);
      context.assign(ref, node);
      return PDFPage.of(node, ref, target);
    });
  }

  /** An object as it is in the new document. */
  value = (object: PDFObject): PDFObject => this.copier.copy(object);

  /** The contents list, as far as it leads to the copied pages. */
  outline(): OutlineItem[] {
    const place = (entry: PDFDict) => {
      const destination = this.destinations.of(entry);
      const page = pageOf(destination);
      return page && this.value(page) instanceof PDFRef ? this.value(destination!) : undefined;
    };
    return readOutline(this.original, { value: this.value, place });
  }
}

function byMaterial(pages: readonly Page[]): Map<string, Page[]> {
  const groups = new Map<string, Page[]>();
  for (const page of pages) {
    if (page.surface.kind !== 'pdf') continue;
    const group = groups.get(page.surface.material);
    if (group) group.push(page);
    else groups.set(page.surface.material, [page]);
  }
  return groups;
}

/** Rounds of index → page id: an original page that is used twice is in two rounds. */
function withoutRepeats(pages: readonly Page[]): Map<number, string>[] {
  const rounds: Map<number, string>[] = [];
  for (const page of pages) {
    if (page.surface.kind !== 'pdf') continue;
    const { index } = page.surface;
    let round = rounds.find((candidate) => !candidate.has(index));
    if (!round) rounds.push((round = new Map<number, string>()));
    round.set(index, page.id);
  }
  return rounds;
}

/** The language of the first document that states one is that of the handout. */
function copyLanguage(original: PDFDocument, target: PDFDocument): void {
  const [key, language] = [PDFName.of('Lang'), original.catalog.lookup(PDFName.of('Lang'))];
  if (language && !target.catalog.has(key)) target.catalog.set(key, language.clone(target.context));
}
