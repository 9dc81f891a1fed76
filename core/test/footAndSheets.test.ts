import { degrees, PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import type { HandoutSources, PerSheet } from '../src/handout/index.js';
import { makePdf, onSheets, PER_SHEET } from '../src/handout/index.js';
import { andika } from './helpers/fonts.js';
import { aPage, aStroke } from './helpers/marks.js';
import { pdfPage } from './helpers/originals.js';
import { opened, shownBy } from './helpers/render.js';

interface Word {
  str: string;
  transform: number[];
}

async function wordsOf(bytes: Uint8Array, page: number): Promise<Word[]> {
  const { items } = await (await (await opened(bytes)).getPage(page)).getTextContent();
  return items.filter((item): item is typeof item & Word => 'str' in item && item.str.trim() !== '');
}

describe('words at the foot', () => {
  async function withFoot(pages: Parameters<typeof makePdf>[0], pdf?: Uint8Array): Promise<Uint8Array> {
    const sources: Partial<HandoutSources> = {
      pdf: () => Promise.resolve(pdf!),
      font: () => Promise.resolve(andika),
    };
    const foot = 'Rivers, 6 May, {page} of {pages}';
    return makePdf(pages, sources as HandoutSources, { title: 'Rivers', foot });
  }

  it('stand low on every page, with its number', async () => {
    const pages = [1, 2].map((n) => ({ page: aPage({ id: `p${n}` }), marks: [aStroke()] }));
    const bytes = await withFoot(pages);
    for (const page of [1, 2]) {
      const words = await wordsOf(bytes, page);
      expect(words.map(({ str }) => str).join('')).toBe(`Rivers, 6 May, ${page} of 2`);
      expect(words[0]!.transform[5]).toBeLessThan(20);
    }
  });

  it('stand at the foot as it is seen, where an original is turned', async () => {
    const source = await PDFDocument.create();
    source.addPage([300, 200]).setRotation(degrees(90));
    const bytes = await withFoot([{ page: pdfPage(0), marks: [] }], await source.save());
    const page = await (await opened(bytes)).getPage(1);
    const { transform, height } = page.getViewport({ scale: 1 });
    const [word] = await wordsOf(bytes, 1);
    const [, b, , d, , f] = transform as [number, number, number, number, number, number];
    const seen = b * word!.transform[4]! + d * word!.transform[5]! + f;
    expect(seen).toBeGreaterThan(height - 20);
    expect(seen).toBeLessThan(height);
  });
});

describe('several pages on a sheet', () => {
  async function source(count: number, turn = 0): Promise<Uint8Array> {
    const doc = await PDFDocument.create();
    const font = await doc.embedFont(StandardFonts.Helvetica);
    for (let i = 0; i < count; i++) {
      const page = doc.addPage([400, 300]);
      page.setRotation(degrees(turn));
      page.drawRectangle({ x: 0, y: 260, width: 40, height: 40, color: rgb(1, 0, 0) });
      page.drawText(`page ${i + 1}`, { x: 50, y: 150, font });
    }
    return doc.save();
  }

  it.each(Object.keys(PER_SHEET).map(Number) as PerSheet[])(
    '%d of them, all there in their order',
    async (n) => {
      const bytes = await onSheets(await source(9), n);
      const sheets = (await opened(bytes)).numPages;
      expect(sheets).toBe(Math.ceil(9 / n));
      const all = await Promise.all(Array.from({ length: sheets }, (_, i) => wordsOf(bytes, i + 1)));
      expect(all.flat().map(({ str }) => str)).toEqual(Array.from({ length: 9 }, (_, i) => `page ${i + 1}`));
    },
  );

  it('fit into their places without being pulled out of shape', async () => {
    const at = await shownBy(await onSheets(await source(2), 2));
    // Each place is 393.9 points wide and so 295.4 high; it lies in the middle of a height of 559.3.
    expect([at(25, 160), at(25, 145), at(435, 160), at(70, 160)]).toEqual([
      '#ff0000',
      '#ffffff',
      '#ff0000',
      '#ffffff',
    ]);
  });

  it('shows turned pages upright, with what annotations show', async () => {
    const turned = await PDFDocument.load(await source(1, 90));
    const page = turned.getPage(0);
    const { context } = turned;
    const look = context.stream('0 0 1 rg 0 0 40 40 re f', { Subtype: 'Form', BBox: [0, 0, 40, 40] });
    const annotation = { Subtype: 'Square', Rect: [0, 0, 40, 40], AP: { N: context.register(look) } };
    page.node.addAnnot(context.register(context.obj(annotation)));
    const at = await shownBy(await onSheets(await turned.save(), 2));
    // Seen upright it is 300 by 400, so 393.9 by 525.2 points; its upper right corner is red, its upper left blue.
    expect([at(400, 50), at(25, 50), at(25, 540)]).toEqual(['#ff0000', '#0000ff', '#ffffff']);
  });
});
