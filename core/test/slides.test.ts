import type { Mark } from '../src/index.js';
import { slidesFile } from '../src/formats/index.js';
import type { HandoutPage, HandoutSources } from '../src/handout/index.js';
import { strFromU8, unzipSync } from 'fflate';
import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { aNote, aPage, aPath, aShape, aStroke, aText, common } from './helpers/marks.js';

/** English Metric Units to an inch and to a point (ECMA-376 part 1, §20.1.2.1). */
const EMU = { inch: 914_400, point: 12_700 };
const PIXEL = Uint8Array.from(
  Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  ),
);
const sources: Partial<HandoutSources> = {
  picture: () => Promise.resolve({ bytes: PIXEL, type: 'png' }),
  pagePicture: () => Promise.resolve({ bytes: PIXEL, type: 'png' }),
};

/** The parts of a presentation as another program's parser (jsdom's, of XML) reads them. */
async function deckOf(pages: readonly HandoutPage[]) {
  const files = unzipSync(await slidesFile(pages, sources as HandoutSources, { title: 'Rivers & seas' }));
  const read = (name: string) =>
    new JSDOM(strFromU8(files[name]!), { contentType: 'application/xml' }).window.document;
  return { names: Object.keys(files), read, slide: (n: number) => read(`ppt/slides/slide${n}.xml`) };
}

const all = (node: Document | Element, name: string) => [...node.getElementsByTagName(name)];
const attribute = (node: Document | Element, name: string, key: string) =>
  all(node, name)[0]?.getAttribute(key);

async function only(mark: Mark, alt = 'What it is') {
  const { slide } = await deckOf([{ page: aPage(), marks: [mark], alts: { [mark.id]: alt } }]);
  const own = [...all(slide(1), 'p:sp'), ...all(slide(1), 'p:pic')].filter(
    (each) => attribute(each, 'p:cNvPr', 'name') !== 'Paper',
  );
  return own;
}

describe('pages as slides', () => {
  it('are as large as the first page, and others are fitted in', async () => {
    const wide = aPage({ id: 'b', width: 400, height: 1200 });
    const { read, slide, names } = await deckOf([
      { page: aPage(), marks: [] },
      {
        page: wide,
        marks: [aShape({ x: 0, y: 0, width: 400, height: 1200, style: { ...aShape().style, line: null } })],
      },
    ]);
    expect(names.filter((name) => /slides\/slide\d+\.xml$/.test(name))).toHaveLength(2);
    const size = all(read('ppt/presentation.xml'), 'p:sldSz')[0]!;
    expect(Number(size.getAttribute('cx'))).toBeCloseTo((800 / 96) * EMU.inch, -2);
    expect(Number(size.getAttribute('cy'))).toBeCloseTo((600 / 96) * EMU.inch, -2);
    const shape = all(slide(2), 'p:sp').at(-1)!;
    expect(Number(attribute(shape, 'a:ext', 'cy'))).toBeCloseTo((600 / 96) * EMU.inch, -2);
    expect(Number(attribute(shape, 'a:ext', 'cx'))).toBeCloseTo((200 / 96) * EMU.inch, -2);
    expect(Number(attribute(shape, 'a:off', 'x'))).toBeCloseTo((300 / 96) * EMU.inch, -2);
  });

  it('have ink as free-form lines through its points, as wide as it is', async () => {
    const points = Array.from({ length: 30 }, (_, i) => [100 + 10 * i, 200, 0.5, 16 * i]).flat();
    const [shape, ...others] = await only(
      aStroke({ points, style: { nature: 'marker', colour: '#0072b2', width: 8, opacity: 0.5 } }),
      'Ink <1>',
    );
    expect(others).toEqual([]);
    expect(attribute(shape!, 'p:cNvPr', 'name')).toBe('Ink <1>');
    expect(all(shape!, 'a:custGeom')).toHaveLength(1);
    expect(all(shape!, 'a:lnTo').length + all(shape!, 'a:cubicBezTo').length).toBeGreaterThan(0);
    expect(Number(attribute(shape!, 'a:ln', 'w')) / EMU.point).toBeCloseTo(6, 0);
    expect(attribute(shape!, 'a:srgbClr', 'val')?.toLowerCase()).toBe('0072b2');
    expect(attribute(shape!, 'a:alpha', 'val')).toBe('50000');
    expect(Number(attribute(shape!, 'a:off', 'x'))).toBeCloseTo((100 / 96) * EMU.inch, -2);
    expect(Number(attribute(shape!, 'a:ext', 'cx'))).toBeCloseTo((290 / 96) * EMU.inch, -2);
  });

  it('have typed text as text, letter by letter as it looks', async () => {
    const parts = [{ from: 4, to: 7, bold: true, scale: 2, colour: '#d55e00' }];
    const [box] = await only(aText({ text: 'The Big & <One>', parts, rotation: -30 }));
    expect(all(box!, 'a:t').map(({ textContent }) => textContent)).toEqual(['The ', 'Big', ' & <One>']);
    const runs = all(box!, 'a:rPr');
    expect(runs.map((run) => run.getAttribute('sz'))).toEqual(['1500', '3000', '1500']);
    expect(runs.map((run) => run.getAttribute('b'))).toEqual([null, '1', null]);
    expect(attribute(runs[1]!, 'a:srgbClr', 'val')).toBe('D55E00');
    expect(attribute(box!, 'a:xfrm', 'rot')).toBe(String(330 * 60_000));
    expect(attribute(box!, 'a:latin', 'typeface')).toBe('Andika');
  });

  it('have each line of a text as a paragraph', async () => {
    const [box] = await only(aText({ text: 'one\ntwo' }));
    expect(all(box!, 'a:p').map(({ textContent }) => textContent.trim())).toEqual(['one', 'two']);
  });

  it('have notes, shapes and arrows as objects, and pictures as pictures with their description', async () => {
    const [note] = await only(aNote({ text: 'Why?' }));
    expect(all(note!, 'a:t')[0]!.textContent).toBe('Why?');
    expect(attribute(note!, 'a:srgbClr', 'val')).toBe('F0E442');
    expect((await only(aShape())).map((each) => all(each, 'a:path').length)).toEqual([1, 1]);
    expect(await only(aPath({ heads: 'both' }))).toHaveLength(3);
    const [picture] = await only({
      ...common(),
      kind: 'picture',
      material: 'p',
      ...{ x: 96, y: 96, width: 192, height: 96, rotation: 20, flip: true },
      crop: { x: 0.25, y: 0, width: 0.5, height: 1 },
      style: { opacity: 0.5 },
    });
    expect(attribute(picture!, 'p:cNvPr', 'descr')).toBe('What it is');
    const crop = all(picture!, 'a:srcRect')[0]!;
    expect(['l', 'r', 't', 'b'].map((side) => crop.getAttribute(side))).toEqual(['25000', '25000', '0', '0']);
    expect(attribute(picture!, 'a:xfrm', 'rot')).toBe(String(20 * 60_000));
    expect(attribute(picture!, 'a:xfrm', 'flipH')).toBe('1');
    expect(attribute(picture!, 'a:alphaModFix', 'amt')).toBe('50000');
    expect(Number(attribute(picture!, 'a:ext', 'cx'))).toBeCloseTo(2 * EMU.inch, -2);
  });

  it('have the original as a picture under the marks, and what the speaker has beside it', async () => {
    const page = aPage({ surface: { kind: 'pdf', material: 'm', index: 0 }, title: 'Map' });
    const { slide, read, names } = await deckOf([{ page, marks: [aStroke()], notes: 'Ask for the source' }]);
    const picture = all(slide(1), 'p:pic')[0]!;
    expect(attribute(picture, 'p:cNvPr', 'descr')).toBe('Map');
    expect(Number(attribute(picture, 'a:ext', 'cx'))).toBeCloseTo((800 / 96) * EMU.inch, -2);
    const notes = names.find((name) => /notesSlides\/notesSlide\d+\.xml$/.test(name))!;
    expect(read(notes).documentElement.textContent).toContain('Ask for the source');
  });
});
