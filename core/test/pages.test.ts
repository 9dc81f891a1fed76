import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  FORMATS,
  isPage,
  isPagePatch,
  isRulingKnown,
  pageExtent,
  paintRuling,
  RULINGS,
  UNITS_PER_MM,
} from '../src/index.js';
import '../src/rulings/index.js';
import type { NumberLine, PathStep, Ruling } from '../src/index.js';
import { aPage } from './helpers/marks.js';

const page = { width: FORMATS.a4.height, height: FORMATS.a4.width };
const rule = (ruling: Ruling, spacing: number) =>
  paintRuling(page, { kind: 'blank', colour: '#ffffff', ruling, spacing });
const starts = (path: readonly PathStep[]) => path.flatMap((step) => (step[0] === 'M' ? [step] : []));

describe('page formats', () => {
  it('have the sizes of ISO 216 (A4: 210 × 297 mm) and ANSI A (8.5 × 11 in)', () => {
    expect(FORMATS.a4.width / UNITS_PER_MM).toBeCloseTo(297);
    expect(FORMATS.a4.height / UNITS_PER_MM).toBeCloseTo(210);
    expect([FORMATS.letter.width / 96, FORMATS.letter.height / 96]).toEqual([11, 8.5]);
    expect(FORMATS.wide.width / FORMATS.wide.height).toBeCloseTo(16 / 9);
    expect(FORMATS.classic.width / FORMATS.classic.height).toBeCloseTo(4 / 3);
  });
});

describe('rulings', () => {
  it('are drawn at the distance asked for', () => {
    const [item] = rule('squared', 5);
    if (item?.kind !== 'line') throw new Error('squares are lines');
    const heights = starts(item.path).flatMap(([, x, y]) => (x === 0 ? [y] : []));
    expect((heights[1]! - heights[0]!) / UNITS_PER_MM).toBeCloseTo(5);
  });

  it('have four lines to a row of handwriting and five to a staff (common practice, no source)', () => {
    const writing = rule('handwriting', 6).flatMap((item) =>
      item.kind === 'line' ? starts(item.path).map(([, , y]) => y) : [],
    );
    const rows = [...writing].sort((a, b) => a - b);
    expect(rows.length % 4).toBe(0);
    expect((rows[1]! - rows[0]!) / UNITS_PER_MM).toBeCloseTo(6);
    const [staff] = rule('music', 3);
    if (staff?.kind !== 'line') throw new Error('staves are lines');
    expect(starts(staff.path).length % 5).toBe(0);
  });

  it('number the axes outwards from the middle', () => {
    const labels = rule('axes', 12).flatMap((item) => (item.kind === 'text' ? [item] : []));
    const one = labels.find(({ text, y }) => text === '1' && y > page.height / 2)!;
    expect(one.x + one.width / 2 - page.width / 2).toBeCloseTo(12 * UNITS_PER_MM);
    expect(labels.some(({ text }) => text === '−3')).toBe(true);
  });

  it('stay within reason on the largest page', () => {
    for (const ruling of RULINGS)
      expect(
        paintRuling({ width: 2000, height: 2000 }, { kind: 'blank', colour: '#12352a', ruling, spacing: 10 })
          .length,
      ).toBeLessThan(800);
  });

  it('are circles and rays round the middle, every 15°, numbered every 30°', () => {
    const [circles, axes, ...numbers] = rule('polar', 10);
    if (circles?.kind !== 'line' || axes?.kind !== 'line') throw new Error('circles are lines');
    const middle = [page.width / 2, page.height / 2] as const;
    const radii = circles.path.flatMap((step) =>
      step[0] === 'C' ? [Math.hypot(step[5] - middle[0], step[6] - middle[1]) / UNITS_PER_MM] : [],
    );
    for (const radius of radii) expect(radius / 10).toBeCloseTo(Math.round(radius / 10), 3);
    expect(Math.min(...radii)).toBeCloseTo(10, 6);
    const rays = starts([...circles.path, ...axes.path]).filter(
      ([, x, y]) => x === middle[0] && y === middle[1],
    );
    expect(rays).toHaveLength(24);
    expect(numbers.map((item) => (item.kind === 'text' ? item.text : ''))).toEqual(
      Array.from({ length: 12 }, (_, n) => `${30 * n}°`),
    );
  });

  it('are number lines with the ends and steps that were chosen, whose numbers do not touch', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -999, max: 999 }),
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom(0.1, 0.25, 1, 5, 20),
        (from, count, step) => {
          // prettier-ignore
          const line = { from, to: from + count * step, step };
          const items = paintRuling(page, { kind: 'blank', colour: '#ffffff', ruling: 'numberLine', spacing: 40, line }); // prettier-ignore
          const written = items.flatMap((item) => (item.kind === 'text' ? [item] : []));
          const first = written.filter(({ y }) => y === written[0]!.y);
          expect(Number(first[0]!.text.replace('−', '-'))).toBeCloseTo(from, 6);
          for (let n = 1; n < first.length; n++)
            expect(first[n]!.x).toBeGreaterThan(first[n - 1]!.x + first[n - 1]!.width);
        },
      ),
    );
    const marks = (line: NumberLine) => {
      const [drawn] = paintRuling(page, { kind: 'blank', colour: '#ffffff', ruling: 'numberLine', spacing: 500, line }); // prettier-ignore
      return drawn?.kind === 'line' ? starts(drawn.path).length - 3 : 0;
    };
    expect(marks({ from: 0, to: 20, step: 1 })).toBe(21);
    expect(marks({ from: -1, to: 1, step: 0.1 })).toBe(21);
  });

  it('are fetched when they are first wanted, but for those that most pages have', () => {
    const blank = { kind: 'blank', colour: '#ffffff', spacing: 10 } as const;
    expect(isRulingKnown({ ...blank, ruling: 'squared' })).toBe(true);
    // `core/rulings` was imported above.
    expect(RULINGS.every((ruling) => isRulingKnown({ ...blank, ruling }))).toBe(true);
  });

  it('take only number lines that can be', () => {
    const surface = { kind: 'blank', colour: '#ffffff', ruling: 'numberLine', spacing: 40 } as const;
    const takes = (line: unknown) => isPagePatch({ surface: { ...surface, line } });
    expect(isPagePatch({ surface })).toBe(true);
    expect(takes({ from: -5, to: 5, step: 0.5 })).toBe(true);
    const wrong: unknown[] = [
      { from: 5, to: 5, step: 1 },
      { from: 0, to: 1, step: 2 },
      { from: 0, to: 5, step: 0 },
      { from: 0, to: 5, step: -1 },
      { from: 0, to: 1e6, step: 1 },
      { from: 0, to: Number.NaN, step: 1 },
      { from: 0, to: 5 },
      null,
    ];
    for (const line of wrong) expect(takes(line)).toBe(false);
  });
});

describe('a boundless page', () => {
  const boundless = (ruling: Ruling) =>
    ({ kind: 'blank', colour: '#ffffff', ruling, spacing: 10, boundless: true }) as const;

  it('takes its own size and whatever lies beyond', () => {
    const own = aPage({ width: 400, height: 300, surface: boundless('plain') });
    expect(pageExtent(own)).toEqual({ x: 0, y: 0, width: 400, height: 300 });
    const { x, y, width, height } = pageExtent(own, [{ x: -500, y: 100, width: 50, height: 900 }, undefined]);
    expect(x).toBeLessThan(-500);
    expect([y, x + width]).toEqual([0, 400]);
    expect(y + height).toBeGreaterThan(1000);
    expect(pageExtent(aPage({ width: 400, height: 300 }), [{ x: -500, y: 0, width: 9, height: 9 }]).x).toBe(
      0,
    );
  });

  it('is ruled alike wherever one looks', () => {
    const own = { width: 400, height: 300 };
    const step = 10 * UNITS_PER_MM;
    const heights = (y: number) => {
      const [item] = paintRuling(own, boundless('lined'), { x: -90, y, width: 400, height: 300 });
      if (item?.kind !== 'line') throw new Error('rules are lines');
      return starts(item.path).map(([, , at]) => at);
    };
    for (const y of [-977, -3, 0, 1234]) {
      const lines = heights(y);
      expect(lines.length).toBeGreaterThanOrEqual(Math.floor(300 / step));
      for (const line of lines) expect((line - 150) / step).toBeCloseTo(Math.round((line - 150) / step));
    }
  });

  it('is ruled with fewer lines where very much of it is in sight', () => {
    const [item] = paintRuling({ width: 400, height: 300 }, boundless('dotted'), {
      x: -20_000,
      y: -20_000,
      width: 40_000,
      height: 40_000,
    });
    if (item?.kind !== 'fill') throw new Error('dots are filled');
    expect(starts(item.path).length).toBeLessThan(31_000);
    expect(starts(item.path).length).toBeGreaterThan(500);
  });
});

describe('pages from outside', () => {
  it('are told from nonsense', () => {
    expect(isPage(aPage())).toBe(true);
    for (const bad of [null, {}, aPage({ width: NaN }), aPage({ width: 1e9 }), { ...aPage(), more: 1 }])
      expect(isPage(bad)).toBe(false);
    const surface = { kind: 'blank', colour: '#ffffff', ruling: 'wavy', spacing: 5 };
    expect(isPage({ ...aPage(), surface })).toBe(false);
    expect(isPage(aPage({ surface: { kind: 'picture', material: 'p1' } }))).toBe(true);
    expect(isPage({ ...aPage(), surface: { kind: 'picture', material: 7 } })).toBe(false);
    expect(isPagePatch({ title: 'Arches', removed: true })).toBe(true);
    expect(isPagePatch({ id: 'other' })).toBe(false);
  });
});
