import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Mark, PlacedWord } from '../src/index.js';
import { PageWords, readingOf } from '../src/index.js';
import { aShape, aStroke, aText, LINE_STYLE } from './helpers/marks.js';

/** Lines of words, ten units a letter, forty units from line to line. */
const WORDS: PlacedWord[] = ['A beam bends where', 'the load is', 'and an arch pushes outwards'].flatMap(
  (line, row) => {
    let x = 0;
    return line.split(' ').map((text) => {
      const word = { text, x, y: row * 40, width: text.length * 10, height: 16 };
      x += text.length * 10 + 10;
      return word;
    });
  },
);
const words = new PageWords(WORDS);
const through = (...points: [number, number][]) => points.flatMap(([x, y], i) => [x, y, 0.5, i * 16]);
/** A ring of ink round a box. */
const ring = (x: number, y: number, width: number, height: number) =>
  through(
    ...Array.from({ length: 25 }, (_, i): [number, number] => [
      x + (width / 2) * (1 + Math.cos((i / 24) * 2 * Math.PI)),
      y + (height / 2) * (1 + Math.sin((i / 24) * 2 * Math.PI)),
    ]),
  );
const read = (...marks: Mark[]) =>
  readingOf(words, marks).map((part) => {
    if (part.kind === 'more') return `and ${part.count} more`;
    if (part.kind === 'line') return part.text;
    return part.touched ? `${part.touched.act}: ${part.touched.words}` : part.mark.kind;
  });

describe('a page that is read out', () => {
  it('is its lines in their order', () => {
    expect(read()).toEqual(['A beam bends where', 'the load is', 'and an arch pushes outwards']);
    expect(readingOf(undefined, [])).toEqual([]);
  });

  it('has a mark after the line that it lies on, and says what was done to which words', () => {
    const circled = aStroke({ points: ring(60, 72, 60, 30) });
    const underlined = aStroke({ points: through([20, 20], [60, 20]) });
    const struck = aStroke({ points: through([40, 47], [78, 47]) });
    expect(read(circled, underlined, struck)).toEqual([
      'A beam bends where',
      'underlined: beam',
      'the load is',
      'struck: load',
      'and an arch pushes outwards',
      'circled: arch',
    ]);
  });

  it('says framed, circled and highlighted of shapes and highlighters, and leaves the rest as it is described', () => {
    const box = { x: 60, y: 75, width: 60, height: 28, rotation: 0 };
    const style = { ...LINE_STYLE, fill: null };
    expect(read(aShape({ ...box, style }))).toContain('framed: arch');
    expect(read(aShape({ ...box, style, form: 'ellipse' }))).toContain('circled: arch');
    const nature = { nature: 'highlighter', colour: '#ffee00', width: 20, opacity: 1 } as const;
    expect(read(aStroke({ style: nature, points: through([78, 88], [102, 88]) }))).toContain(
      'highlighted: arch',
    );
    expect(read(aText({ text: 'Pier', x: 0, y: 300 })).at(-1)).toBe('text');
    expect(read(aStroke({ points: through([0, 400], [10, 440], [20, 400]) })).at(-1)).not.toContain(':');
  });

  it('only counts marks when there are very many', () => {
    const parts = read(...Array.from({ length: 230 }, () => aText({ text: 'Pier', y: 300 })));
    expect(parts.at(-1)).toBe('and 30 more');
    expect(parts).toHaveLength(3 + 200 + 1);
  });

  it('loses no line and no mark, wherever marks lie', () => {
    const place = fc.integer({ min: -50, max: 400 });
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { maxLength: 12 }), (places) => {
        const marks = places.map(([x, y]) => aText({ x, y }));
        const parts = readingOf(words, marks);
        const said = parts.flatMap((part) => (part.kind === 'mark' ? [part.mark.id] : []));
        expect(said.sort()).toEqual(marks.map(({ id }) => id).sort());
        expect(parts.filter(({ kind }) => kind === 'line')).toHaveLength(3);
      }),
    );
  });
});
