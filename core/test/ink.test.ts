import simplifyJs from 'simplify-js';
import { describe, expect, it } from 'vitest';
import {
  hitBySweep,
  markBounds,
  outline,
  pointSegmentDistanceSquared,
  simplify,
  SpatialIndex,
  STRIDE,
} from '../src/index.js';
import { aStroke, aText } from './helpers/marks.js';

function pairs(points: readonly number[]): { x: number; y: number }[] {
  return Array.from({ length: points.length / STRIDE }, (_, i) => ({
    x: points[i * STRIDE]!,
    y: points[i * STRIDE + 1]!,
  }));
}

function wave(count: number): number[] {
  return Array.from({ length: count }, (_, i) => [i, 40 * Math.sin(i / 20), 0.5, i * 8]).flat();
}

describe('simplify', () => {
  it.each([0.1, 0.5, 2, 8])(
    'keeps the same points as the simplify-js package at tolerance %f',
    (tolerance) => {
      const points = wave(500);
      const reference = simplifyJs(pairs(points), tolerance, true);
      expect(pairs(simplify(points, tolerance))).toEqual(reference);
    },
  );

  it('keeps both ends and leaves no point farther away than the tolerance', () => {
    const points = wave(400);
    const kept = simplify(points, 0.5);
    expect(kept.length).toBeLessThan(points.length / 3);
    expect(kept.slice(0, STRIDE)).toEqual(points.slice(0, STRIDE));
    expect(kept.slice(-STRIDE)).toEqual(points.slice(-STRIDE));
    for (let i = 0; i < points.length; i += STRIDE) {
      let nearest = Infinity;
      for (let k = 0; k + STRIDE < kept.length; k += STRIDE) {
        nearest = Math.min(
          nearest,
          pointSegmentDistanceSquared(
            points[i]!,
            points[i + 1]!,
            kept[k]!,
            kept[k + 1]!,
            kept[k + 4]!,
            kept[k + 5]!,
          ),
        );
      }
      expect(Math.sqrt(nearest)).toBeLessThanOrEqual(0.5 + 1e-9);
    }
  });

  it('leaves a dot and a line alone', () => {
    expect(simplify([1, 2, 0.5, 0], 1)).toEqual([1, 2, 0.5, 0]);
    expect(simplify([1, 2, 0.5, 0, 9, 9, 0.5, 9], 1)).toHaveLength(8);
  });
});

describe('outline', () => {
  it('encloses the stroke within its bounds', () => {
    const mark = aStroke({ points: wave(100) });
    const { x, y, width, height } = markBounds(mark);
    for (const step of outline(mark)) {
      if (step[0] !== 'Q') continue;
      expect(step[3]).toBeGreaterThanOrEqual(x);
      expect(step[3]).toBeLessThanOrEqual(x + width);
      expect(step[4]).toBeGreaterThanOrEqual(y);
      expect(step[4]).toBeLessThanOrEqual(y + height);
    }
  });

  it('draws a dot for a single point', () => {
    expect(outline(aStroke({ points: [5, 5, 0.5, 0] })).length).toBeGreaterThan(3);
  });

  it('is wider where the pen presses harder', () => {
    const at = (pressure: number) => {
      const points = Array.from({ length: 30 }, (_, i) => [i * 5, 100, pressure, i * 8]).flat();
      const ys = outline(aStroke({ points })).flatMap((step) => (step[0] === 'Q' ? [step[4]] : []));
      return Math.max(...ys) - Math.min(...ys);
    };
    expect(at(0.9)).toBeGreaterThan(at(0.2) * 1.2);
  });
});

describe('hit test', () => {
  const stroke = aStroke({ points: [0, 0, 0.5, 0, 100, 0, 0.5, 10] });

  it('finds a stroke that a fast tip jumps over', () => {
    expect(hitBySweep(stroke, 50, -80, 50, 80, 2)).toBe(true);
    expect(hitBySweep(stroke, 150, -80, 150, 80, 2)).toBe(false);
  });

  it('reaches as far as tip and half the stroke together', () => {
    expect(hitBySweep(stroke, 50, 5.9, 50, 5.9, 4)).toBe(true);
    expect(hitBySweep(stroke, 50, 6.1, 50, 6.1, 4)).toBe(false);
  });

  it('finds text by its box', () => {
    expect(hitBySweep(aText({ x: 0, y: 0 }), 100, 10, 100, 10, 1)).toBe(true);
  });
});

describe('spatial index', () => {
  it('finds marks by place, lowest first, and follows their changes', () => {
    const low = aStroke({ order: 'a1', points: [0, 0, 0.5, 0, 10, 10, 0.5, 1] });
    const high = aStroke({ order: 'a2', points: [5, 5, 0.5, 0, 15, 15, 0.5, 1] });
    const index = new SpatialIndex([high, low]);
    const here = { x: 0, y: 0, width: 20, height: 20 };
    expect(index.within(here)).toEqual([low, high]);
    const moved = { ...low, points: [500, 500, 0.5, 0, 510, 510, 0.5, 1] };
    expect(index.set(moved)).toHaveLength(2);
    expect(index.within(here)).toEqual([high]);
    index.delete(high.id);
    expect(index.size).toBe(1);
    expect(index.delete('unknown')).toEqual([]);
  });
});
