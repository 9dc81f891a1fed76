import { describe, expect, it } from 'vitest';
import { MAX_POINTS, outline, pointCount, STRIDE, StrokeBuilder } from '../src/index.js';
import { aStroke } from './helpers/marks.js';

/** A hand that draws a line to the right and shakes by up to 3 units. */
function shakyLine(builder: StrokeBuilder, pressure?: number): void {
  for (let i = 0; i <= 200; i++)
    builder.add({ x: i * 2, y: 100 + 3 * Math.sin(i * 2.4), pressure, time: i * 8 });
}

const ys = (points: readonly number[]) => points.filter((_, i) => i % STRIDE === 1);
const spread = (values: number[]) => Math.max(...values) - Math.min(...values);

describe('stroke builder', () => {
  it('steadies a shaky hand the more the higher it is set, and still ends where the hand ends', () => {
    const spreads = [0, 0.5, 0.8].map((steadying) => {
      const builder = new StrokeBuilder(steadying);
      shakyLine(builder);
      const points = builder.finish();
      expect(points.at(-4)).toBeCloseTo(400, 1);
      return spread(ys(points).slice(1, -1));
    });
    expect(spreads[1]).toBeLessThan(spreads[0]! * 0.7);
    expect(spreads[2]).toBeLessThan(spreads[1]! * 0.7);
  });

  it('does not change the look of the stroke when it is finished', () => {
    const builder = new StrokeBuilder(0.3);
    shakyLine(builder, 0.4);
    const box = (points: readonly number[]) => {
      const steps = outline(aStroke({ points: [...points] })).flatMap((step) =>
        step[0] === 'Q' ? [step] : [],
      );
      return [
        Math.min(...steps.map((s) => s[4])),
        Math.max(...steps.map((s) => s[4])),
        Math.max(...steps.map((s) => s[3])),
      ];
    };
    const wet = box(builder.points);
    box(builder.finish()).forEach((edge, i) => expect(Math.abs(edge - wet[i]!)).toBeLessThan(1));
  });

  it('keeps measured pressure, also along a straight line', () => {
    const builder = new StrokeBuilder(0);
    for (let i = 0; i <= 100; i++) builder.add({ x: i, y: 0, pressure: i < 50 ? 0.2 : 0.9, time: i });
    const pressures = builder.finish().filter((_, i) => i % STRIDE === 2);
    expect(pressures.at(0)).toBe(0.2);
    expect(pressures.at(-1)).toBe(0.9);
    expect(pressures.length).toBeLessThan(10);
  });

  it('is firmer where the mouse is slow', () => {
    const pressureAt = (step: number) => {
      const builder = new StrokeBuilder(0);
      for (let i = 0; i < 50; i++) builder.add({ x: i * step, y: 0, pressure: undefined, time: i * 8 });
      return builder.points.at(-2)!;
    };
    expect(pressureAt(1)).toBeGreaterThan(pressureAt(20));
  });

  it('makes a dot of a tap and never grows beyond the limit', () => {
    const dot = new StrokeBuilder(0.3);
    dot.add({ x: 5, y: 6, pressure: undefined, time: 0 });
    expect(pointCount(dot.finish())).toBe(1);
    const endless = new StrokeBuilder(0);
    for (let i = 0; i < MAX_POINTS + 500; i++)
      endless.add({ x: i, y: i % 2 ? 50 : 0, pressure: 0.5, time: i });
    expect(pointCount(endless.points)).toBe(MAX_POINTS);
  });
});
