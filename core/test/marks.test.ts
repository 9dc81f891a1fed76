import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { makePdf } from '../src/handout/index.js';
import type { Change, Mark, MarkKind, PaintItem } from '../src/index.js';
import {
  applyChanges,
  applyMatrix,
  flattenPath,
  invertChanges,
  isMark,
  isMarkPatch,
  isPage,
  isPagePatch,
  isScenePart,
  markBounds,
  packMark,
  packPoints,
  paintMark,
  snapshotOf,
  stateOf,
  unpackMark,
  unpackPoints,
} from '../src/index.js';
import { anyMark, KINDS } from './helpers/anyMark.js';
import { aPage, aStroke, aText } from './helpers/marks.js';

/** Points at the edge of what is drawn of an item. */
function edge(item: PaintItem): [number, number][] {
  if (item.kind === 'fill') return flattenPath(item.path);
  if (item.kind === 'line') {
    const reach = item.width / 2;
    return flattenPath(item.path).flatMap(([x, y]): [number, number][] => [
      [x - reach, y],
      [x + reach, y],
      [x, y - reach],
      [x, y + reach],
    ]);
  }
  const { x, y, width, matrix } = item;
  // Of letters what lies between baseline and a low capital's height; glyphs reach farther than that.
  const [top, bottom] = item.kind === 'text' ? [y - item.size * 0.6, y] : [y, y + item.height];
  const corners: [number, number][] = [
    [x, top],
    [x + width, top],
    [x, bottom],
    [x + width, bottom],
  ];
  return matrix ? corners.map((corner) => applyMatrix(matrix, ...corner)) : corners;
}

describe.each(KINDS)('a %s', (kind: MarkKind) => {
  it('lies with all that is drawn of it within its bounds', () => {
    fc.assert(
      fc.property(anyMark(kind), (mark) => {
        const { x, y, width, height } = markBounds(mark);
        const slack = 0.02 + 1e-6 * Math.max(width, height);
        const drawn = paintMark(mark).flatMap(edge);
        const outside = drawn.filter(
          ([px, py]) =>
            !(px > x - slack && px < x + width + slack && py > y - slack && py < y + height + slack),
        );
        expect(outside).toEqual([]);
      }),
      { numRuns: kind === 'stroke' ? 60 : 300 },
    );
  });

  it('is taken in, and in no way that a field is changed to nonsense', () => {
    const nonsense = fc.constantFrom<unknown>(
      undefined,
      null,
      NaN,
      -Infinity,
      {},
      [],
      'x'.repeat(11_000),
      () => 1,
    );
    fc.assert(
      fc.property(anyMark(kind), nonsense, fc.nat(), (mark, value, n) => {
        expect(isMark(mark)).toBe(true);
        const keys = Object.keys(mark).filter((key) => mark[key as keyof Mark] !== null);
        const key = keys[n % keys.length]!;
        const isText = typeof value === 'string' && typeof mark[key as keyof Mark] === 'string';
        const isNone = Array.isArray(value) && key === 'parts';
        if (!isNone && !(value === null && ['group', 'alt', 'from', 'to'].includes(key)))
          expect(isMark({ ...mark, [key]: value })).toBe(isText && isMark({ ...mark, [key]: value }));
        for (const evil of ['__proto__', 'constructor', 'toString'])
          expect(isMark(withOwn(mark, evil))).toBe(false);
        expect(isMarkPatch(kind, withOwn({ order: 'a1' }, '__proto__'))).toBe(false);
      }),
    );
  });

  it('comes back as it was after it is removed, changed or packed, and that is taken back', () => {
    fc.assert(
      fc.property(anyMark(kind), anyMark(kind), (mark, other) => {
        const state = stateOf({ pages: [aPage()], marks: [mark] });
        const { order, style } = { ...other, order: 'a5' };
        const parts = other.kind === 'text' ? { parts: other.parts ?? [] } : {};
        const all: Change[][] = [
          [{ do: 'remove', mark: mark.id }],
          [{ do: 'patch', mark: mark.id, set: { order, style, ...parts } }],
          [
            { do: 'add', mark: other },
            { do: 'remove', mark: mark.id },
          ],
        ];
        for (const changes of all) {
          const inverse = invertChanges(state, changes);
          applyChanges(state, changes);
          applyChanges(state, inverse);
          expect(snapshotOf(state, 0).marks).toEqual([mark]);
        }
        expect(unpackMark(JSON.parse(JSON.stringify(packMark(mark))) as Mark)).toEqual(mark);
      }),
    );
  });
});

describe('a handout of any marks', () => {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-marks-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const require = createRequire(import.meta.url);
  const font = new Uint8Array(
    readFileSync(require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf')),
  );
  const pixel = Uint8Array.from(
    Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  );
  const picture = { bytes: pixel, width: 20, height: 28, baseline: 20 };

  // qpdf is the judge: it reads every object and content stream (ISO 32000-1).
  it.each(KINDS)('with %s is a PDF that qpdf has nothing to say against', async (kind) => {
    const marks = fc.sample(anyMark(kind), { numRuns: 60, seed: 9 });
    const bytes = await makePdf(
      [{ page: aPage(), marks }],
      {
        pdf: () => Promise.reject(new Error('there is no document')),
        font: () => Promise.resolve(font),
        picture: () => Promise.resolve({ bytes: pixel, type: 'png' }),
        textPicture: () => Promise.resolve(picture),
        pagePicture: () => Promise.reject(new Error('there is no document')),
        webLayout: () => Promise.reject(new Error('there is no web page')),
      },
      { title: 'Any marks' },
    );
    const path = join(folder, `${kind}.pdf`);
    writeFileSync(path, bytes);
    expect(execFileSync('qpdf', ['--check', path], { encoding: 'utf8' })).toContain('No syntax or stream');
    expect(Buffer.from(bytes).includes('NaN')).toBe(false);
  });

  it.each([
    [
      'reach into each other',
      [
        { from: 0, to: 4, bold: true },
        { from: 3, to: 6, bold: true },
      ],
    ],
    [
      'stand in the wrong order',
      [
        { from: 5, to: 6 },
        { from: 0, to: 1 },
      ],
    ],
    ['hold nothing', [{ from: 3, to: 3, bold: true }]],
    ['begin before the text', [{ from: -1, to: 3, bold: true }]],
    ['lie between letters', [{ from: 0.5, to: 3, bold: true }]],
    ['are far too large', [{ from: 0, to: 3, scale: 11 }]],
    ['have something unheard of', [{ from: 0, to: 3, font: 'serif' }]],
    ['are no list', { 0: { from: 0, to: 3 } }],
  ])('has no text whose parts %s', (_, parts) => {
    expect(isMark(aText({ parts: [{ from: 0, to: 3, bold: true }] }))).toBe(true);
    expect(isMark({ ...aText(), parts })).toBe(false);
    expect(isMarkPatch('text', { parts })).toBe(false);
    expect(isMarkPatch('stroke', { parts: [] })).toBe(false);
  });

  it('has no crop of almost nothing', () => {
    const mark = fc.sample(anyMark('picture'), { numRuns: 1, seed: 1 })[0] as Extract<
      Mark,
      { kind: 'picture' }
    >;
    for (const width of [0, 1e-300, 0.0009])
      expect(isMark({ ...mark, crop: { ...mark.crop, width } })).toBe(false);
  });
});

describe('what comes from outside', () => {
  it.each(['__proto__', 'constructor', 'toString', 'sitting'])(
    'is no page or scene with a field %s',
    (key) => {
      expect(isPage(aPage())).toBe(true);
      expect(isPage(withOwn(aPage(), key))).toBe(false);
      expect(isPagePatch(withOwn({ title: 'x' }, key))).toBe(false);
      expect(isPage(aPage({ surface: withOwn({ kind: 'web', material: 'm' }, key) as never }))).toBe(false);
      expect(isScenePart(withOwn({ focus: null }, key))).toBe(false);
      expect(isScenePart({ focus: withOwn({}, key) })).toBe(false);
      expect(isScenePart({ focus: key, timer: undefined })).toBe(false);
    },
  );
});

describe('packed points', () => {
  const whole = fc.array(fc.tuple(coordinate(), coordinate(), fc.nat(1000), fc.nat(3_600_000)), {
    minLength: 1,
    maxLength: 80,
  });

  it('come back to the last digit', () => {
    fc.assert(
      fc.property(whole, (all) => {
        const points = all.flatMap(([x, y, p, t]) => [x / 100, y / 100, p / 1000, t]);
        expect(unpackPoints(packPoints(points)!)).toEqual(points);
      }),
    );
  });

  it('are left alone where they are finer than what is stored', () => {
    expect(packPoints([1.001, 2, 0.5, 0])).toBeUndefined();
    const fine = aStroke({ points: [1 / 3, 2, 0.5, 0] });
    expect(packMark(fine)).toBe(fine);
  });

  it('take a third of the room that numbers take', () => {
    // A hand's stroke: 60 points, 16 ms apart.
    const points = Array.from({ length: 60 }, (_, i) => [
      Math.round(20000 + 900 * Math.sin(i / 9) + i * 210) / 100,
      Math.round(30000 + 700 * Math.cos(i / 7)) / 100,
      Math.round(500 + 200 * Math.sin(i / 5)) / 1000,
      i * 16,
    ]).flat();
    expect(packPoints(points)!.length).toBeLessThan(JSON.stringify(points).length / 2.5);
  });

  it('are told from nonsense', () => {
    for (const bad of ['', '*', 'AA==', '/////////w==', 'AAAA'])
      expect([bad, unpackPoints(bad)]).toEqual([bad, undefined]);
    fc.assert(
      fc.property(fc.string(), (text) => {
        const points = unpackPoints(text);
        expect(points === undefined || points.length % 4 === 0).toBe(true);
      }),
    );
  });
});

function coordinate() {
  return fc.integer({ min: -10_000_000, max: 10_000_000 });
}

/** The value with one more key of its own, whatever it is called. */
function withOwn(value: object, key: string): object {
  return Object.defineProperty({ ...value }, key, { value: 1, enumerable: true });
}
