import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { HandoutSources, WebLayout } from '../src/handout/index.js';
import { makePdf } from '../src/handout/index.js';
import { sheetsOf } from '../src/handout/webPages.js';
import { aPage } from './helpers/marks.js';
import { line } from './helpers/originals.js';
import { opened, shownBy } from './helpers/render.js';

const onePixel = Uint8Array.from(
  Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8/5/hPwAIAgL/4d1j8wAAAABJRU5ErkJggg==',
    'base64',
  ),
);
/** ISO 216 A4. */
const RATIO = 297 / 210;

describe('a long page on sheets of paper', () => {
  it('is whole on them, and none is longer than paper is', () => {
    const text = fc.record({ y: fc.nat(3000), height: fc.integer({ min: 5, max: 60 }) });
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 3000 }), fc.array(text), (height, some) => {
        const sheets = sheetsOf(
          { width: 400, height },
          some.map((one) => ({ x: 0, width: 90, ...one })),
        );
        let end = 0;
        for (const { y, height: own } of sheets) {
          expect(y).toBeCloseTo(end, 6);
          expect(own).toBeLessThanOrEqual(400 * RATIO + 1e-6);
          end = y + own;
        }
        // A rest of half a unit is no sheet of its own.
        expect(end).toBeLessThanOrEqual(height + 1e-6);
        expect(end).toBeGreaterThanOrEqual(height - 0.5);
      }),
    );
    const sheets = sheetsOf({ width: 400, height: 2263 }, []);
    expect(sheets).toHaveLength(4);
  });

  it('breaks between lines, also of columns that do not stand side by side', () => {
    const lines = Array.from({ length: 100 }, (_, i) => [
      { x: 0, y: i * 21, width: 100, height: 18 },
      { x: 200, y: i * 23 + 3, width: 100, height: 14 },
    ]).flat();
    for (const { y, height } of sheetsOf({ width: 400, height: 2100 }, lines).slice(0, -1)) {
      const place = y + height;
      expect(lines.filter((one) => one.y < place - 0.5 && one.y + one.height > place + 0.5)).toEqual([]);
    }
  });

  it('breaks through what is taller than that', () => {
    const [first] = sheetsOf({ width: 400, height: 2000 }, [{ x: 0, y: 100, width: 400, height: 1500 }]);
    expect(first!.height).toBeCloseTo(400 * RATIO, 3);
  });
});

describe('a web page handed out', () => {
  const page = aPage({ width: 400, height: 1000, surface: { kind: 'web', material: 'w' } });
  const layout: WebLayout = {
    texts: [
      { text: 'The mill bridge', x: 20, y: 20, width: 200, height: 30 },
      { text: 'Мост 橋 𐐷', x: 20, y: 700, width: 200, height: 30 },
    ],
    links: [
      { x: 20, y: 20, width: 100, height: 30, address: 'https://bridges.example/' },
      { x: 20, y: 60, width: 100, height: 30, to: 700 },
    ],
  };
  const parts: number[][] = [];
  const sources: Partial<HandoutSources> = {
    webLayout: () => Promise.resolve(layout),
    pagePicture: (_, { y, height }) => {
      parts.push([y, height]);
      return Promise.resolve({ bytes: onePixel, type: 'png' });
    },
  };
  const made = makePdf(
    [
      { page: aPage({ id: 'before', width: 300, height: 200 }), marks: [] },
      {
        page,
        marks: [line, { ...line, id: 'low', points: line.points.map((v, i) => (i % 4 === 1 ? 700 : v)) }],
      },
      { page: aPage({ id: 'after', width: 300, height: 200 }), marks: [line] },
    ],
    sources as HandoutSources,
    { title: 'Web' },
  );

  it('has its words on the sheets where they are seen, in every script', async () => {
    const doc = await opened(await made);
    expect(doc.numPages).toBe(4);
    const words = await Promise.all(
      [2, 3].map(async (n) => {
        const { items } = await (await doc.getPage(n)).getTextContent();
        return items.map((item) => ('str' in item ? item.str : '')).join('');
      }),
    );
    expect(words).toEqual(['The mill bridge', 'Мост 橋 𐐷']);
    expect(parts.map(([y]) => Math.round(y!))).toEqual([0, 566]);
    // The run ends where it ends on the page: 200 of 400 units of 595 points.
    const { items } = await (await doc.getPage(2)).getTextContent();
    expect((items[0] as { width: number }).width).toBeCloseTo(297.6, 0);
  });

  it('is read alike by poppler, also where its letters are many', async () => {
    const many = Array.from({ length: 400 }, (_, i) => String.fromCodePoint(0x4e00 + i)).join('');
    const texts = [...layout.texts, { text: many, x: 0, y: 200, width: 399, height: 20 }];
    const bytes = await makePdf(
      [{ page, marks: [] }],
      { ...sources, webLayout: () => Promise.resolve({ texts, links: [] }) } as HandoutSources,
      { title: 'Web' },
    );
    const words = (n: string) =>
      execFileSync('pdftotext', ['-f', n, '-l', n, '-', '-'], { input: bytes, encoding: 'utf8' }).trim();
    expect(words('1').split(/\s+/)).toEqual(['The', 'mill', 'bridge', many]);
    expect(words('2').split(/\s+/)).toEqual(['Мост', '橋', '𐐷']);
  });

  it('has its links, to addresses and within', async () => {
    const doc = await opened(await made);
    type Link = { rect: number[]; dest: never[] };
    const [out, within] = (await (await doc.getPage(2)).getAnnotations()) as [Link, Link];
    expect(out).toMatchObject({ url: 'https://bridges.example/' });
    expect(out.rect.map(Math.round)).toEqual([30, 767, 179, 812]);
    expect(await doc.getPageIndex(within.dest[0]!)).toBe(2);
  });

  it('has what was written on it on the sheets where it was written, and the next page its own', async () => {
    const bytes = await made;
    const scale = 595.28 / 400;
    const [top, low, next] = await Promise.all([1, 2, 3].map((index) => shownBy(bytes, index)));
    expect(top!(200, Math.round(133 * scale))).toBe('#0000ff');
    expect(top!(200, Math.round(500 * scale))).not.toBe('#0000ff');
    expect(low!(200, Math.round((700 - 565.7) * scale))).toBe('#0000ff');
    expect(next!(150, 100)).toBe('#0000ff');
  });
});
