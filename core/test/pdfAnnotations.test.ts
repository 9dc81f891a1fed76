import { degrees, PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { HandoutSources } from '../src/handout/index.js';
import { makePdf } from '../src/handout/index.js';
import type { Mark } from '../src/index.js';
import { isMark } from '../src/index.js';
import { hexOf } from '../src/pdfAnnotations/annotationFields.js';
import type { MarkFrame } from '../src/pdfAnnotations/index.js';
import { takeAnnotations } from '../src/pdfAnnotations/index.js';
import { aPage, common } from './helpers/marks.js';
import { andika } from './helpers/fonts.js';
import { opened, shownBy } from './helpers/render.js';

/** Annotations of another program, as fields of ISO 32000-1 §12.5.6. */
const ANNOTATIONS: Record<string, unknown>[] = [
  {
    Subtype: 'Ink',
    Rect: [20, 20, 120, 60],
    InkList: [[20, 30, 70, 50, 120, 30]],
    C: [1, 0, 0],
    BS: { W: 4 },
  },
  {
    Subtype: 'Highlight',
    Rect: [20, 150, 100, 170],
    QuadPoints: [20, 170, 100, 170, 20, 150, 100, 150],
    C: [1, 1, 0],
  },
  {
    Subtype: 'Underline',
    Rect: [20, 120, 100, 140],
    QuadPoints: [20, 140, 100, 140, 20, 120, 100, 120],
    C: [0, 0, 1],
  },
  { Subtype: 'Square', Rect: [150, 20, 200, 60], C: [0, 0, 1], IC: [0, 1, 0], BS: { W: 2 } },
  { Subtype: 'Circle', Rect: [210, 20, 260, 60], C: [], IC: [0.5], BS: { W: 0 } },
  { Subtype: 'Line', Rect: [150, 80, 250, 100], L: [150, 90, 250, 90], LE: ['None', 'OpenArrow'], C: [0] },
  {
    Subtype: 'Polygon',
    Rect: [150, 110, 200, 150],
    Vertices: [150, 110, 200, 110, 175, 150],
    C: [0, 0, 0, 1],
  },
  {
    Subtype: 'FreeText',
    Rect: [210, 110, 290, 150],
    Contents: 'Load\rhere',
    DA: '/Helv 14 Tf 0 0 1 rg',
    C: [1, 1, 1],
  },
  { Subtype: 'Text', Rect: [270, 170, 290, 190], Contents: 'Why?', C: [1, 0.5, 0] },
];
/** What stays: links, stamps, what is hidden or broken. */
const OTHERS: Record<string, unknown>[] = [
  { Subtype: 'Link', Rect: [0, 0, 10, 10] },
  { Subtype: 'Stamp', Rect: [0, 0, 10, 10] },
  { Subtype: 'Ink', Rect: [0, 0, 10, 10], InkList: [[1, 2, 3, 4]], F: 2 },
  { Subtype: 'Square', Rect: [0, 0] },
  { Subtype: 'Line', L: ['x'] },
];

async function annotated(list: readonly Record<string, unknown>[], turn = 0): Promise<PDFDocument> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([300, 200]);
  page.setRotation(degrees(turn));
  for (const { Contents, DA, ...fields } of list) {
    const dict = doc.context.obj({ Type: 'Annot', ...(fields as object) });
    for (const [key, value] of Object.entries({ Contents, DA }))
      if (typeof value === 'string') dict.set(PDFName.of(key), PDFString.of(value));
    page.node.addAnnot(doc.context.register(dict));
  }
  return PDFDocument.load(await doc.save());
}

const frame = (): MarkFrame => common();

describe('annotations of another program', () => {
  it('become marks of their kind, as they look, and are no longer on the page', async () => {
    const doc = await annotated([...ANNOTATIONS, ...OTHERS]);
    const marks = takeAnnotations(doc.getPage(0), frame);
    expect(marks.map(({ kind }) => kind)).toEqual([
      'stroke',
      'stroke',
      'path',
      'shape',
      'shape',
      'path',
      'path',
      'text',
      'note',
    ]);
    expect(marks.every(isMark)).toBe(true);
    const [ink, highlight, , square, circle, arrow, , text, note] = marks as never[] as Record<
      string,
      never
    >[];
    expect(ink!.style).toEqual({ nature: 'marker', colour: '#ff0000', width: 5.33, opacity: 1 });
    expect(highlight!.style).toMatchObject({ nature: 'highlighter', width: 26.67 });
    expect(square!.style).toMatchObject({ line: '#0000ff', fill: '#00ff00' });
    expect(circle!.style).toMatchObject({ line: null, fill: '#808080' });
    expect(arrow).toMatchObject({ heads: 'end', points: [200, 146.67, 333.33, 146.67] });
    expect(text).toMatchObject({ text: 'Load\nhere', style: { colour: '#0000ff', background: '#ffffff' } });
    expect(note).toMatchObject({ text: 'Why?', style: { colour: '#ff8000' } });
    const left = doc.getPage(0).node.Annots()!;
    expect(left.size()).toBe(OTHERS.length);
  });

  it.each([0, 90, 180, 270])('lie where pdf.js shows them on a page turned by %d°', async (turn) => {
    const doc = await annotated(ANNOTATIONS, turn);
    const bytes = await doc.save();
    const marks = takeAnnotations(doc.getPage(0), frame);
    const page = await (await opened(bytes)).getPage(1);
    const shown = page.getViewport({ scale: 96 / 72 });
    const { width, height } = shown;
    const [x, y] = shown.convertToViewportPoint(70, 50) as [number, number];
    const [ink] = marks as Extract<Mark, { kind: 'stroke' }>[];
    expect(ink!.points[4]).toBeCloseTo(x, 1);
    expect(ink!.points[5]).toBeCloseTo(y, 1);
    // And what is handed out has them there, in their colours.
    const surface = { kind: 'pdf', material: 'm', index: 0 } as const;
    const bare = await doc.save();
    const sources = { pdf: () => Promise.resolve(bare), font: () => Promise.resolve(andika) };
    const handed = [{ page: aPage({ width, height, surface }), marks }];
    const made = await makePdf(handed, sources as unknown as HandoutSources, { title: 'x' });
    const at = await shownBy(made);
    const points = page.getViewport({ scale: 1 });
    const colourAt = (px: number, py: number) =>
      at(...(points.convertToViewportPoint(px, py).map(Math.round) as [number, number]));
    expect(colourAt(175, 40)).toBe('#00ff00');
    expect(colourAt(235, 40)).toBe('#808080');
    expect(colourAt(60, 160)).toBe('#ffff00');
    expect(colourAt(45, 40)).toBe('#ff0000');
  });

  it('that are broken in any way are left, and never make a mark that is none', async () => {
    const value = fc.oneof(
      fc.constant([1, 2, 3, 4, 5, 6, 7, 8]),
      fc.array(fc.oneof(fc.integer(), fc.double({ noNaN: true, noDefaultInfinity: true })), { maxLength: 9 }),
      fc.constantFrom(null, true, 'x', [[1, 2]], [[]], { W: 1e12 }, { W: -1 }),
    );
    const keys = [
      'Rect',
      'InkList',
      'QuadPoints',
      'L',
      'Vertices',
      'C',
      'IC',
      'BS',
      'Border',
      'CA',
      'RD',
      'LE',
      'F',
    ];
    const any = fc.record(
      {
        Subtype: fc.constantFrom(...ANNOTATIONS.map(({ Subtype }) => Subtype)),
        ...Object.fromEntries(keys.map((key) => [key, value])),
      },
      { requiredKeys: ['Subtype'] },
    );
    const doc = await PDFDocument.create();
    fc.assert(
      fc.property(any, (fields) => {
        const page = doc.addPage([300, 200]);
        page.node.addAnnot(doc.context.register(doc.context.obj({ Type: 'Annot', ...fields } as never)));
        const marks = takeAnnotations(page, frame);
        expect(marks.every(isMark)).toBe(true);
        expect(page.node.Annots()!.size()).toBe(marks.length > 0 ? 0 : 1);
      }),
    );
  });

  it('have their colours in any of three spaces', () => {
    expect([hexOf([0.5]), hexOf([1, 0, 0.2]), hexOf([0, 1, 1, 0]), hexOf([0, 0, 0, 1])]).toEqual([
      '#808080',
      '#ff0033',
      '#ff0000',
      '#000000',
    ]);
  });
});
