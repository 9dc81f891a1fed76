import {
  degrees,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFRawStream,
  decodePDFRawStream,
  StandardFonts,
} from '@cantoo/pdf-lib';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import type { HandoutPage, HandoutSources } from '../src/handout/index.js';
import { geometryOf, makePdf, pageToUserSpace } from '../src/handout/index.js';
import type { Page } from '../src/index.js';
import { applyMatrix, UNITS_PER_POINT } from '../src/index.js';
import { andika } from './helpers/fonts.js';
import { aPage, aStroke, aText } from './helpers/marks.js';
import { line } from './helpers/originals.js';
import { shownBy } from './helpers/render.js';

const onePixel = Uint8Array.from(
  Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  ),
);

function sources(pdf?: Uint8Array): HandoutSources {
  return {
    pdf: () => Promise.resolve(pdf!),
    font: () => Promise.resolve(andika),
    picture: () => Promise.resolve({ bytes: onePixel, type: 'png' }),
    textPicture: () => Promise.resolve({ bytes: onePixel, width: 20, height: 28, baseline: 20 }),
    pagePicture: () => Promise.resolve({ bytes: onePixel, type: 'png' }),
    webLayout: () => Promise.resolve({ texts: [], links: [] }),
  };
}

async function original(change: (doc: PDFDocument) => void | Promise<void>): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  await change(doc);
  return doc.save();
}

function pdfPage(index: number, set: Partial<Page> = {}): Page {
  return aPage({ id: `page-${index}`, surface: { kind: 'pdf', material: 'm', index }, ...set });
}

const make = (pages: HandoutPage[], pdf?: Uint8Array) => makePdf(pages, sources(pdf), { title: 'Handout' });

/** A short stroke of a hand, flat x, y, pressure, time. */
function scribble(seed: number): number[] {
  return Array.from({ length: 40 }, (_, i) => [
    Math.round((60 + ((seed * 37) % 480) + i * 0.9 + 6 * Math.sin(i / 3.5 + seed)) * 100) / 100,
    Math.round((60 + ((seed * 53) % 480) + 9 * Math.cos(i / 4.6 + seed * 2)) * 100) / 100,
    0.5 + 0.25 * Math.sin(i / 7 + seed),
    i * 16,
  ]).flat();
}

describe('page units to user space', () => {
  // ISO 32000-1 §8.3.2.3 and table 30 (CropBox, Rotate, UserUnit); the reference is pdf.js's own viewport.
  const cases = [0, 90, 180, 270, -90, 450].flatMap((rotate) =>
    [1, 2.5].map((userUnit) => [rotate, userUnit] as const),
  );
  it.each(cases)('agrees with pdf.js for a page turned by %i with user unit %f', async (rotate, userUnit) => {
    const bytes = await original((doc) => {
      const page = doc.addPage([400, 300]);
      page.setCropBox(30, 20, 200, 150);
      page.setRotation(degrees(rotate));
      page.node.set(PDFName.of('UserUnit'), PDFNumber.of(userUnit));
    });
    const page = await (await getDocument({ data: bytes.slice() }).promise).getPage(1);
    const viewport = page.getViewport({ scale: UNITS_PER_POINT });
    const ours = pageToUserSpace(geometryOf((await PDFDocument.load(bytes)).getPage(0)));
    for (const [x, y] of [
      [0, 0],
      [100, 40],
      [viewport.width, viewport.height],
    ] as const) {
      const [refX, refY] = viewport.convertToPdfPoint(x, y) as [number, number];
      const [ourX, ourY] = applyMatrix(ours, x, y);
      expect(ourX).toBeCloseTo(refX, 6);
      expect(ourY).toBeCloseTo(refY, 6);
    }
  });
});

describe('handout', () => {
  async function textOf(bytes: Uint8Array, page = 1): Promise<string> {
    const doc = await getDocument({ data: bytes.slice() }).promise;
    const content = await (await doc.getPage(page)).getTextContent();
    return content.items.map((item) => ('str' in item ? item.str : '')).join(' ');
  }

  it('keeps the words of the original and has the typed ones, by pdf.js', async () => {
    const bytes = await original(async (doc) => {
      doc
        .addPage([300, 200])
        .drawText('Original words', { font: await doc.embedFont(StandardFonts.Helvetica), y: 100 });
    });
    const handout = await make([{ page: pdfPage(0), marks: [aText({ text: 'Typed Größe Привет' })] }], bytes);
    expect(await textOf(handout)).toContain('Original words');
    expect(await textOf(handout)).toContain('Typed Größe Привет');
  });

  it.each(['office fjord flat', 'Žluťoučký kůň, Æsir, ĳs', 'e\u0301a\u0328 beside é ą', 'ÀÉÎÕÜ ßÿ ½ £ €'])(
    'has “%s” as it was typed, by pdf.js',
    async (text) => {
      const handout = await make([{ page: aPage(), marks: [aText({ text, width: 600 })] }]);
      const doc = await getDocument({ data: handout.slice() }).promise;
      const { items } = await (await doc.getPage(1)).getTextContent({ disableNormalization: true });
      const read = items.map((item) => ('str' in item ? item.str : '')).join('');
      expect(read.normalize('NFC')).toBe(text.normalize('NFC'));
    },
  );

  it('has letters in the sizes and colours that they have on the page, by pdf.js', async () => {
    const parts = [
      { from: 6, to: 9, scale: 2, colour: '#ff0000' },
      { from: 10, to: 13, italic: true },
    ];
    const typed = aText({ text: 'small big end', width: 400, parts });
    const bytes = await make([{ page: aPage(), marks: [typed] }]);
    const page = await (await getDocument({ data: bytes.slice() }).promise).getPage(1);
    const { items } = await page.getTextContent({ disableNormalization: true });
    const sizes = items.flatMap((item) =>
      'str' in item && item.str.trim() !== '' ? [[item.str.trim(), (item.transform as number[])[3]!]] : [],
    );
    expect(sizes).toEqual([
      ['small', 20 / UNITS_PER_POINT],
      ['big', 40 / UNITS_PER_POINT],
      ['end', 20 / UNITS_PER_POINT],
    ]);
    const { fnArray, argsArray } = await page.getOperatorList();
    const colours = fnArray.flatMap((fn, i) => (fn === OPS.setFillRGBColor ? [argsArray[i] as unknown] : []));
    expect(colours.map(String)).toContain('#ff0000');
  });

  it('writes highlighter with the Multiply blend mode and its opacity (ISO 32000-1 tables 58 and 136)', async () => {
    const mark = aStroke({ style: { nature: 'highlighter', colour: '#f0e442', width: 20, opacity: 0.5 } });
    const doc = await PDFDocument.load(await make([{ page: aPage(), marks: [mark] }]));
    const text = doc.context
      .enumerateIndirectObjects()
      .map(([, object]) => String(object))
      .join();
    expect(text).toContain('/BM /Multiply');
    expect(text).toContain('/ca 0.5');
  });

  it('draws strokes as filled outlines', async () => {
    const doc = await PDFDocument.load(await make([{ page: aPage(), marks: [aStroke()] }]));
    const objects = doc.context.enumerateIndirectObjects().map(([, object]) => object);
    const streams = objects.filter((object): object is PDFRawStream => object instanceof PDFRawStream);
    const code = streams
      .map((stream) => Buffer.from(decodePDFRawStream(stream).decode()).toString('latin1'))
      .join('\n');
    expect(code).toMatch(/0\.75 0 0 -0\.75 0 450 cm/);
    expect(code).toMatch(/ c\n(.*\n)*f\n/);
  });

  it('takes a page full of handwriting, in less than 1 kB a stroke', async () => {
    const marks = Array.from({ length: 600 }, (_, i) => aStroke({ id: `s${i}`, points: scribble(i) }));
    const [one, all] = [await make([{ page: aPage(), marks: [] }]), await make([{ page: aPage(), marks }])];
    expect((all.length - one.length) / marks.length).toBeLessThan(1000);
    const doc = await getDocument({ data: all }).promise;
    const { fnArray, argsArray } = await (await doc.getPage(1)).getOperatorList();
    const filled = fnArray.filter(
      (fn, i) => fn === OPS.constructPath && (argsArray[i] as number[])[0] === OPS.fill,
    );
    // The paper, and the strokes on it.
    expect(filled).toHaveLength(601);
  });

  it('has the pages in the order of the lesson, also one that is used twice', async () => {
    const bytes = await original((doc) => {
      for (const width of [100, 200, 300]) doc.addPage([width, 50]);
    });
    const pages = [2, 0, 2].map((index, i) => ({
      page: { ...pdfPage(index), id: `p${i}` },
      marks: [aStroke()],
    }));
    const doc = await PDFDocument.load(await make(pages, bytes));
    expect(doc.getPages().map((page) => page.getWidth())).toEqual([300, 100, 300]);
  });

  it('copies fonts that pages share only once', async () => {
    const bytes = await original(async (doc) => {
      const font = await doc.embedFont(StandardFonts.TimesRoman);
      for (let i = 0; i < 8; i++) doc.addPage().drawText(`Page ${i}`, { font });
    });
    const pages = Array.from({ length: 8 }, (_, i) => ({ page: pdfPage(i), marks: [] }));
    const doc = await PDFDocument.load(await make(pages, bytes));
    const fonts = doc.context
      .enumerateIndirectObjects()
      .filter(([, object]) => String(object).includes('/BaseFont /Times-Roman'));
    expect(fonts).toHaveLength(1);
  });

  it('puts an original in as a picture where it cannot be taken over', async () => {
    const handout = await make(
      [{ page: pdfPage(0), marks: [aText({ text: 'still here' })] }],
      new Uint8Array([1, 2, 3]),
    );
    expect(await textOf(handout)).toContain('still here');
    expect((await PDFDocument.load(handout)).getPage(0).getSize()).toEqual({ width: 600, height: 450 });
  });

  it('draws fields of a form under the marks, keeping what they say', async () => {
    const bytes = await original((doc) => {
      const field = doc.getForm().createTextField('name');
      field.setText('Filled in');
      field.addToPage(doc.addPage([300, 200]), { x: 20, y: 165, width: 200, height: 30 });
    });
    const handout = await make([{ page: pdfPage(0), marks: [aStroke()] }], bytes);
    const doc = await PDFDocument.load(handout);
    expect(doc.getPage(0).node.Annots()?.size() ?? 0).toBe(0);
    expect(await textOf(handout)).toContain('Filled in');
  });

  it('puts text that the font lacks in as a picture and tells how far it is', async () => {
    const steps: number[] = [];
    const bytes = await makePdf([{ page: aPage(), marks: [aText({ text: '桥' })] }], sources(), {
      title: 'x',
      onProgress: (done, total) => steps.push(done / total),
    });
    expect(steps).toEqual([1]);
    expect(Buffer.from(bytes).toString('latin1')).toContain('/Subtype /Image');
  });
});

describe('pages of other kinds', () => {
  it('have what is written on them over their ruling, where it was written', async () => {
    const surface = { kind: 'blank', colour: '#ffffee', ruling: 'squared', spacing: 20 } as const;
    const at = await shownBy(
      await make([{ page: aPage({ width: 400, height: 266, surface }), marks: [line] }]),
    );
    expect(at(150, 100)).toBe('#0000ff');
    for (const [x, y] of [
      [150, 80],
      [150, 120],
      [5, 5],
    ] as const)
      expect(at(x, y)).not.toBe('#0000ff');
  });

  it('a boundless page is as large as what is on it, and nothing of it is lost', async () => {
    const surface = {
      kind: 'blank',
      colour: '#ffffff',
      ruling: 'squared',
      spacing: 10,
      boundless: true,
    } as const;
    const far = aText({ text: 'Far away', x: -900, y: 1500 });
    const bytes = await make([{ page: aPage({ width: 400, height: 300, surface }), marks: [far] }]);
    const page = await (await getDocument({ data: bytes.slice() }).promise).getPage(1);
    const [left, bottom, right, top] = page.view as [number, number, number, number];
    expect((right - left) * UNITS_PER_POINT).toBeGreaterThan(1300);
    const { items } = await page.getTextContent();
    const text = items.find((item) => 'str' in item && item.str.includes('Far'));
    if (!text || !('transform' in text)) throw new Error('the text is missing');
    const [, , , , x, y] = text.transform as number[];
    expect(x).toBeGreaterThan(left);
    expect(y).toBeGreaterThan(bottom);
    expect(y).toBeLessThan(top);
  });

  it('one that is larger than a PDF page can be is made smaller (ISO 32000-1 annex C.2)', async () => {
    const surface = {
      kind: 'blank',
      colour: '#ffffff',
      ruling: 'plain',
      spacing: 10,
      boundless: true,
    } as const;
    const marks = [aText({ x: 60_000, y: 10 })];
    const doc = await PDFDocument.load(await make([{ page: aPage({ surface }), marks }]));
    expect(doc.getPage(0).getWidth()).toBeCloseTo(14_400);
  });

  it('a picture as the ground is embedded over the whole page', async () => {
    const page = aPage({ width: 400, height: 300, surface: { kind: 'picture', material: 'p' } });
    const doc = await PDFDocument.load(await make([{ page, marks: [] }]));
    expect(doc.getPage(0).getWidth()).toBeCloseTo(300);
    expect(doc.getPage(0).node.Resources()!.toString()).toContain('/Picture');
  });
});
