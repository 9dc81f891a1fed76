import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Mark } from '../src/index.js';
import type { Glue, GluedMark } from '../src/glue/index.js';
import { pageAnnotations, readAnnotations } from '../src/glue/index.js';
import { anyMark, KINDS } from './helpers/anyMark.js';
import { aStroke, common } from './helpers/marks.js';

const ADDRESS = 'https://docs.example/bridges';
const at = { x: 10, y: 20, width: 30, height: 12 };
const quote = { exact: 'a beam', prefix: 'is called ', suffix: '. When', start: 40 };
const GLUES: Glue[] = [
  { to: 'words', frames: [], quote, at },
  { to: 'element', frames: [], name: { css: '#map', print: 'img' }, stretches: true, at },
  { to: 'page' },
];
const anyMarks = fc.constantFrom(...KINDS).chain(anyMark);
const read = (value: unknown) => readAnnotations(JSON.stringify(value), ADDRESS, common);

describe('marks of a page as Web Annotations', () => {
  it('come back as they were', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(anyMarks, fc.constantFrom(...GLUES)), { maxLength: 8 }), (all) => {
        const marks = all.map(([mark, glue]): GluedMark => ({ mark, glue }));
        const back = readAnnotations(pageAnnotations(marks, ADDRESS, 'Bridges'), ADDRESS, common);
        expect(back).toMatchObject({ elsewhere: 0, unread: 0 });
        expect(back.marks.map(({ glue }) => glue)).toEqual(marks.map(({ glue }) => glue));
        const plain = ({ mark }: GluedMark): Mark => ({ ...mark, points: [] }) as unknown as Mark;
        expect(back.marks.map(plain)).toEqual(marks.map(plain));
      }),
    );
  });

  it('say where they are in the words of the standard (Web Annotation Data Model §4.2)', () => {
    const [mark] = [aStroke()];
    const file = JSON.parse(
      pageAnnotations(
        GLUES.map((glue) => ({ mark, glue })),
        ADDRESS,
        'Bridges',
      ),
    ) as { type: string; total: number; first: { items: { target: { selector: unknown } }[] } };
    expect(file).toMatchObject({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'AnnotationCollection',
      total: 3,
      first: { type: 'AnnotationPage' },
    });
    const [byWords, byElement, byPlace] = file.first.items.map(({ target }) => target.selector);
    expect(byWords).toMatchObject([
      { type: 'TextQuoteSelector', exact: 'a beam', refinedBy: { type: 'SvgSelector' } },
      { type: 'TextPositionSelector', start: 40, end: 46 },
    ]);
    expect(byElement).toMatchObject({
      type: 'CssSelector',
      value: '#map',
      refinedBy: { type: 'SvgSelector' },
    });
    expect(byPlace).toMatchObject({ type: 'SvgSelector' });
  });
});

describe('Web Annotations of other programs', () => {
  // Examples of the Web Annotation Data Model (W3C Recommendation, 23 February 2017), by their numbers there.
  const example22 = {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://example.org/anno23',
    type: 'Annotation',
    body: 'http://example.org/comment1',
    target: {
      source: 'http://example.org/page1',
      selector: {
        type: 'TextQuoteSelector',
        exact: 'anotation',
        prefix: 'this is an ',
        suffix: ' that has some',
      },
    },
  };

  it('become marked words, as the example of TextQuoteSelector says', () => {
    const { marks } = readAnnotations(JSON.stringify(example22), 'http://example.org/page1#top', common);
    expect(marks).toHaveLength(1);
    expect(marks[0]!.mark).toMatchObject({ kind: 'quote', exact: 'anotation', prefix: 'this is an ' });
    expect(marks[0]!.glue).toMatchObject({ to: 'words', quote: { suffix: ' that has some' } });
  });

  it('bring along who made them, when, in which colour and what is said', () => {
    const { marks } = read({
      type: 'AnnotationPage',
      items: [
        {
          type: 'Annotation',
          creator: { type: 'Person', name: 'Ada Winter' },
          created: '2015-10-13T13:00:00Z',
          body: [{ type: 'TextualBody', value: 'Look here', format: 'text/plain' }],
          stylesheet: { type: 'CssStylesheet', value: '.red { color: #AA1122 }' },
          target: { source: ADDRESS, selector: [{ type: 'TextQuoteSelector', exact: 'beam' }] },
        },
      ],
    });
    expect(marks[0]!.mark).toMatchObject({
      credit: 'Ada Winter',
      createdAt: Date.UTC(2015, 9, 13, 13),
      alt: 'Look here',
      style: { colour: '#aa1122' },
    });
  });

  it('are counted where they are of another page, or say nothing by which they are found', () => {
    const target = { source: ADDRESS, selector: { type: 'FragmentSelector', value: 'xywh=50,50,640,480' } };
    expect(
      read([
        { type: 'Annotation', target: 'https://docs.example/other' },
        { type: 'Annotation', target },
        { type: 'Annotation', target: [] },
        {
          type: 'Annotation',
          target: { source: ADDRESS, selector: { type: 'TextQuoteSelector', exact: 5 } },
        },
        'no annotation',
      ]),
    ).toMatchObject({ marks: [], elsewhere: 2, unread: 2 });
  });

  it('are nothing where the file is something else, and refused where it is no JSON', () => {
    expect(read(5)).toEqual({ marks: [], elsewhere: 0, unread: 0 });
    expect(read({ type: 'Collection' })).toEqual({ marks: [], elsewhere: 0, unread: 0 });
    expect(() => readAnnotations('<html>', ADDRESS, common)).toThrow(SyntaxError);
  });

  it('never throw, whatever they hold', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (target, body) => {
        const items = [
          { type: 'Annotation', target, body },
          target,
          { target: { source: ADDRESS, selector: body } },
        ];
        expect(() => read({ items })).not.toThrow();
      }),
    );
  });
});
