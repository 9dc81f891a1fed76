import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument, PDFName, PDFNumber } from '@cantoo/pdf-lib';
import type { Page } from '../pages/page.js';
import { drawFields } from './fields.js';
import type { Loss } from './losses.js';
import { isRestricted } from './losses.js';
import type { PdfPageGeometry } from './pageTransform.js';
import type { HandoutSources } from './sources.js';

/** The stored originals of a handout, each opened once. */
export class Originals {
  private readonly opened = new Map<string, Promise<PDFDocument | undefined>>();

  constructor(
    private readonly sources: HandoutSources,
    private readonly onLoss: (loss: Loss) => void,
  ) {}

  /** Undefined where the file is too broken to take pages from. */
  open(material: string): Promise<PDFDocument | undefined> {
    let doc = this.opened.get(material);
    if (!doc) this.opened.set(material, (doc = this.tryToOpen(material)));
    return doc;
  }

  /** The original whose pages are all here, once each and in their order; the longest where there are several. */
  async whole(pages: readonly Page[]): Promise<{ material: string; doc: PDFDocument } | undefined> {
    const longestFirst = [...byMaterial(pages)].sort(([, a], [, b]) => b.length - a.length);
    for (const [material, indices] of longestFirst) {
      if (indices.some((index, i) => index !== i)) continue;
      const doc = await this.open(material);
      if (doc?.getPageCount() === indices.length) return { material, doc };
    }
    return undefined;
  }

  private async tryToOpen(material: string): Promise<PDFDocument | undefined> {
    const bytes = await this.sources.pdf(material);
    try {
      const doc = await PDFDocument.load(bytes, {
        password: '',
        updateMetadata: false,
        parseSpeed: Infinity,
      });
      doc.getPages();
      await drawFields(doc, () => this.sources.font('andika'));
      if (isRestricted(doc)) this.onLoss('restrictions');
      return doc;
    } catch {
      // Its pages are put in as pictures, which is said.
      this.onLoss('everything');
      return undefined;
    }
  }
}

/** The indices of each document's pages, in the order in which they are here. */
function byMaterial(pages: readonly Page[]): Map<string, number[]> {
  const indices = new Map<string, number[]>();
  for (const { surface } of pages) {
    if (surface.kind !== 'pdf') continue;
    const own = indices.get(surface.material);
    if (own) own.push(surface.index);
    else indices.set(surface.material, [surface.index]);
  }
  return indices;
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
