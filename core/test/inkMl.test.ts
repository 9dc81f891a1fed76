import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  elementsNamed,
  inkMlFile,
  parseXml,
  readInkMl,
  textIn,
  UnreadableFile,
} from '../src/formats/index.js';
import type { Mark, StrokeMark } from '../src/index.js';
import { isMark } from '../src/index.js';
import { anyMark } from './helpers/anyMark.js';
import { aPage, aStroke, aText, common } from './helpers/marks.js';

const ROOM = { width: 800, height: 600 };
const written = (marks: readonly Mark[], people = {}) =>
  new TextDecoder().decode(inkMlFile([{ page: aPage(), marks }], { title: 'Rivers', people }));

/** What makes a mark of what was read. */
const marksOf = (xml: string) =>
  readInkMl(xml, ROOM).map((page) =>
    page.map(({ body, credit, createdAt = 0 }) => ({
      ...common(),
      ...body,
      createdAt,
      ...(credit !== undefined && { credit }),
    })),
  );

describe('ink as InkML', () => {
  it('comes back as it was, whoever wrote it and with whatever pen', () => {
    const strokes = fc.array(
      fc
        .tuple(anyMark('stroke'), fc.integer({ min: 1, max: 2e12 }))
        .map(([mark, createdAt]) => ({ ...mark, createdAt }) as StrokeMark),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(strokes, (all) => {
        const [read, ...others] = marksOf(written(all, { ada: 'Ada & Co <1>' }));
        expect(others).toEqual([]);
        expect(read!.every(isMark)).toBe(true);
        const plain = all.map(({ style, points, pressure, createdAt }) => ({
          style,
          pressure,
          createdAt,
          credit: 'Ada & Co <1>',
          points: times(points),
        }));
        expect(read).toMatchObject(plain);
      }),
    );
  });

  it('has a group for each page, and leaves out what is no ink', () => {
    const pages = [
      { page: aPage({ title: 'Map' }), marks: [aStroke(), aText()] },
      { page: aPage({ id: 'b' }), marks: [] },
      { page: aPage({ id: 'c' }), marks: [aStroke(), aStroke()] },
    ];
    const xml = new TextDecoder().decode(inkMlFile(pages, { title: 'x' }));
    expect(marksOf(xml).map((page) => page.length)).toEqual([1, 0, 2]);
    const groups = elementsNamed('traceGroup', parseXml(xml));
    const names = groups.flatMap(({ children }) =>
      children
        .filter(({ attributes }) => attributes['type'] === 'page')
        .map(({ children: own }) => textIn(own)),
    );
    expect(names).toEqual(['Map', '2', '3']);
  });

  // Elements and where they may stand: W3C Ink Markup Language (InkML), 20 September 2011, §2 to §5.
  it('is built as the Recommendation has it', () => {
    const [, ink] = parseXml(written([aStroke()])).filter(({ name }) => name !== '');
    expect(ink).toMatchObject({ name: 'ink', attributes: { xmlns: 'http://www.w3.org/2003/InkML' } });
    const inside = (name: string) => elementsNamed(name, [ink!]);
    const ALLOWED: Record<string, string[]> = {
      ink: ['definitions', 'context', 'trace', 'traceGroup', 'traceView', 'annotation', 'annotationXML'],
      definitions: [
        'brush',
        'canvas',
        'context',
        'inkSource',
        'timestamp',
        'traceFormat',
        'trace',
        'traceGroup',
      ],
      context: ['canvas', 'canvasTransform', 'traceFormat', 'inkSource', 'brush', 'timestamp'],
      inkSource: ['traceFormat', 'sampleRate', 'latency', 'activeArea', 'srcProperty', 'channelProperties'],
      traceFormat: ['channel', 'intermittentChannels'],
      brush: ['annotation', 'annotationXML', 'brushProperty'],
      traceGroup: ['trace', 'traceGroup', 'annotation', 'annotationXML'],
    };
    for (const [name, allowed] of Object.entries(ALLOWED))
      for (const node of inside(name))
        for (const child of node.children.filter((each) => each.name !== ''))
          expect(allowed, `${child.name} in ${name}`).toContain(child.name);
    // §3.1.2: the names of channels; §5.2: the properties of brushes.
    expect(inside('channel').map(({ attributes }) => attributes['name'])).toEqual(['X', 'Y', 'F', 'T']);
    const properties = [
      'width',
      'height',
      'color',
      'transparency',
      'tip',
      'rasterOp',
      'antiAliased',
      'fitToCurve',
    ];
    for (const { attributes } of inside('brushProperty')) expect(properties).toContain(attributes['name']);
    // Every reference leads somewhere.
    const ids = [...written([aStroke()]).matchAll(/xml:id="([^"]+)"/g)].map(([, id]) => `#${id}`);
    for (const [, reference] of written([aStroke()]).matchAll(/Ref="([^"]+)"/g))
      expect(ids).toContain(reference);
  });
});

describe('InkML of others', () => {
  // The first example of the Recommendation (§1.3), the word "hello"; from memory.
  const HELLO = `<ink xmlns="http://www.w3.org/2003/InkML">
  <trace>10 0, 9 14, 8 28, 7 42, 6 56, 6 70, 8 84, 8 98, 8 112, 9 126, 10 140,
    13 154, 14 168, 17 182, 18 188, 23 174, 30 160, 38 147, 49 135,
    58 124, 72 121, 77 135, 80 149, 82 163, 84 177, 87 191, 93 205</trace>
  <trace>130 155, 144 159, 158 160, 170 154, 179 143, 179 129, 166 125,
    152 128, 140 136, 131 149, 126 163, 124 177, 128 190, 137 200,
    150 208, 163 210, 178 208, 192 201, 205 192, 214 180</trace>
</ink>`;

  it('is put on one page and fitted into it where nobody says how large it is', () => {
    const [page, ...others] = marksOf(HELLO);
    expect(others).toEqual([]);
    expect(page!.map((mark) => ('points' in mark ? mark.points.length / 4 : 0))).toEqual([27, 20]);
    const all = page!.flatMap((mark) => ('points' in mark ? mark.points : []));
    const xs = all.filter((_, i) => i % 4 === 0);
    const ys = all.filter((_, i) => i % 4 === 1);
    expect(Math.min(...xs)).toBeGreaterThanOrEqual(80 - 0.01);
    expect(Math.max(...xs)).toBeLessThanOrEqual(720.01);
    expect(Math.max(...ys)).toBeCloseTo(540, 0);
    // In the same proportions.
    const k = (Math.max(...xs) - Math.min(...xs)) / (214 - 6);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(210 * k, 0);
  });

  // §3.2.2 of the Recommendation: single and double differences, and what they amount to; from memory.
  it('may tell differences, and differences of them', () => {
    const xml = `<ink><trace>1125 18432,'23'43,"7"-8,3-5,7 -3,6 2,6 8,3 6</trace></ink>`;
    const flat = readInkMl(`<ink><context xml:id="c"/>${xml.slice(5)}`, ROOM)[0]![0]!.body;
    const points = 'points' in flat ? flat.points : [];
    const told = [
      [1125, 18432],
      [1148, 18475],
      [1178, 18510],
      [1211, 18540],
      [1251, 18567],
      [1297, 18596],
      [1349, 18633],
      [1404, 18676],
    ];
    const k = (points[28]! - points[0]!) / (1404 - 1125);
    told.forEach(([x, y], i) => {
      expect((points[4 * i]! - points[0]!) / k).toBeCloseTo(x! - 1125, 0);
      expect((points[4 * i + 1]! - points[1]!) / k).toBeCloseTo(y! - 18432, 0);
    });
  });

  it('may repeat a value or a difference by a star', () => {
    const units = '<traceFormat><channel name="X" units="mm"/><channel name="Y" units="mm"/></traceFormat>';
    const xml = `<ink><definitions>${units}</definitions><trace>10 10,'5'0,**,'-5*</trace></ink>`;
    const { body } = readInkMl(xml, ROOM)[0]![0]!;
    const mm =
      'points' in body ? body.points.filter((_, i) => i % 4 < 2).map((v) => Math.round((v * 25.4) / 96)) : [];
    expect(mm).toEqual([10, 10, 15, 10, 20, 10, 15, 10]);
  });

  it('is as large as its units or the resolution of its device say, with the pressure that pens tell', () => {
    const xml = `<ink xmlns="http://www.w3.org/2003/InkML"><definitions>
      <context xml:id="c"><inkSource xml:id="s">
        <traceFormat><channel name="Y" type="integer" units="dev"/><channel name="X" type="integer" units="dev"/>
          <intermittentChannels><channel name="F" type="integer" min="0" max="1023"/></intermittentChannels></traceFormat>
        <channelProperties><channelProperty channel="X" name="resolution" value="1000" units="1/in"/>
          <channelProperty channel="Y" name="resolution" value="1000" units="1/in"/></channelProperties>
      </inkSource></context>
      <brush xml:id="b"><brushProperty name="width" value="100" units="himetric"/>
        <brushProperty name="color" value="#FF0000"/><brushProperty name="transparency" value="128"/></brush>
    </definitions><trace contextRef="#c" brushRef="#b">500 1000 1023, 500 2000 0</trace></ink>`;
    const { body } = readInkMl(xml, ROOM)[0]![0]!;
    expect(body).toMatchObject({
      points: [96, 48, 1, 0, 192, 48, 0, 10],
      pressure: true,
      style: { nature: 'pen', colour: '#ff0000', width: 3.78, opacity: 0.498 },
    });
  });

  it('that is none is said to be none, and whatever is in it, no mark is made that is none', () => {
    for (const text of ['', 'no xml', '<svg/>', '<ink', '<a>'.repeat(50)])
      expect(() => readInkMl(text, ROOM)).toThrow(UnreadableFile);
    const piece = fc.constantFrom("'", '"', '!', '*', '?', ',', ' ', '7', '-3', '1e9', '#ff', 'x', '.5', 'T');
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), (pieces) => {
        const marks = marksOf(
          `<ink><trace>${pieces.join('').replaceAll('"', '&quot;')}</trace></ink>`,
        ).flat();
        expect(marks.every(isMark)).toBe(true);
      }),
    );
  });
});

/** Times as they are told: whole milliseconds since the first point. */
function times(points: readonly number[]): number[] {
  return points.map((value, i) => (i % 4 === 3 ? Math.max(0, value - points[3]!) : value));
}
