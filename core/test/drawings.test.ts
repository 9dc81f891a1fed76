import { Resvg } from '@resvg/resvg-js';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { indexIn, lineDrawings } from '../../scripts/lineDrawings.mjs';
import { ICON_SIDE, linesOfIcon } from '../../scripts/iconLines.mjs';
import type { LineDrawing } from '../src/drawings/index.js';
import { DrawingMatcher, drawingBounds, placedDrawing } from '../src/drawings/index.js';
import { Form } from '../src/drawings/form.js';
import { readSvg } from '../src/formats/index.js';
import type { Mark } from '../src/index.js';
import { boundsOf, isMark } from '../src/index.js';
import { seeded } from './hand/random.mjs';
import { redrawn } from './hand/redrawn.mjs';
import { common } from './helpers/marks.js';

const drawings = lineDrawings(readSvg);
const matcher = new DrawingMatcher(drawings);
const named = (id: string) => drawings.find((drawing) => drawing.id === id)!;

/** Lines as they are, as points of strokes. */
function asStrokes(lines: LineDrawing['lines']): number[][] {
  return lines.map(({ points, closed }) => {
    const all = closed ? [...points, ...points.slice(0, 2)] : points;
    return Array.from({ length: all.length / 2 }, (_, i) => [all[2 * i]!, all[2 * i + 1]!, 0.5, i]).flat();
  });
}

describe('the clean drawings', () => {
  it('are some hundred things, each with lines, a name and words in each language', () => {
    expect(drawings.length).toBeGreaterThan(300);
    expect(new Set(drawings.map(({ id }) => id)).size).toBe(drawings.length);
    for (const { id, lines } of drawings) expect(lines.length, id).toBeGreaterThan(0);
    const [en, de] = [indexIn('en'), indexIn('de')];
    for (const names of [en, de]) {
      expect(names.map(([id]) => id).sort()).toEqual(drawings.map(({ id }) => id).sort());
      for (const [id, name] of names) expect(name, id).toMatch(/^\p{L}/u);
    }
    // Words: Unicode CLDR, annotations of 26F5.
    expect(en.find(([id]) => id === 'sailboat')?.[2]).toContain('boat');
    expect(de.find(([id]) => id === 'sailboat')).toEqual([
      'sailboat',
      'Segelboot',
      expect.stringContaining('boot'),
    ]);
  });

  it('are drawn as another renderer (resvg) draws the files that they come from', () => {
    const require = createRequire(new URL('../../web/package.json', import.meta.url));
    const ink = (svg: string) => {
      const { pixels } = new Resvg(svg, { fitTo: { mode: 'width', value: 48 } }).render();
      return Array.from({ length: pixels.length / 4 }, (_, i) => pixels[4 * i + 3]!);
    };
    for (const id of ['apple', 'sailboat', 'bike', 'castle', 'snail', 'cloud-rain', 'scissors']) {
      const file = readFileSync(require.resolve(`lucide-static/icons/${id}.svg`), 'utf8');
      const paths = named(id).lines.map(
        ({ points, closed }) => `<path d="M${points.join(' ')}${closed ? 'Z' : ''}"/>`,
      );
      const own = `<svg xmlns="http://www.w3.org/2000/svg" width="24" height="24" viewBox="0 0 ${ICON_SIDE} ${ICON_SIDE}" fill="none" stroke="currentColor" stroke-width="${ICON_SIDE / 12}" stroke-linecap="round" stroke-linejoin="round">${paths.join('')}</svg>`;
      const [theirs, ours] = [ink(file), ink(own)];
      const off = theirs.reduce((sum, alpha, i) => sum + Math.abs(alpha - ours[i]!), 0);
      expect(off / theirs.reduce((sum, alpha) => sum + alpha, 0), id).toBeLessThan(0.05);
    }
  });
});

describe('a rough drawing', () => {
  it('is found among twelve for at least 80 of 100 that a hand has drawn from memory, and mostly first', () => {
    let [first, among] = [0, 0];
    for (let i = 0; i < 100; i++) {
      const random = seeded(2600 + i);
      const { id, lines } = drawings[(i * 37) % drawings.length]!;
      const found = matcher
        .best(redrawn(lines, random.between(120, 400), random), 12)
        .map((match) => match.id);
      if (found[0] === id) first += 1;
      if (found.includes(id)) among += 1;
      expect(found).toHaveLength(12);
    }
    expect(among).toBeGreaterThanOrEqual(95);
    expect(first).toBeGreaterThanOrEqual(85);
  });

  it('is found where somebody else has drawn the thing in their own way', () => {
    // The same things in another set, by other hands (Tabler icons, MIT).
    const require = createRequire(new URL('../../bench/package.json', import.meta.url));
    const { icons } = JSON.parse(
      readFileSync(require.resolve('@iconify-json/tabler/icons.json'), 'utf8'),
    ) as {
      icons: Record<string, { body: string } | undefined>;
    };
    const others = drawings.flatMap(({ id }) => {
      const lines = linesOfIcon(icons[id]?.body ?? '', readSvg);
      return lines.length > 0 ? [{ id, lines }] : [];
    });
    expect(others.length).toBeGreaterThan(150);
    const found = others.filter(({ id, lines }) =>
      matcher.best(asStrokes(lines), 12).some((match) => match.id === id),
    );
    expect(found.length / others.length).toBeGreaterThan(0.8);
  });

  it('is itself where it is not rough at all, however large it is, wherever and in whatever order', () => {
    fc.assert(
      fc.property(
        fc.nat(drawings.length - 1),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        fc.double({ min: -900, max: 900, noNaN: true }),
        fc.boolean(),
        (n, scale, shift, reversed) => {
          const { id, lines } = drawings[n]!;
          const strokes = asStrokes(lines).map((stroke) =>
            stroke.map((v, i) => (i % 4 < 2 ? v * scale + shift : v)),
          );
          const [best] = matcher.best(reversed ? strokes.toReversed() : strokes, 12);
          expect(best!.id).toBe(id);
        },
      ),
      { numRuns: 40, seed: 15 },
    );
  });

  it('is nothing where it has no length', () => {
    expect(matcher.best([], 12)).toEqual([]);
    expect(matcher.best([[10, 10, 0.5, 0]], 12)).toEqual([]);
    expect(Form.of([[[3, 3], [3, 3]]])).toBeUndefined(); // prettier-ignore
    expect(matcher.best([[0, 0, 0.5, 0, 100, 0, 0.5, 9]], 3)).toHaveLength(3);
  });
});

describe('a clean drawing on a page', () => {
  const ink = { nature: 'pencil', colour: '#123456', width: 4, opacity: 0.9 } as const;
  const box = { x: 100, y: 200, width: 300, height: 150 };

  it('lies in the middle of its box, as large as that, in its own proportions and in the look of the ink', () => {
    for (const drawing of drawings) {
      const marks = placedDrawing(drawing, box, ink).map((body): Mark => {
        const mark = { ...common(), ...body } as Mark;
        expect(isMark(mark), drawing.id).toBe(true);
        return mark;
      });
      const own = drawingBounds(drawing);
      const corners = marks.flatMap((mark) => ('points' in mark ? [mark] : []));
      expect(corners).toHaveLength(drawing.lines.length);
      const bounds = boundsOf(marks)!;
      expect(bounds.x + bounds.width / 2, drawing.id).toBeCloseTo(250, -1);
      expect(bounds.y + bounds.height / 2, drawing.id).toBeCloseTo(275, -1);
      if (own.width > 100 && own.height > 100)
        expect((bounds.width - 4) * (bounds.height - 4)).toBeCloseTo(300 * 150, -4);
    }
  });

  it('is ink where its lines are open, and paths that can be filled where they are closed', () => {
    const bodies = placedDrawing(named('sailboat'), box, ink);
    expect(new Set(bodies.map(({ kind }) => kind))).toEqual(new Set(['stroke', 'path']));
    for (const body of bodies) {
      if (body.kind === 'stroke') expect(body.style).toEqual(ink);
      if (body.kind === 'path')
        expect(body).toMatchObject({
          closed: true,
          style: { line: '#123456', width: 4, fill: null, opacity: 0.9 },
        });
    }
  });
});
