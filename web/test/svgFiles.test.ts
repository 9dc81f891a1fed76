import type { Mark } from '@doodla/core';
import { paintSurface, STAMPS } from '@doodla/core';
import type { HandoutPage, HandoutSources } from '@doodla/core/handout';
import { svgFiles, webPageFile } from '@doodla/core/formats';
import { createCanvas, GlobalFonts, loadImage } from '@napi-rs/canvas';
import { Resvg } from '@resvg/resvg-js';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { ssim } from 'ssim.js';
import { beforeAll, describe, expect, it } from 'vitest';
import { aNote, aPage, aPath, aShape, aStroke, aText, common } from '../../core/test/helpers/marks';
import { drawItems, drawMark } from '../src/canvas/markPainter';
import { canvasStandIn } from './helpers/canvasStandIn';

const require = createRequire(import.meta.url);
const FONT = require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf');
const BOLD = require.resolve('@expo-google-fonts/andika/Andika_700Bold.ttf');
const SIZE = { width: 800, height: 600 };

/** A picture of four colours, which shows how it is cropped and turned. */
function colours(): Buffer {
  const canvas = createCanvas(40, 40);
  const ctx = canvas.getContext('2d');
  for (const [i, colour] of ['#d55e00', '#0072b2', '#009e73', '#f0e442'].entries()) {
    ctx.fillStyle = colour;
    ctx.fillRect((i % 2) * 20, Math.floor(i / 2) * 20, 20, 20);
  }
  return canvas.toBuffer('image/png');
}

const wave = (y: number) =>
  Array.from({ length: 30 }, (_, i) => [40 + i * 9, y + 12 * Math.sin(i / 2), 0.3 + 0.02 * i, i * 16]).flat();
const ink = (nature: 'pen' | 'pencil' | 'marker' | 'chalk' | 'highlighter', y: number) =>
  aStroke({
    points: wave(y),
    style: { nature, colour: '#0072b2', width: nature === 'highlighter' ? 24 : 6, opacity: 0.6 },
  });
const MARKS: Record<string, Mark[]> = {
  ink: [ink('pen', 60), ink('pencil', 110), ink('marker', 160), ink('chalk', 210)],
  highlighter: [aText({ x: 40, y: 200, width: 300, text: 'Read this line' }), ink('highlighter', 215)],
  words: [
    aText({ text: 'Großes Wörterbuch', width: 300 }),
    aText({ x: 400, y: 300, text: 'turned & <signs>', rotation: 30, width: 260 }),
    aText({ y: 420, width: 300, text: 'with parts', parts: [{ from: 0, to: 4, bold: true, scale: 2 }] }),
  ],
  shapes: [
    aShape(),
    aShape({ form: 'star', x: 380, rotation: 20 }),
    aShape({
      form: 'balloon',
      y: 320,
      style: { line: '#000000', width: 4, dash: 'dashed', fill: null, opacity: 0.5 },
    }),
    aPath({ heads: 'both' }),
    aPath({ course: 'cubic', points: [400, 500, 500, 300, 600, 600, 700, 400] }),
  ],
  stamps: STAMPS.map((stamp, i) => ({
    ...common(),
    kind: 'stamp',
    stamp,
    label: '7',
    x: 30 + i * 90,
    y: 100,
    width: 70,
    height: 70,
    rotation: 10 * i,
    flip: i % 2 === 1,
    style: { colour: '#cc79a7' },
  })),
  pictures: [0, 30].map((rotation, i) => ({
    ...common(),
    kind: 'picture',
    material: 'p',
    x: 60 + 300 * i,
    y: 100,
    width: 200,
    height: 150,
    rotation,
    flip: i === 1,
    crop: { x: 0.25, y: 0, width: 0.5, height: 1 },
    style: { opacity: 0.8 },
  })),
  others: [
    aNote({ rotation: -8 }),
    {
      ...common(),
      kind: 'fill',
      rings: [
        [400, 100, 700, 100, 700, 400, 400, 400],
        [500, 200, 600, 200, 600, 300, 500, 300],
      ],
      style: { colour: '#56b4e9', opacity: 0.7 },
    },
    {
      ...common(),
      kind: 'quote',
      exact: 'a',
      prefix: '',
      suffix: '',
      start: 0,
      look: 'underline',
      rects: [50, 450, 200, 24],
      style: { colour: '#d55e00', opacity: 1 },
    },
  ],
};

const sources: Partial<HandoutSources> = {
  font: () => Promise.resolve(new Uint8Array(readFileSync(FONT))),
  picture: () => Promise.resolve({ bytes: new Uint8Array(colours()), type: 'png' }),
  pagePicture: () => Promise.resolve({ bytes: new Uint8Array(colours()), type: 'png' }),
  webLayout: () =>
    Promise.resolve({ texts: [{ x: 10, y: 10, width: 90, height: 16, text: 'printed words' }], links: [] }),
};

async function svgOf(handed: HandoutPage): Promise<string> {
  const made = svgFiles([handed], sources as HandoutSources, { title: 'Rivers' });
  for await (const { bytes } of made) return new TextDecoder().decode(bytes);
  throw new Error('no file was made');
}

/** How another program (resvg) shows an SVG. */
function shownBy(svg: string): ImageData {
  const font = { fontFiles: [FONT, BOLD], loadSystemFonts: false, defaultFontFamily: 'Andika' };
  const picture = new Resvg(svg, { font }).render();
  return {
    data: new Uint8ClampedArray(picture.pixels),
    width: picture.width,
    height: picture.height,
  } as ImageData;
}

/** How the canvas of the application shows it. */
async function onCanvas({ page, marks }: HandoutPage): Promise<ImageData> {
  const canvas = createCanvas(SIZE.width, SIZE.height);
  const ctx = canvas.getContext('2d');
  const bitmap = await loadImage(colours());
  const pictures = { get: () => bitmap } as never;
  drawItems(ctx as never, paintSurface(page), pictures);
  for (const mark of marks) drawMark(ctx as never, mark, pictures);
  return ctx.getImageData(0, 0, SIZE.width, SIZE.height) as unknown as ImageData;
}

beforeAll(() => {
  canvasStandIn();
  GlobalFonts.registerFromPath(FONT, 'Andika');
  GlobalFonts.registerFromPath(BOLD, 'Andika');
});

describe('a page as SVG', () => {
  // Structural similarity: Wang et al., IEEE Transactions on Image Processing 13 (2004), 600-612.
  it.each(Object.keys(MARKS))('shows %s in another program as on the canvas', async (which) => {
    const handed = { page: aPage(), marks: MARKS[which]! };
    const [ours, theirs] = [await onCanvas(handed), shownBy(await svgOf(handed))];
    expect([theirs.width, theirs.height]).toEqual([800, 600]);
    expect(ssim(ours, theirs).mssim).toBeGreaterThan(0.985);
    // Something is drawn, and not the same everywhere.
    const empty = await onCanvas({ page: aPage(), marks: [] });
    expect(ssim(empty, theirs).mssim).toBeLessThan(0.985);
  });

  it('has its words as words, with what marks are as titles', async () => {
    const marks = [aText({ text: 'Fish & <chips>', alt: 'The dish of "the day"' })];
    const svg = await svgOf({ page: aPage(), marks });
    expect(svg).toContain('>Fish &amp; &lt;chips&gt;</text>');
    expect(svg).toContain('<title>The dish of &quot;the day&quot;</title>');
    expect(svg).toContain("@font-face{font-family:'Andika'");
  });

  it('has the original as a picture with its words unseen over it', async () => {
    const page = aPage({ surface: { kind: 'pdf', material: 'm', index: 0 } });
    const svg = await svgOf({ page, marks: [] });
    expect(svg).toContain('>printed words</text>');
    const { data } = shownBy(svg);
    const at = (x: number, y: number) => [...data.slice(4 * (y * 800 + x), 4 * (y * 800 + x) + 3)];
    expect([at(100, 100), at(700, 100), at(100, 500)]).toEqual([
      [0xd5, 0x5e, 0],
      [0, 0x72, 0xb2],
      [0, 0x9e, 0x73],
    ]);
  });
});

describe('pages as one file', () => {
  it('need nothing else and run nothing', async () => {
    const pages = [
      { page: aPage({ title: 'Map <1>' }), marks: MARKS['pictures']! },
      { page: aPage(), marks: MARKS['words']! },
    ];
    const html = new TextDecoder().decode(
      await webPageFile(pages, sources as HandoutSources, { title: 'Rivers & seas', language: 'de' }),
    );
    const addresses = [...html.matchAll(/(?:href|src)="([^"]{0,40})|url\(([^)]{0,40})/g)];
    const others = addresses
      .map(([, inTag, inCss]) => inTag ?? inCss!)
      .filter((each) => !each.startsWith('data:'));
    expect(others).toEqual([]);
    expect(addresses.length).toBeGreaterThan(2);
    expect(html).toContain("default-src 'none'");
    expect(html).not.toContain('<script');
    expect(html).toContain('<html lang="de">');
    expect(html).toContain('<title>Rivers &amp; seas</title>');
    expect(html.match(/<section /g)).toHaveLength(2);
  });
});
