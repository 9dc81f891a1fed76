import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gridOf, guidedMove, guidedResize, placeOf } from '../src/construct/index.js';
import type { Page, Ruling } from '../src/index.js';
import { paintRuling, UNITS_PER_MM } from '../src/index.js';
import '../src/rulings/index.js';
import { aPage, aPath, aShape, aStroke } from './helpers/marks.js';

const box = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });

describe('what is moved', () => {
  const other = box(100, 100, 200, 100);

  it('meets edges and middles of others that it nearly meets, each axis for itself', () => {
    const left = guidedMove(box(0, 400, 50, 50), [other], { dx: 103, dy: 0 }, 8);
    expect([left.dx, left.dy]).toEqual([100, 0]);
    expect(left.guides).toEqual([{ axis: 'x', at: 100, from: 100, to: 450 }]);
    // Middles: 200 and 150.
    const both = guidedMove(box(0, 0, 50, 50), [other], { dx: 172, dy: 121 }, 8);
    expect([both.dx, both.dy]).toEqual([175, 125]);
    expect(both.guides.map(({ axis }) => axis)).toEqual(['x', 'y']);
  });

  it('is moved as the hand is where it meets nothing', () => {
    const far = guidedMove(box(0, 0, 50, 50), [other], { dx: 500, dy: 420 }, 8);
    expect(far).toEqual({ dx: 500, dy: 420, guides: [] });
    expect(guidedMove(box(0, 0, 50, 50), [], { dx: 3, dy: 4 }, 8)).toEqual({ dx: 3, dy: 4, guides: [] });
  });

  it('stands at equal gaps between two, and beside two as far as they are apart', () => {
    const row = [box(0, 0, 100, 40), box(300, 0, 100, 40)];
    const between = guidedMove(box(0, 2, 60, 30), row, { dx: 173, dy: 100 }, 6);
    expect(between.dx).toBe(173);
    const inRow = guidedMove(box(0, 2, 60, 30), row, { dx: 173, dy: 0 }, 6);
    expect(inRow.dx).toBe(170);
    expect(inRow.guides).toHaveLength(3);
    const [left, right] = inRow.guides;
    expect(left!.to - left!.from).toBe(right!.to - right!.from);
    expect(guidedMove(box(0, 2, 60, 30), row, { dx: 597, dy: 0 }, 6).dx).toBe(600);
    expect(guidedMove(box(0, 2, 60, 30), row, { dx: -257, dy: 0 }, 6).dx).toBe(-260);
  });

  it('lies on the ruling where nothing else is near', () => {
    const page = aPage({
      width: 800,
      height: 600,
      surface: { kind: 'blank', colour: '#ffffff', ruling: 'squared', spacing: 10 },
    });
    const grid = gridOf(page)!;
    const { dx, dy } = guidedMove(box(0, 0, 51, 51), [], { dx: 402, dy: 298 }, 8, grid);
    expect([dx, dy]).toEqual([400, 300]);
    // Lined paper has nothing to meet from side to side.
    const lined = gridOf({ ...page, surface: { ...page.surface, ruling: 'lined' } as Page['surface'] })!;
    const along = guidedMove(box(0, 0, 51, 51), [], { dx: 402, dy: 298 }, 8, lined);
    expect([along.dx, along.dy]).toEqual([402, 300]);
    const plain = { ...page.surface, ruling: 'plain' } as Page['surface'];
    expect(gridOf({ ...page, surface: plain })).toBeUndefined();
    expect(gridOf({ ...page, surface: { kind: 'web', material: 'm' } })).toBeUndefined();
  });

  it('lies on each line that a ruling has, as it is drawn', () => {
    const of = (ruling: Ruling) => {
      const surface = { kind: 'blank', colour: '#ffffff', spacing: 10, ruling } as const;
      const page = aPage({ width: 800, height: 600, surface });
      const drawn = paintRuling(page, surface).flatMap((item) => ('path' in item ? item.path : []));
      const grid = gridOf(page)!;
      const met = (x: number, y: number) =>
        guidedMove(box(0, 0, 0, 0), [], { dx: x + 1, dy: y + 1 }, 1.2, grid);
      return {
        drawn: drawn.flatMap(([, x, y]) => (x === undefined ? [] : [[x, y] as [number, number]])),
        met,
      };
    };
    for (const ruling of ['squared', 'lined', 'handwriting', 'music', 'numberLine'] as const) {
      const { drawn, met } = of(ruling);
      // Of an upright line an end may lie anywhere.
      const level = drawn.filter(([, y], i) => drawn[i + (i % 2 ? -1 : 1)]?.[1] === y);
      expect(level.length, ruling).toBeGreaterThan(4);
      for (const [x, y] of level) expect(met(x, y).dy, `${ruling} ${y}`).toBeCloseTo(y, 6);
    }
    for (const ruling of ['squared', 'isometric', 'numberLine'] as const) {
      const { drawn, met } = of(ruling);
      const upright = drawn.filter(([x], i) => drawn[i + (i % 2 ? -1 : 1)]?.[0] === x);
      expect(upright.length, ruling).toBeGreaterThan(4);
      for (const [x, y] of upright) expect(met(x, y).dx, `${ruling} ${x}`).toBeCloseTo(x, 6);
    }
    const polar = of('polar').met(400 + 2 * 10 * UNITS_PER_MM, 300);
    expect(polar).toMatchObject({ dx: 400 + 20 * UNITS_PER_MM, dy: 300 });
  });

  it('is never drawn farther than the reach', () => {
    const side = fc.integer({ min: 1, max: 300 });
    const any = fc.record({ x: side, y: side, width: side, height: side });
    fc.assert(
      fc.property(any, fc.array(any, { maxLength: 12 }), side, side, (moved, others, dx, dy) => {
        const move = guidedMove(moved, others, { dx, dy }, 7, {
          x: { at: 0, every: 30 },
          y: { at: 0, every: 30 },
        });
        expect(Math.abs(move.dx - dx)).toBeLessThanOrEqual(7);
        expect(Math.abs(move.dy - dy)).toBeLessThanOrEqual(7);
      }),
    );
  });
});

describe('what is stretched', () => {
  const other = box(100, 300, 200, 100);
  const own = box(100, 100, 100, 50);
  const stretch = (fx: number, fy: number, x = 100, y = 100) => ({ kind: 'resize' as const, fx, fy, x, y });

  it('meets edges and middles of others with the edges that are dragged', () => {
    // To the right edge at 300, from 296; upwards nothing is dragged.
    const right = guidedResize(own, stretch(1.96, 1), [other], 8);
    expect(right.resize).toEqual(stretch(2, 1));
    expect(right.guides).toEqual([{ axis: 'x', at: 300, from: 100, to: 400 }]);
    // The upper edge from below: the lower one stays, and the middle at 350 is met.
    const down = guidedResize(box(100, 500, 100, 50), stretch(1, 3.94, 100, 550), [other], 8);
    expect(down.resize.fy).toBeCloseTo(4, 9);
    expect(down.guides).toMatchObject([{ axis: 'y', at: 350 }]);
  });

  it('stays alike both ways at a corner, by the edge that is nearer to what it meets', () => {
    const { resize, guides } = guidedResize(own, stretch(1.98, 1.98), [other], 8);
    expect(resize).toEqual(stretch(2, 2));
    expect(guides).toHaveLength(1);
    const none = guidedResize(own, stretch(1.7, 1.7), [other], 8);
    expect(none).toEqual({ resize: stretch(1.7, 1.7), guides: [] });
  });

  it('a thin thing stretched alike does not jump by its long side', () => {
    const thin = box(123, 1, 5, 280);
    const grid = { x: { at: 0, every: 30 } };
    // Its right edge is 143; 7 more to the line at 150 would be 392 more downwards.
    const resize = stretch(4, 4, 123, 1);
    expect(guidedResize(thin, resize, [], 7, grid)).toEqual({ resize, guides: [] });
  });

  it('lies on the ruling where nothing else is near, and is never turned inside out', () => {
    const grid = { x: { at: 0, every: 30 } };
    expect(guidedResize(own, stretch(1.07, 1), [], 8, grid).resize.fx).toBeCloseTo(1.1, 9);
    expect(guidedResize(own, stretch(1, 1.07), [], 8, grid).resize.fy).toBe(1.07);
    const inside = guidedResize(own, stretch(0.04, 1), [box(96, 0, 0.5, 10)], 8);
    expect(inside.resize.fx).toBeGreaterThan(0);
  });

  it('is drawn no farther than the reach, and its other side stays', () => {
    const side = fc.integer({ min: 1, max: 300 });
    const any = fc.record({ x: side, y: side, width: side, height: side });
    const factor = fc.double({ min: 0.2, max: 4, noNaN: true });
    const alike = fc.option(factor, { nil: undefined });
    fc.assert(
      fc.property(any, fc.array(any, { maxLength: 12 }), factor, alike, (stretched, others, fx, other) => {
        const fy = other ?? fx;
        const resize = stretch(fx, fy, stretched.x, stretched.y);
        const found = guidedResize(stretched, resize, others, 7, {
          x: { at: 0, every: 30 },
          y: { at: 0, every: 30 },
        });
        expect(Math.abs(found.resize.fx - fx) * stretched.width).toBeLessThanOrEqual(7 + 1e-9);
        expect(Math.abs(found.resize.fy - fy) * stretched.height).toBeLessThanOrEqual(7 + 1e-9);
        expect([found.resize.x, found.resize.y]).toEqual([stretched.x, stretched.y]);
      }),
    );
  });
});

describe('the place of a mark', () => {
  it('is without the width of its lines', () => {
    const style = { line: '#000000', width: 20, dash: 'solid', fill: null, opacity: 1 } as const;
    expect(placeOf(aShape({ x: 10, y: 20, width: 30, height: 40, rotation: 0, flip: false, style }))).toEqual(
      box(10, 20, 30, 40),
    );
    expect(placeOf(aPath({ points: [0, 0, 30, 0, 30, 10], style }))).toEqual(box(0, 0, 30, 10));
    expect(placeOf(aStroke()).width).toBeGreaterThan(100);
  });
});
