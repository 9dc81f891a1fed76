import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { readSvg, svgPage, UnreadableFile } from '../src/formats/index.js';
import type { Mark } from '../src/index.js';
import { isMark, markBounds } from '../src/index.js';
import { aPage, aPath, aShape, aText, common } from './helpers/marks.js';

const ROOM = { width: 800, height: 600 };
const svg = (inside: string, attributes = 'width="800" height="600"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`;
const marksOf = (xml: string): Mark[] =>
  readSvg(xml, ROOM).marks.map(({ body }) => ({ ...common(), ...body }));
const only = (inside: string, attributes?: string): Record<string, never> => {
  const [mark, ...others] = marksOf(svg(inside, attributes));
  expect(others).toEqual([]);
  return mark as never;
};

describe('an SVG', () => {
  // SVG 2 §10: the path that each basic shape stands for.
  it.each([
    ['<rect x="10" y="20" width="30" height="40"/>', [10, 20, 40, 20, 40, 60, 10, 60]],
    ['<line x1="1" y1="2" x2="3" y2="4" stroke="red"/>', [1, 2, 3, 4]],
    ['<polyline points="0,0 10 5 20,0" stroke="#000" fill="none"/>', [0, 0, 10, 5, 20, 0]],
    ['<polygon points="0,0 10 5 20,0"/>', [0, 0, 10, 5, 20, 0]],
    ['<path d="m10 10h5v5H10z"/>', [10, 10, 15, 10, 15, 15, 10, 15]],
  ])('%s has its corners', (inside, points) => {
    expect(only(inside)).toMatchObject({ kind: 'path', points });
  });

  it('has its circles, rounded corners and arcs as round as they are', () => {
    for (const inside of [
      '<circle cx="50" cy="60" r="20"/>',
      '<path d="M30 60A20 20 0 1 1 70 60A20 20 0 0 1 30 60z"/>',
    ]) {
      const { points } = only(inside) as unknown as { points: number[] };
      for (let i = 0; i < points.length; i += 2)
        expect(Math.hypot(points[i]! - 50, points[i + 1]! - 60)).toBeCloseTo(20, 1);
    }
    const rounded = only('<rect x="0" y="0" width="100" height="60" rx="20"/>') as unknown as Mark;
    const { width, height } = markBounds({
      ...rounded,
      style: { ...aPath().style, width: 0.5, line: null },
    } as Mark);
    expect([width, height].map(Math.round)).toEqual([101, 61]);
  });

  it('has colours, widths and dashes from attributes, styles, classes and those around it', () => {
    const css = '<style>.red, .dash { stroke: rgb(255, 0, 0) } .dash { stroke-dasharray: 4 2 }</style>';
    const look = (inside: string) => (only(inside) as unknown as { style: object }).style;
    expect(look(`${css}<g fill="none" stroke-width="4"><path class="dash" d="M0 0L9 9"/></g>`)).toEqual({
      line: '#ff0000',
      width: 4,
      dash: 'dashed',
      fill: null,
      opacity: 1,
    });
    expect(
      look('<rect width="9" height="9" style="fill:rebeccapurple;fill-opacity:50%" fill="red"/>'),
    ).toMatchObject({
      fill: '#663399',
      opacity: 0.5,
    });
    expect(
      look('<g opacity=".5" color="#00f"><rect width="9" height="9" fill="currentColor" opacity=".5"/></g>'),
    ).toMatchObject({ fill: '#0000ff', opacity: 0.25 });
  });

  it('is where transforms, inner pictures and uses put it (CSS Transforms 1 §8)', () => {
    const dot = '<line x1="0" y1="0" x2="10" y2="0" stroke="#000"/>';
    expect(only(`<g transform="translate(100 50) rotate(90) scale(2)">${dot}</g>`)).toMatchObject({
      points: [100, 50, 100, 70],
      style: { width: 2 },
    });
    expect(only(`<g transform="matrix(1 0 0 1 5 6)"><g transform="skewX(45)">${dot}</g></g>`)).toMatchObject({
      points: [5, 6, 15, 6],
    });
    expect(only(`<defs><g id="d">${dot}</g></defs><use href="#d" x="7" y="8"/>`)).toMatchObject({
      points: [7, 8, 17, 8],
    });
    expect(marksOf(svg('<g id="a"><use href="#a"/></g>'))).toEqual([]);
  });

  it('is as large as it says, in units of length, and made smaller where there is no room', () => {
    const line = '<line x1="0" y1="0" x2="10" y2="10" stroke="#000"/>';
    // 96 pixels to the inch (CSS Values 4 §6.2); in the middle of the room.
    expect(only(line, 'width="1in" height="1in" viewBox="0 0 10 10"')).toMatchObject({
      points: [352, 252, 448, 348],
    });
    expect(only(line, 'viewBox="0 0 10 10" width="9000" height="9000"')).toMatchObject({
      points: [100, 0, 700, 600],
    });
  });

  it('with holes becomes a filling with holes', () => {
    const ring = '<path fill="#0f0" d="M0 0H90V90H0Z M30 30H60V60H30Z"/>';
    const mark = only(ring) as unknown as { kind: string; rings: number[][] };
    expect(mark.kind).toBe('fill');
    expect(mark.rings.map((each) => each.length)).toEqual([8, 8]);
  });

  it('has words that can be changed, where they stand', () => {
    const text = only(
      '<text x="100" y="200" font-size="20" font-weight="700" fill="#d55e00">Fish &amp; chips</text>',
    );
    expect(text).toMatchObject({
      kind: 'text',
      text: 'Fish & chips',
      style: { size: 20, bold: true, colour: '#d55e00' },
    });
    const bounds = markBounds(text as unknown as Mark);
    expect(bounds.x).toBeGreaterThan(90);
    expect(bounds.y).toBeGreaterThan(170);
    expect(bounds.y + bounds.height).toBeLessThan(220);
    const two = marksOf(svg('<text x="1" y="20"><tspan>one</tspan><tspan x="1" dy="20">two</tspan></text>'));
    expect(two.map((mark) => (mark as { text?: string }).text)).toEqual(['one', 'two']);
  });

  it('says how much of it could not become marks', () => {
    expect(
      readSvg(svg('<image href="x.png"/><foreignObject/><rect width="9" height="9"/>'), ROOM),
    ).toMatchObject({
      left: 2,
      marks: [{}],
    });
  });

  it('that was handed out comes back where it was', () => {
    const marks = [
      aShape({ style: { ...aShape().style, fill: null } }),
      aPath({ points: [10, 10, 300, 40, 200, 300], heads: 'none' }),
      aText({ text: 'back again' }),
    ];
    const xml = svgPage({ page: aPage(), marks }, { title: 'x', hrefOf: () => undefined });
    const back = marksOf(xml).slice(1);
    expect(back.map(({ kind }) => kind)).toEqual(['path', 'path', 'text']);
    for (const [i, mark] of back.entries()) {
      const [a, b] = [markBounds(mark), markBounds(marks[i]!)];
      for (const side of ['x', 'y'] as const) expect(Math.abs(a[side] - b[side])).toBeLessThan(8);
    }
  });

  it('that is none, or broken, is said to be none, and never makes a mark that is none', () => {
    for (const text of ['', 'text', '<html/>', '<svg'])
      expect(() => readSvg(text, ROOM)).toThrow(UnreadableFile);
    const value = fc.constantFrom(
      '1e99',
      '-3',
      'NaN',
      '',
      '50%',
      '3em',
      'url(#x)',
      'rotate(x)',
      'M0 0L',
      'M1,1 2 2 3z',
    );
    const name = fc.constantFrom(
      'x',
      'width',
      'height',
      'd',
      'points',
      'transform',
      'fill',
      'stroke',
      'stroke-width',
      'r',
    );
    const tag = fc.constantFrom('rect', 'path', 'circle', 'polygon', 'text', 'g', 'use');
    const any = fc.tuple(tag, fc.array(fc.tuple(name, value), { maxLength: 6 }));
    fc.assert(
      fc.property(any, ([which, attributes]) => {
        const unique = [...new Map(attributes)].map(([key, own]) => `${key}="${own}"`).join(' ');
        expect(marksOf(svg(`<${which} stroke="red" ${unique}>a</${which}>`)).every(isMark)).toBe(true);
      }),
    );
  });

  it('far away has its words at the end of what a page can name', () => {
    for (const where of ['x="1e99"', 'y="-1e99"', 'transform="translate(1e99)"', `font-size="1e9" x="9"`]) {
      const mark = only(`<text ${where}>${'word '.repeat(500)}</text>`);
      expect(isMark(mark), where).toBe(true);
    }
  });

  // Icons that others drew: those of the interface (lucide-static is not here), as SVG files of a registry package.
  it('of many that others drew can be read', () => {
    const require = createRequire(import.meta.url);
    const folder = join(dirname(require.resolve('pdfjs-dist/package.json')), 'web', 'images');
    const files = readdirSync(folder).filter((file) => file.endsWith('.svg'));
    expect(files.length).toBeGreaterThan(20);
    const counts = files.map((file) => marksOf(readFileSync(join(folder, file), 'utf8')));
    expect(counts.flat().every(isMark)).toBe(true);
    expect(counts.filter((marks) => marks.length > 0).length).toBeGreaterThan(files.length * 0.9);
  });
});
