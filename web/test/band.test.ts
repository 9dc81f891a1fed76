import { describe, expect, it } from 'vitest';
import { Band } from '../src/devices/band';
import type { Stage } from '../src/page/stage';
import type { Workspace } from '../src/workspace/workspace';

/** A stage of 400 × 300 CSS pixels on a page of 1,000 × 700 units. */
function stageOn() {
  const view = { x: 0, y: 0, scale: 0.4 };
  const stage = {
    onWritten: (() => undefined) as Stage['onWritten'],
    fit: '',
    get visible() {
      return { x: view.x, y: view.y, width: 400 / view.scale, height: 300 / view.scale };
    },
    zoom: (factor: number) => (view.scale *= factor),
    centreOn: (x: number, y: number) => {
      view.x = x - 200 / view.scale;
      view.y = y - 150 / view.scale;
    },
    setFit: (fit: string) => (stage.fit = fit),
  };
  const page = { width: 1000, height: 700 };
  const workspace = { page, extentOf: () => ({ x: 0, y: 0, ...page }) };
  const band = new Band(stage as unknown as Stage, workspace as unknown as Workspace);
  const written = (x: number) =>
    stage.onWritten({ x, y: 0, pressure: 0, time: 0, steady: false, centred: false });
  return { stage, band, written };
}

describe('a band of the page on a pad', () => {
  it('shows half the width, from the upper left corner', () => {
    const { stage } = stageOn();
    expect(stage.visible).toMatchObject({ x: 0, y: 0, width: 500 });
  });

  it('stays while one writes in its first part, and moves on after it', () => {
    const { stage, written } = stageOn();
    written(300);
    expect(stage.visible.x).toBe(0);
    written(400);
    // What was just written is still seen, at about a third of the band.
    expect(stage.visible.x).toBeCloseTo(400 - 0.35 * 500, 6);
    expect(stage.visible.y).toBe(0);
  });

  it('begins a new line when the page has come to its right edge', () => {
    const { stage, written } = stageOn();
    written(400);
    written(990);
    expect(stage.visible.x).toBeCloseTo(0, 6);
    expect(stage.visible.y).toBeCloseTo(stage.visible.height * 0.6, 6);
  });

  it('gives the whole page back', () => {
    const { stage, band, written } = stageOn();
    band.end();
    expect(stage.fit).toBe('page');
    written(400);
    expect(stage.visible.x).toBe(0);
  });
});
