import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import jsQR from 'jsqr';
import { create } from 'qrcode';
import { describe, expect, it } from 'vitest';
import type { CodedLink, ExplainedStep } from '../src/explain/index.js';
import { stepPages } from '../src/explain/index.js';
import type { HandoutSources } from '../src/handout/index.js';
import { makePdf } from '../src/handout/index.js';
import type { Page } from '../src/index.js';
import { andika } from './helpers/fonts.js';
import { aPage } from './helpers/marks.js';
import { line, pdfPage } from './helpers/originals.js';
import { opened, pixelsOf } from './helpers/render.js';

const URL_OF_LINK = 'https://school.example/see/k3nX0fQ2rT9sLw7yZb1mCg';

function coded(url: string): CodedLink {
  const { modules } = create(url);
  return { url, size: modules.size, dark: [...modules.data].map(Boolean) };
}

const step = (page: Page, set: Partial<ExplainedStep> = {}): ExplainedStep => ({
  page,
  marks: [line],
  alts: {},
  heading: '0:12  The beam',
  task: 'Draw the arch now',
  said: 'The load runs into the banks.',
  ...set,
});

/** A document of pages of 300 × 200 points, each turned otherwise. */
async function turned(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  for (const turn of [0, 90, 180, 270]) doc.addPage([300, 200]).setRotation(degrees(turn));
  return doc.save();
}

const make = async (steps: readonly ExplainedStep[], link?: CodedLink) => {
  const bytes = await turned();
  const sources: Partial<HandoutSources> = {
    pdf: () => Promise.resolve(bytes),
    font: () => Promise.resolve(andika),
  };
  return makePdf(stepPages(steps, link), sources as HandoutSources, { title: 'Loads' });
};

/** The words of a page as pdf.js reads them, each with its height above the lower edge of what is displayed, points. */
async function wordsOn(bytes: Uint8Array, index: number) {
  const page = await (await opened(bytes)).getPage(index + 1);
  const { height, transform } = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  return items.flatMap((item) => {
    if (!('str' in item) || item.str.trim() === '') return [];
    const [, , , , e, f] = item.transform as [number, number, number, number, number, number];
    const [, b, , d, , y] = transform as [number, number, number, number, number, number];
    return [{ text: item.str, above: height - (b * e + d * f + y) }];
  });
}

describe('pages of steps', () => {
  it('have their words below them, however a page of a document is turned', async () => {
    const pages = [0, 1, 2, 3].map((index) => {
      const isUpright = index % 2 === 1;
      const [width, height] = isUpright ? [200, 300] : [300, 200];
      return { ...pdfPage(index), width: (width * 4) / 3, height: (height * 4) / 3 };
    });
    const bytes = await make(pages.map((page) => step(page)));
    const doc = await opened(bytes);
    for (const [i, page] of pages.entries()) {
      const shown = (await doc.getPage(i + 1)).getViewport({ scale: 1 });
      expect(shown.width).toBeCloseTo((page.width * 3) / 4, 0);
      const below = shown.height - (page.height * 3) / 4;
      expect(below).toBeGreaterThan(10);
      const words = await wordsOn(bytes, i);
      expect(words.map(({ text }) => text).join(' ')).toMatch(/The beam.*Draw the arch now.*The load runs/);
      for (const { above } of words) expect(above).toBeLessThan(below);
      // What is drawn is where it was: 133 units from the top.
      const colour = (await pixelsOf(bytes, i)).at(100, 100);
      expect(colour).toBe('#0000ff');
    }
  });

  it('lead to a link by a code that another reader reads, and say it in words', async () => {
    const bytes = await make([step(aPage({ width: 1280, height: 720 }))], coded(URL_OF_LINK));
    const { data, width, height } = await pixelsOf(bytes, 0, 2);
    expect(jsQR(data, width, height)?.data).toBe(URL_OF_LINK);
    expect((await wordsOn(bytes, 0)).map(({ text }) => text).join('')).toContain(URL_OF_LINK);
  });

  it('are one for each step, also where a page comes more than once, and have no room for a code that is not there', async () => {
    const page = aPage({ width: 1280, height: 720 });
    const bytes = await make([step(page, { task: '', said: '' }), step(page, { marks: [] })]);
    const doc = await opened(bytes);
    expect(doc.numPages).toBe(2);
    expect((await wordsOn(bytes, 0)).map(({ text }) => text).join('')).toBe('0:12 The beam');
    const heights = await Promise.all(
      [1, 2].map(async (number) => (await doc.getPage(number)).getViewport({ scale: 1 }).height),
    );
    expect(heights[0]).toBeLessThan(heights[1]!);
  });
});
