import { describe, expect, it } from 'vitest';
import { Signal } from '@doodla/core/client';
import { aPage } from '../../core/test/helpers/marks';
import { Band } from '../src/devices/band';
import type { PenPoint } from '../src/desk/gesture';

/** A glass of 400 × 300 CSS pixels on a page of 1,000 × 700 units. */
function glassOn() {
  const view = { x: 0, y: 0, scale: 0.4 };
  const written = new Signal<PenPoint>();
  const glass = {
    written,
    fit: '',
    get visible() {
      return { x: view.x, y: view.y, width: 400 / view.scale, height: 300 / view.scale };
    },
    zoom: (factor: number) => void (view.scale *= factor),
    centreOn: (x: number, y: number) => {
      view.x = x - 200 / view.scale;
      view.y = y - 150 / view.scale;
    },
    setFit: (fit: string) => void (glass.fit = fit),
  };
  const page = aPage({ width: 1000, height: 700 });
  const band = new Band(glass, { page, extentOf: () => ({ x: 0, y: 0, width: 1000, height: 700 }) });
  const write = (x: number) => written.tell({ x, y: 0, pressure: 0, time: 0, steady: false, centred: false });
  return { glass, band, written: write };
}

describe('a band of the page on a pad', () => {
  it('shows half the width, from the upper left corner', () => {
    const { glass } = glassOn();
    expect(glass.visible).toMatchObject({ x: 0, y: 0, width: 500 });
  });

  it('stays while one writes in its first part, and moves on after it', () => {
    const { glass, written } = glassOn();
    written(300);
    expect(glass.visible.x).toBe(0);
    written(400);
    // What was just written is still seen, at about a third of the band.
    expect(glass.visible.x).toBeCloseTo(400 - 0.35 * 500, 6);
    expect(glass.visible.y).toBe(0);
  });

  it('begins a new line when the page has come to its right edge', () => {
    const { glass, written } = glassOn();
    written(400);
    written(990);
    expect(glass.visible.x).toBeCloseTo(0, 6);
    expect(glass.visible.y).toBeCloseTo(glass.visible.height * 0.6, 6);
  });

  it('gives the whole page back', () => {
    const { glass, band, written } = glassOn();
    band.end();
    expect(glass.fit).toBe('page');
    written(400);
    expect(glass.visible.x).toBe(0);
  });
});
