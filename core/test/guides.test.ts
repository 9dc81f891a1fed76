import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gridOf, guidedMove, placeOf } from '../src/construct/index.js';
import type { Page } from '../src/index.js';
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

  it('is never drawn farther than the reach', () => {
    const side = fc.integer({ min: 1, max: 300 });
    const any = fc.record({ x: side, y: side, width: side, height: side });
    fc.assert(
      fc.property(any, fc.array(any, { maxLength: 12 }), side, side, (moved, others, dx, dy) => {
        const move = guidedMove(moved, others, { dx, dy }, 7, { step: 30, x: 0, y: 0 });
        expect(Math.abs(move.dx - dx)).toBeLessThanOrEqual(7);
        expect(Math.abs(move.dy - dy)).toBeLessThanOrEqual(7);
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
