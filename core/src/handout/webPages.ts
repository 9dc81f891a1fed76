import type { PDFDocument, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { PDFName, PDFString } from '@cantoo/pdf-lib';
import type { Rect } from '../geometry/rect.js';
import type { Page } from '../pages/page.js';
import { FORMATS, UNITS_PER_POINT } from '../pages/page.js';
import { HiddenText } from './hiddenText.js';
import type { HandoutSources, LaidOutLink, LaidOutText } from './sources.js';

/** A page of a handout that shows a part of a page, `scale` times as large. */
export interface Placed {
  target: PDFPage;
  part: Rect;
  scale: number;
  /** Whether it is one of several that show the page. */
  isSheet: boolean;
}

const PAPER = { width: FORMATS.a4.height, height: FORMATS.a4.width };
/** How far from the end of a sheet it may break so that it goes through no line, of the sheet's height. */
const SEARCHED = 0.2;

/** The parts of a long page, one a sheet, in page units; no line of text goes from one to the next where that can be had. */
export function sheetsOf(
  { width, height }: { width: number; height: number },
  text: readonly Rect[],
): Rect[] {
  const tallest = (width * PAPER.height) / PAPER.width;
  const parts: Rect[] = [];
  for (let top = 0; top < height - 0.5;) {
    const end = Math.min(height, top + tallest);
    const bottom = end < height ? breakAbove(end, end - SEARCHED * tallest, text) : end;
    parts.push({ x: 0, y: top, width, height: bottom - top });
    top = bottom;
  }
  return parts;
}

/** The lowest place above `end` that goes through no line; `end` where there is none down from `least`. */
function breakAbove(end: number, least: number, text: readonly Rect[]): number {
  let place = end;
  for (let crossed = true; crossed && place > least;) {
    const line = text.find(({ y, height }) => y < place - 0.5 && y + height > place + 0.5);
    crossed = line !== undefined;
    if (line) place = line.y;
  }
  return place > least ? place : end;
}

/** Puts web pages into a document on sheets of paper: as they look, with their text to select and read, and their links. */
export class WebPagePlacer {
  private readonly hidden: HiddenText;

  constructor(
    private readonly doc: PDFDocument,
    private readonly sources: HandoutSources,
  ) {
    this.hidden = new HiddenText(doc);
  }

  /** From a place on, counted from 0. */
  async place(page: Page, at: number): Promise<Placed[]> {
    const { texts, links } = await this.sources.webLayout(page);
    const parts = sheetsOf(page, texts);
    const placed: Placed[] = [];
    for (const part of parts) placed.push(await this.sheet(page, part, texts, at + placed.length));
    for (const link of links) this.link(link, placed);
    return placed;
  }

  private async sheet(page: Page, part: Rect, texts: readonly LaidOutText[], at: number): Promise<Placed> {
    const { doc } = this;
    const scale = PAPER.width / part.width;
    const points = scale / UNITS_PER_POINT;
    const [width, height] = [PAPER.width / UNITS_PER_POINT, PAPER.height / UNITS_PER_POINT];
    const target = doc.insertPage(at, [width, height]);
    const { bytes, type } = await this.sources.pagePicture(page, part);
    const image = await (type === 'png' ? doc.embedPng(bytes) : doc.embedJpg(bytes));
    const shown = part.height * points;
    target.drawImage(image, { x: 0, y: height - shown, width, height: shown });
    const own = texts.filter((text) => isIn(part, text.y + text.height / 2));
    this.hidden.write(target, own, [points, 0, 0, -points, 0, height + part.y * points]);
    return { target, part, scale, isSheet: true };
  }

  /** Makes a place lead where it leads on the page, on every sheet that shows some of it. */
  private link(link: LaidOutLink, placed: readonly Placed[]): void {
    const { context } = this.doc;
    const leads = this.leads(link, placed);
    if (!leads) return;
    for (const { target, part, scale } of placed) {
      if (link.y >= part.y + part.height || link.y + link.height <= part.y) continue;
      const points = scale / UNITS_PER_POINT;
      const top = target.getHeight() - (link.y - part.y) * points;
      const annotation = context.obj({
        Type: 'Annot',
        Subtype: 'Link',
        Rect: [link.x * points, top - link.height * points, (link.x + link.width) * points, top],
        Border: [0, 0, 0],
        ...leads,
      });
      target.node.addAnnot(context.register(annotation));
    }
  }

  private leads(link: LaidOutLink, placed: readonly Placed[]) {
    if ('address' in link) return { A: { S: 'URI', URI: PDFString.of(link.address) } };
    const sheet = placed.find(({ part }) => isIn(part, link.to)) ?? placed.at(-1);
    if (!sheet) return undefined;
    const { target, part, scale } = sheet;
    const top = target.getHeight() - ((link.to - part.y) * scale) / UNITS_PER_POINT;
    const place: (PDFRef | PDFName | number | null)[] = [target.ref, PDFName.of('XYZ'), null, top, null];
    return { Dest: place };
  }
}

function isIn(part: Rect, y: number): boolean {
  return y >= part.y && y < part.y + part.height;
}
