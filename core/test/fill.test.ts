import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import type { MultiPolygon, Ring } from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import type { Raster } from '../src/fill/index.js';
import { pour, traceRings } from '../src/fill/index.js';
import { pointsOf, polygonArea } from '../src/index.js';

/** A white picture with black where `isInk` says so. */
function picture(width: number, height: number, isInk: (x: number, y: number) => boolean): Raster {
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (isInk(x, y)) data.fill(0, (y * width + x) * 4, (y * width + x) * 4 + 3);
  return { width, height, data };
}

const RADIUS = 70;
const isRing = (x: number, y: number) => Math.abs(Math.hypot(x + 0.5 - 100, y + 0.5 - 100) - RADIUS) < 2;
const options = { x: 100, y: 100, tolerance: 40, gap: 0 };

function rings(poured: ReturnType<typeof pour>): number[][] {
  if ('failed' in poured) throw new Error(poured.failed);
  return poured.rings;
}

describe('pouring', () => {
  it('fills a circle: its area, against a polygon of 720 corners by the polygon-clipping package', () => {
    const [ring] = rings(pour(picture(200, 200, isRing), options));
    const circle: Ring = Array.from({ length: 720 }, (_, i): [number, number] => [
      100 + (RADIUS - 1) * Math.cos((i * Math.PI) / 360),
      100 + (RADIUS - 1) * Math.sin((i * Math.PI) / 360),
    ]);
    const difference = polygonClipping.xor([circle], [pointsOf(ring!)]);
    const area = (polygons: MultiPolygon) =>
      polygons.flat().reduce((sum, part) => sum + polygonArea(part), 0);
    expect(Math.abs(area(difference))).toBeLessThan(Math.PI * RADIUS * RADIUS * 0.02);
  });

  it('bridges a gap up to the width asked for, and says so where the area is open', () => {
    const broken = picture(200, 200, (x, y) => isRing(x, y) && !(x > 150 && Math.abs(y - 100) < 4));
    expect(pour(broken, options)).toEqual({ failed: 'open' });
    expect(rings(pour(broken, { ...options, gap: 10 })).length).toBeGreaterThan(0);
    expect(pour(broken, { ...options, x: 2, y: 2 })).toEqual({ failed: 'open' });
  });

  it('reaches into tips that are narrower than the gaps it bridges, and not through a gap', () => {
    // A wedge whose tip is 4° wide, closed on the right, and one that is open at the tip.
    const slope = Math.tan((2 * Math.PI) / 180);
    const wedge = (from: number) =>
      picture(320, 80, (x, y) => {
        const half = (x - 20) * slope;
        const isSide = x >= from && Math.abs(Math.abs(y - 40) - half) < 1.2;
        return isSide || (x > 296 && x < 300 && Math.abs(y - 40) <= half + 1);
      });
    const reachOf = (poured: ReturnType<typeof pour>) =>
      Math.min(...rings(poured)[0]!.filter((_, i) => i % 2 === 0));
    const at = { x: 280, y: 40, tolerance: 40, gap: 12 };
    // The free room between the sides ends where they are as thick as it is high.
    expect(reachOf(pour(wedge(20), at))).toBeLessThan(80);
    expect(reachOf(pour(wedge(150), at))).toBeGreaterThan(130);
  });

  it('reaches into every tip, however wide and high the picture is round it', () => {
    const diamond = (x: number, y: number) => {
      const along = x < 100 ? x - 8 : 192 - x;
      return along > 0 && Math.abs(Math.abs(y - 20) - along / 11) < 1.2;
    };
    const poured = (more: number, below: number) =>
      rings(pour(picture(200 + more, 40 + below, diamond), { x: 90, y: 20, tolerance: 40, gap: 6 }));
    const whole = poured(0, 0);
    const columns = whole[0]!.filter((_, i) => i % 2 === 0);
    expect(Math.min(...columns)).toBeLessThan(40);
    expect(Math.max(...columns)).toBeGreaterThan(160);
    fc.assert(
      fc.property(fc.nat(9), fc.nat(9), (more, below) => {
        expect(poured(more, below)).toEqual(whole);
      }),
    );
  });

  it('leaves islands out', () => {
    const island = picture(200, 200, (x, y) => isRing(x, y) || Math.hypot(x - 100, y - 100) < 20);
    const poured = rings(pour(island, { ...options, x: 60 }));
    expect(poured).toHaveLength(2);
    const total = poured.reduce((sum, ring) => sum + polygonArea(pointsOf(ring)), 0);
    expect(Math.abs(total)).toBeCloseTo(Math.PI * (69 ** 2 - 19 ** 2), -3);
  });

  it('finds no room on a line', () => {
    const grid = picture(60, 60, (x) => x % 6 < 3);
    expect(pour(grid, { x: 4, y: 30, tolerance: 10, gap: 8 })).toEqual({ failed: 'no-room' });
  });
});

describe('traced rings', () => {
  it('enclose exactly as many unit squares as are set', () => {
    let state = 7;
    const mask = Uint8Array.from({ length: 40 * 30 }, () => {
      state = (state * 16807) % 2147483647;
      return state % 3 === 0 ? 1 : 0;
    });
    const total = traceRings(mask, 40, 30).reduce((sum, ring) => sum + polygonArea(pointsOf(ring)), 0);
    expect(total).toBe(mask.reduce((sum, bit) => sum + bit, 0));
  });
});
