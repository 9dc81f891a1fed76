import type { PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import type { Page } from '../pages/page.js';
import { openOriginal } from './originals.js';
import type { HandoutSources } from './sources.js';

/**
 * Pages taken over from stored PDFs. All pages of one original are copied in one go, so that the
 * fonts and pictures they share are copied once.
 */
export class CopiedPages {
  private readonly copies = new Map<string, PDFPage>();

  private constructor(private readonly target: PDFDocument) {}

  static async from(
    target: PDFDocument,
    sources: HandoutSources,
    pages: readonly Page[],
  ): Promise<CopiedPages> {
    const copied = new CopiedPages(target);
    for (const [material, wanted] of byMaterial(pages)) {
      const original = await sources
        .pdf(material)
        .then(openOriginal)
        .catch(() => undefined);
      if (original) for (const round of withoutRepeats(wanted)) await copied.copy(original, round);
    }
    return copied;
  }

  /** The copy for a page, or undefined where its original could not be taken over. */
  get(page: string): PDFPage | undefined {
    return this.copies.get(page);
  }

  private async copy(original: PDFDocument, round: Map<number, string>): Promise<void> {
    try {
      const copies = await this.target.copyPages(original, [...round.keys()]);
      [...round.values()].forEach((page, i) => this.copies.set(page, copies[i]!));
    } catch {
      // Left out here, these pages are put in as pictures.
    }
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
