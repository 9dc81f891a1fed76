import { PDFDocument, PDFName, StandardFonts } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import type { HandoutSources } from '../src/handout/index.js';
import { makePdf } from '../src/handout/index.js';
import type { Mark, Page } from '../src/index.js';
import {
  FONTS,
  isMark,
  markBounds,
  PageWords,
  pageExtent,
  UNITS_PER_POINT,
  wordsOfRuns,
} from '../src/index.js';
import { loadFaces } from '../src/paint/shownOn.js';
import { takeAnnotations } from '../src/pdfAnnotations/index.js';
import { anyMark } from './helpers/anyMark.js';
import { andika } from './helpers/fonts.js';
import { aNote, aPage, aPath, aShape, aStroke, aText, common, TEXT_STYLE } from './helpers/marks.js';
import { opened } from './helpers/render.js';

const PEOPLE = { ada: 'Ada M.', teacher: 'The teacher' };

function annotated(marks: readonly Mark[], page: Page = aPage(), pdf?: Uint8Array): Promise<Uint8Array> {
  const sources: Partial<HandoutSources> = {
    pdf: () => Promise.resolve(pdf!),
    font: () => Promise.resolve(andika),
    textPicture: () => Promise.reject(new Error('no letters are drawn here')),
    picture: () => Promise.resolve(undefined),
  };
  const alts = Object.fromEntries(marks.map(({ id, kind }) => [id, `A ${kind}`]));
  return makePdf([{ page, marks, alts }], sources as HandoutSources, {
    title: 'Handout',
    language: 'en',
    people: PEOPLE,
    marksAs: 'annotations',
  });
}

async function readBack(bytes: Uint8Array, words?: PageWords): Promise<Mark[]> {
  const doc = await PDFDocument.load(bytes);
  return takeAnnotations(doc.getPage(0), common, words);
}

interface Read {
  subtype: string;
  titleObj?: { str: string };
  contentsObj?: { str: string };
  rect: number[];
  hasAppearance: boolean;
  creationDate?: string;
  quadPoints?: Float32Array;
}

/** The annotations of a page as another reader (pdf.js) knows them. */
async function asRead(bytes: Uint8Array): Promise<Read[]> {
  const page = await (await opened(bytes)).getPage(1);
  return (await page.getAnnotations()) as Read[];
}

const BOUNDLESS = aPage({
  surface: { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5, boundless: true },
});

/** The subtype of ISO 32000-1 table 169 that is to stand for each mark. */
const one = { author: 'ada', createdAt: Date.UTC(2024, 4, 6, 7, 8, 9) };
const quote = {
  ...common(),
  ...one,
  kind: 'quote',
  exact: 'two words',
  prefix: '',
  suffix: '',
  start: 0,
  look: 'highlight',
  rects: [50, 300, 120, 20],
  style: { colour: '#f0e442', opacity: 0.5 },
} as const satisfies Mark;
const CASES: [string, Mark][] = [
  ['Ink', aStroke(one)],
  ['FreeText', aText(one)],
  ['Square', aShape(one)],
  ['Circle', aShape({ ...one, form: 'ellipse' })],
  ['Polygon', aShape({ ...one, form: 'triangle' })],
  ['Polygon', aShape({ ...one, rotation: 30 })],
  ['Line', aPath(one)],
  ['PolyLine', aPath({ ...one, points: [10, 10, 90, 40, 120, 20] })],
  ['Polygon', aPath({ ...one, points: [10, 10, 90, 40, 120, 20], closed: true })],
  ['Highlight', quote],
  ['Underline', { ...quote, look: 'underline' }],
  ['Text', aNote(one)],
];

/** As everywhere, a text is as tall as its own font makes it. */
beforeAll(async () => {
  for (const font of FONTS)
    for (const bold of [false, true])
      for (const italic of [false, true])
        await loadFaces([aText({ style: { ...TEXT_STYLE, font, bold, italic } })]);
});

describe('marks as standard annotations', () => {
  it.each(CASES)('a %s with author, time, words and appearance, by pdf.js', async (subtype, mark) => {
    const [read, ...others] = await asRead(await annotated([mark]));
    expect(others).toEqual([]);
    expect(read).toMatchObject({ subtype, hasAppearance: true, titleObj: { str: 'Ada M.' } });
    expect(read!.creationDate).toBe('D:20240506070809Z');
    const said = mark.kind === 'text' || mark.kind === 'note' ? mark.text : `A ${mark.kind}`;
    expect(read!.contentsObj!.str).toBe(mark.kind === 'quote' ? 'two words' : said);
    const { x, y, width, height } = markBounds(mark);
    const [left, bottom, right, top] = read!.rect.map((value) => value * UNITS_PER_POINT);
    expect(left).toBeGreaterThan(x - 0.5);
    expect(right).toBeLessThan(x + width + 0.5);
    expect(600 - top!).toBeGreaterThan(y - 0.5);
    expect(600 - bottom!).toBeLessThan(y + height + 0.5);
  });

  it('has the corners of marked words in the order in which readers take them', async () => {
    const [read] = await asRead(await annotated([quote]));
    const [x0, x1, y0, y1] = [50 * 0.75, 170 * 0.75, 450 - 300 * 0.75, 450 - 320 * 0.75];
    expect([...read!.quadPoints!]).toEqual([x0, y0, x1, y0, x0, y1, x1, y1]);
  });

  it('comes back with the same kinds, authors, times and places within half a unit', async () => {
    const kinds = ['stroke', 'text', 'note'] as const;
    const any = fc.oneof(
      ...kinds.map((kind) => anyMark(kind)),
      anyMark('path').filter((mark) => mark.kind === 'path' && mark.course === 'straight'),
      anyMark('shape').map((mark) => ({ ...mark, form: 'rectangle', rotation: 0, flip: false }) as Mark),
      anyMark('shape').map((mark) => ({ ...mark, form: 'ellipse', rotation: 0, flip: false }) as Mark),
    );
    await fc.assert(
      fc.asyncProperty(any, fc.integer({ min: 1, max: 2e9 }), async (mark, seconds) => {
        // Words that are blank, or of letters that no font has here, are another test's.
        fc.pre(!('text' in mark) || (mark.text.trim() === mark.text && mark.text !== ''));
        // A small note is opened, since other programs draw an icon for it; a text is at least 20 units wide.
        fc.pre(mark.kind !== 'note' || Math.max(mark.width, mark.height) > 60);
        fc.pre(mark.kind !== 'text' || mark.width >= 20);
        fc.pre(mark.kind !== 'shape' || Math.min(mark.width, mark.height) > 4);
        const made = { ...mark, createdAt: seconds * 1000 };
        const [back, ...others] = await readBack(await annotated([made], BOUNDLESS));
        expect(others).toEqual([]);
        expect(isMark(back)).toBe(true);
        expect(back).toMatchObject({ kind: mark.kind, credit: 'Ada M.', createdAt: seconds * 1000 });
        expectSamePlace(back!, made, pageExtent(BOUNDLESS, [markBounds(made)]));
      }),
      { numRuns: 120 },
    );
  });

  it('comes back as a mark where it is as thin as can be', async () => {
    const thin = aNote({ x: 0, y: 1046.13, width: 60.01, height: 0.1, text: 'a' });
    const [back] = await readBack(await annotated([thin], BOUNDLESS));
    expect(isMark(back)).toBe(true);
  });

  it('glues marked words to what they say again', async () => {
    const source = await PDFDocument.create();
    const font = await source.embedFont(StandardFonts.Helvetica);
    source
      .addPage([400, 300])
      .drawText('Water boils at a hundred degrees.', { x: 40, y: 200, size: 14, font });
    const pdf = await source.save();
    const read = await (await opened(pdf)).getPage(1);
    const { items } = await read.getTextContent();
    const words = new PageWords(wordsOfRuns(items, read.getViewport({ scale: UNITS_PER_POINT }).transform));
    const line = words.lines()[0]!;
    const marked = words.between({ x: line.x + 45, y: line.y + 8 }, { x: line.x + 90, y: line.y + 8 })!;
    const mark: Mark = { ...quote, ...marked };
    const page = aPage({ width: 533.33, height: 400, surface: { kind: 'pdf', material: 'm', index: 0 } });
    const [back] = await readBack(await annotated([mark], page, pdf), words);
    expect(back).toMatchObject({
      kind: 'quote',
      exact: marked.exact,
      prefix: marked.prefix,
      start: marked.start,
    });
    expect(marked.exact).toContain('boils');
    const asInk = await readBack(await annotated([mark], page, pdf));
    expect(asInk[0]!.kind).toBe('stroke');
  });

  it('keeps what an original has, and does not make its fields part of the page', async () => {
    const source = await PDFDocument.create();
    const field = source.getForm().createTextField('name');
    field.addToPage(source.addPage([400, 300]), { x: 20, y: 200, width: 100, height: 20 });
    const page = aPage({ width: 533.33, height: 400, surface: { kind: 'pdf', material: 'm', index: 0 } });
    const doc = await PDFDocument.load(await annotated([aStroke()], page, await source.save()));
    expect(doc.getForm().getFields()).toHaveLength(1);
    expect(doc.getPage(0).node.Annots()!.size()).toBe(2);
  });

  it('is tagged, in a language, with what each mark is, where all of it is made here', async () => {
    const bytes = await annotated([aStroke({ order: 'a1' }), aText({ order: 'a2' })]);
    const doc = await opened(bytes);
    expect(await doc.getMarkInfo()).toMatchObject({ Marked: true });
    const tree = (await (await doc.getPage(1)).getStructTree()) as { children: { children: object[] }[] };
    expect(tree.children[0]!.children).toMatchObject([
      { role: 'Annot', alt: 'A stroke' },
      { role: 'Annot', alt: 'A text' },
    ]);
    const { catalog } = await PDFDocument.load(bytes);
    expect(String(catalog.get(PDFName.of('Lang')))).toBe('(en)');
  });

  it('keeps the structure that an original has and adds to it', async () => {
    const first = await annotated([aStroke()]);
    const page = aPage({ surface: { kind: 'pdf', material: 'm', index: 0 } });
    const doc = await opened(await annotated([aText()], page, first));
    const tree = (await (await doc.getPage(1)).getStructTree()) as { children: { children: object[] }[] };
    expect(tree.children.flatMap(({ children }) => children)).toMatchObject([
      { alt: 'A stroke' },
      { alt: 'A text' },
    ]);
  });
});

/** A boundless page is handed out from the left and upper edges of what is on it. */
function expectSamePlace(back: Mark, mark: Mark, { x, y }: { x: number; y: number }): void {
  const from = [x, y];
  if (back.kind === 'stroke' && mark.kind === 'stroke') {
    expect(back.points.length).toBe(mark.points.length);
    for (let i = 0; i < mark.points.length; i += 4) {
      expect(Math.abs(back.points[i]! + x - mark.points[i]!)).toBeLessThan(0.5);
      expect(Math.abs(back.points[i + 1]! + y - mark.points[i + 1]!)).toBeLessThan(0.5);
    }
  } else if (back.kind === 'path' && mark.kind === 'path') {
    const off = mark.points.map((value, i) => Math.abs(value - from[i % 2]! - back.points[i]!));
    expect(Math.max(...off)).toBeLessThan(0.5);
  } else if ('x' in back && 'x' in mark) {
    expect(Math.abs(back.x + x - mark.x)).toBeLessThan(0.5);
    expect(Math.abs(back.y + y - mark.y)).toBeLessThan(0.5);
    expect(Math.abs(back.width - mark.width)).toBeLessThan(0.5);
    expect(Math.abs(Math.sin(((back.rotation - mark.rotation) * Math.PI) / 360))).toBeLessThan(0.01);
  }
}
