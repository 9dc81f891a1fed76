import type { Mark, Page } from '@doodla/core';
import { FORMS, isBoundless, NATURES, paintSurface, SpatialIndex } from '@doodla/core';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { aPage, aShape, aStroke } from '../../core/test/helpers/marks';
import { drawItems } from '../src/canvas/markPainter';
import { PageCanvas } from '../src/canvas/pageCanvas';
import type { SurfaceView } from '../src/canvas/surface';
import type { PictureCache } from '../src/pictures/pictureCache';
import { CanvasHost, canvasStandIn, drawFrames } from './helpers/canvasStandIn';

const SIZE = { width: 320, height: 240 };
const NO_PICTURES = { get: () => undefined } as unknown as PictureCache;
const PAGE = aPage({ id: 'p1', width: 400, height: 300 });

beforeEach(canvasStandIn);

const surfaceOf = (page: Page): SurfaceView => ({
  shown: true,
  request: () => undefined,
  draw: (ctx, area) => drawItems(ctx, paintSurface(page, isBoundless(page) ? area : undefined)),
});

/** A canvas that shows a page with its marks. */
function shown(index: SpatialIndex, page = PAGE) {
  const host = new CanvasHost();
  const canvas = new PageCanvas(host.asElement, NO_PICTURES);
  canvas.resize(SIZE, 1);
  canvas.setView({ scale: 0.8, x: 3.5, y: 2.25 });
  canvas.show(page, surfaceOf(page), [index]);
  drawFrames();
  return { canvas, host };
}

/** The share of colours that are clearly not the same. */
function differing(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  let count = 0;
  for (let i = 0; i < a.length; i++) if (Math.abs(a[i]! - b[i]!) > 24) count += 1;
  return count / a.length;
}

/** The largest difference of a colour between two pictures. */
function difference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
}

const place = fc.tuple(fc.nat(400), fc.nat(300));
const colour = fc.constantFrom('#d55e00', '#0072b2', '#f0e442');
const inSight = fc
  .record({
    id: fc.nat(6).map((id) => `m${id}`),
    order: fc.nat(8).map((order) => `a${order}`),
    isShape: fc.boolean(),
    a: place,
    b: place,
    colour,
    nature: fc.constantFrom(...NATURES),
    form: fc.constantFrom(...FORMS),
    width: fc.integer({ min: 1, max: 30 }),
  })
  .map(({ id, order, isShape, a, b, colour: own, nature, form, width }): Mark => {
    const common = { id, order, page: 'p1' };
    if (!isShape) {
      const style = { nature, colour: own, width, opacity: 0.7 };
      return aStroke({ ...common, style, points: [...a, 0.5, 0, ...b, 0.8, 40] });
    }
    const style = { line: '#000000', width: 3, dash: 'solid', fill: own, opacity: 0.7 } as const;
    return aShape({ ...common, form, style, x: a[0], y: a[1], width: 10 + b[0] / 3, height: 10 + b[1] / 3 });
  });
const step = fc.oneof(
  { weight: 3, arbitrary: inSight.map((mark) => ({ put: mark })) },
  { weight: 1, arbitrary: fc.nat(6).map((id) => ({ take: `m${id}` })) },
);

describe('a page canvas', () => {
  it('that draws only what is stale ends like one that draws everything', () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
        const index = new SpatialIndex();
        const { canvas, host } = shown(index);
        for (const one of steps) {
          const stale = 'put' in one ? index.set(one.put) : index.delete(one.take);
          for (const rect of stale) canvas.invalidate(rect);
          drawFrames();
        }
        const whole = shown(index);
        // Edges of what is clipped may differ by a rounding.
        const share = differing(host.pixels('dry'), whole.host.pixels('dry'));
        host.release();
        whole.host.release();
        // A pixel of an edge may come out otherwise where it is clipped.
        expect(share).toBeLessThan(0.0005);
      }),
      { numRuns: 40, endOnFailure: true },
    );
  });

  it('shows nothing of marks that are hidden for now, and shows them again', () => {
    const index = new SpatialIndex([aStroke({ id: 'a' }), aShape({ id: 'b', x: 150, y: 100 })]);
    const { canvas, host } = shown(index);
    const before = host.pixels('dry');
    canvas.setHidden(new Set(['b']));
    drawFrames();
    const without = shown(new SpatialIndex([index.get('a')!]));
    expect(difference(host.pixels('dry'), without.host.pixels('dry'))).toBeLessThanOrEqual(2);
    canvas.setHidden(new Set());
    drawFrames();
    expect(difference(host.pixels('dry'), before)).toBeLessThanOrEqual(2);
  });

  it('tells the colour that is seen, highlighter over paper multiplied (W3C Compositing §10.1.1)', () => {
    const style = { nature: 'highlighter', colour: '#f0e442', width: 40, opacity: 1 } as const;
    const points = [50, 100, 0.5, 0, 350, 100, 0.5, 50];
    const page = aPage({
      id: 'p1',
      width: 400,
      height: 300,
      surface: { kind: 'blank', colour: '#8080ff', ruling: 'plain', spacing: 10 },
    });
    const { canvas } = shown(new SpatialIndex([aStroke({ style, points })]), page);
    expect(canvas.colourAt(10, 200)).toBe('#8080ff');
    // 0xf0·0x80/255 = 0x78, 0xe4·0x80/255 = 0x72, 0x42·0xff/255 = 0x42.
    expect(canvas.colourAt(160, 82)).toBe('#787242');
    // The pixel in which the point lies: the last one of the canvas.
    expect(canvas.colourAt(319.7, 239.7)).toBe('#8080ff');
  });

  it('puts ink that is being drawn on a canvas of its own, and clears it when it is done', () => {
    const { canvas, host } = shown(new SpatialIndex());
    const dry = host.pixels('dry');
    const { style, points } = aStroke({ points: [20, 20, 0.5, 0, 200, 100, 0.5, 30] });
    canvas.setWet([{ style, points: [...points] }], [], []);
    drawFrames();
    expect(host.pixels('wet').some((value) => value > 0)).toBe(true);
    expect(difference(host.pixels('dry'), dry)).toBe(0);
    canvas.setWet([], [], []);
    drawFrames();
    expect(host.pixels('wet').every((value) => value === 0)).toBe(true);
  });

  it.each(['pen', 'highlighter', 'pencil'] as const)('fades %s ink as much as is gone of it', (nature) => {
    const style = { nature, colour: '#000000', width: 40, opacity: 0.8 } as const;
    const points = [60, 100, 0.5, 0, 200, 100, 0.5, 20, 340, 100, 0.5, 40];
    const layer = nature === 'highlighter' ? 'wet-multiply' : 'wet';
    const darkest = (left?: number) => {
      const { canvas, host } = shown(new SpatialIndex());
      canvas.setWet([{ style, points, ...(left !== undefined && { left }) }], [], []);
      drawFrames();
      return Math.max(...host.pixels(layer).filter((_, i) => i % 4 === 3));
    };
    const whole = darkest();
    expect(whole).toBeGreaterThan(0);
    expect(darkest(1)).toBe(whole);
    expect(Math.abs(darkest(0.5) - whole / 2)).toBeLessThan(0.12 * whole);
  });
});
