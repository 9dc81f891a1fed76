import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ContentWriter } from '../src/handout/contentWriter.js';
import { TOLERANCE } from '../src/handout/ink/fillInk.js';
import type { Path } from '../src/index.js';
import { fewerCurves, outline, outlineCorners } from '../src/index.js';

const text = (writer: ContentWriter) => new TextDecoder().decode(writer.bytes());

/** The ends of the steps of a filled path, in the space round it: `cm` and path operators of ISO 32000-1 annex A. */
function endsIn(content: string): [number, number][] {
  let [scale, dx, dy] = [1, 0, 0];
  const ends: [number, number][] = [];
  for (const line of content.trim().split('\n')) {
    const parts = line.split(' ');
    const numbers = parts.slice(0, -1).map(Number);
    const operator = parts.at(-1)!;
    if (operator === 'cm') [scale, dx, dy] = [numbers[0]!, numbers[4]!, numbers[5]!];
    if ('mlc'.includes(operator) && numbers.length >= 2) {
      const [x, y] = numbers.slice(-2) as [number, number];
      ends.push([x * scale + dx, y * scale + dy]);
    }
  }
  return ends;
}

const place = fc.integer({ min: -20_000, max: 200_000 }).map((n) => n / 100);

describe('a filled path in a content stream', () => {
  it('lies where it was drawn, to a tenth of a unit', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { minLength: 8, maxLength: 40 }), (corners) => {
        const path: Path = corners.map(([x, y], i) => [i === 0 ? 'M' : 'L', x, y] as const);
        const writer = new ContentWriter();
        writer.fill(path, 'f');
        expectPlaces(endsIn(text(writer)), corners);
      }),
    );
  });

  it('is written as it is', () => {
    const writer = new ContentWriter();
    writer.fill([['M', 1, 2], ['L', 3.25, 4], ['L', 5, 6], ['Z']], 'f*');
    expect(text(writer)).toBe('1 2 m\n3.3 4 l\n5 6 l\nh\nf*\n');
  });
});

describe('ink in a content stream', () => {
  const style = { nature: 'pen', colour: '#000000', width: 4, opacity: 1 } as const;
  const drawn = (x: number, y: number) => ({
    points: Array.from({ length: 30 }, (_, i) => [x + i * 3.3, y + 20 * Math.sin(i / 3), 0.5, i * 16]).flat(),
    style,
  });

  it('lies where it was drawn, to a tenth of a unit, wherever that is', () => {
    fc.assert(
      fc.property(place, place, (x, y) => {
        const ink = drawn(x, y);
        const writer = new ContentWriter();
        writer.ink(outlineCorners(ink));
        const ends = fewerCurves(outline(ink), TOLERANCE).flatMap((step): [number, number][] =>
          step[0] === 'Z' ? [] : [step.slice(-2) as [number, number]],
        );
        expectPlaces(endsIn(text(writer)), ends);
      }),
    );
  });

  it('is shorter than the same path without a frame of its own', () => {
    const [framed, plain] = [new ContentWriter(), new ContentWriter()];
    framed.ink(outlineCorners(drawn(700, 900)));
    plain.path(outline(drawn(700, 900)));
    expect(text(framed).length).toBeLessThan(0.8 * text(plain).length);
  });

  it('leaves what is set, and the space, as they were', () => {
    const writer = new ContentWriter();
    writer.set('rg', '1 0 0');
    writer.ink(outlineCorners(drawn(9, 9)));
    writer.set('rg', '1 0 0');
    const content = text(writer);
    expect(content.match(/ rg/g)).toHaveLength(1);
    expect(content).toMatch(/^1 0 0 rg\nq\n/);
    expect(content).toMatch(/f\nQ\n$/);
  });

  it('that has no extent is left out', () => {
    const writer = new ContentWriter();
    writer.ink([[1, 1]]);
    expect(text(writer).trim()).toBe('');
  });
});

function expectPlaces(ends: [number, number][], drawn: readonly (readonly [number, number])[]): void {
  expect(ends).toHaveLength(drawn.length);
  for (const [i, [x, y]] of ends.entries()) {
    expect(Math.abs(x - drawn[i]![0])).toBeLessThanOrEqual(0.0501);
    expect(Math.abs(y - drawn[i]![1])).toBeLessThanOrEqual(0.0501);
  }
}
