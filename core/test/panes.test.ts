import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Frame } from '../src/follow/index.js';
import { panesAfter, ViewMemory } from '../src/follow/index.js';
import type { Pane } from '../src/index.js';
import { amongMain, arePanes, GLASS, isMark, mainPlace, paneAt, paneOf, placeOf } from '../src/index.js';
import { sheet } from './helpers/frames.js';
import { aStroke } from './helpers/marks.js';

const LIST = 256;
const [WIDTH, HEIGHT, HEADER] = [800, 480, 64];
const [list, text] = [sheet(LIST - 8, 2000, 3), sheet(WIDTH - LIST, 2000, 4)];

/** A screen with a header, a list and a text beside it that scroll by themselves. */
function screen(listAt: number, textAt: number): Frame {
  const grey = new Uint8Array(WIDTH * HEIGHT).fill(255);
  for (let y = 0; y < HEIGHT; y++) {
    const row = y * WIDTH;
    if (y < HEADER) {
      for (let x = 0; x < WIDTH; x++) grey[row + x] = (x >> 4) % 3 === 0 ? 90 : 60;
      continue;
    }
    const from = (of: Frame, at: number) => of.grey.subarray((y + at) * of.width, (y + at + 1) * of.width);
    grey.set(from(list, listAt), row);
    grey.fill(120, row + LIST - 8, row + LIST);
    grey.set(from(text, textAt), row + LIST);
  }
  return { width: WIDTH, height: HEIGHT, grey };
}

const markAt = (x: number, y: number, pane?: number) => {
  const mark = { ...aStroke(), points: [x - 5, y - 5, 0.5, 0, x + 5, y + 5, 0.5, 9] };
  return pane === undefined ? mark : { ...mark, pane };
};

describe('the parts of a screen', () => {
  it('are told apart where a list and a text scroll by themselves, and what does not scroll stays', () => {
    const memory = new ViewMemory();
    memory.take(screen(0, 0), 0);
    memory.take(screen(0, 90), 100);
    memory.take(screen(40, 90), 200);
    const { panes } = memory.take(screen(40, 60), 300);
    expect(panes.map(({ place }) => place)).toEqual([
      { x: 0, y: -60, scale: 1 },
      { x: 0, y: -40, scale: 1 },
    ]);
    // The text is the larger one, in whose units the page is measured.
    expect(mainPlace(panes)).toEqual({ x: 0, y: -60, scale: 1 });
    const at = (x: number, y: number) => placeOf(panes, paneAt(panes, x, y)).y;
    expect([at(500, 300), at(100, 300), at(400, 20)]).toEqual([-60, -40, 0]);
    // Marks that were made before anything had moved belong to what they lie on.
    const placeOfMark = (x: number, y: number) => placeOf(panes, paneOf(markAt(x, y), panes)).y;
    expect([placeOfMark(500, 300), placeOfMark(100, 300), placeOfMark(400, 20)]).toEqual([-60, -40, 0]);
    // Later ones say so themselves, wherever the content has gone since.
    expect(paneOf(markAt(500, 300, GLASS), panes)).toBe(GLASS);
  });

  it('follow every shift and zoom, whatever comes in whatever order', () => {
    const warp = fc.record({
      scale: fc.double({ min: 0.5, max: 2, noNaN: true }),
      dx: fc.double({ min: -200, max: 200, noNaN: true }),
      dy: fc.double({ min: -200, max: 200, noNaN: true }),
    });
    const region = { x: 0, y: 64, width: 800, height: 400 };
    fc.assert(
      fc.property(fc.array(warp, { minLength: 1, maxLength: 8 }), (warps) => {
        let panes: Pane[] = [];
        let [x, y] = [120, 300];
        for (const each of warps) {
          panes = panesAfter(panes, region, each);
          [x, y] = [each.scale * x + each.dx, each.scale * y + each.dy];
        }
        expect(panes).toHaveLength(1);
        const { place } = panes[0]!;
        expect(place.scale * 120 + place.x).toBeCloseTo(x, 6);
        expect(place.scale * 300 + place.y).toBeCloseTo(y, 6);
        // What stays on the glass lies among what has moved as the way back says.
        const back = amongMain(panes, GLASS);
        expect(place.scale * (back.scale * 10 + back.x) + place.x).toBeCloseTo(10, 6);
      }),
    );
  });

  it('move along with a window that is scrolled as a whole', () => {
    const inner = { x: 300, y: 200, width: 200, height: 200 };
    const panes = panesAfter(
      [{ id: 1, region: inner, place: { x: 0, y: -30, scale: 1 } }],
      { x: 0, y: 0, width: 800, height: 480 },
      { scale: 1, dx: 0, dy: -50 },
    );
    expect(placeOf(panes, 1)).toEqual({ x: 0, y: -80, scale: 1 });
    expect(panes[0]!.region).toEqual({ ...inner, y: 150 });
    expect(placeOf(panes, 2)).toEqual({ x: 0, y: -50, scale: 1 });
  });

  it('are checked where they come from outside', () => {
    const pane = { id: 1, region: { x: 0, y: 0, width: 9, height: 9 }, place: { x: 0, y: 0, scale: 1 } };
    expect(arePanes([pane])).toBe(true);
    for (const bad of [
      'x',
      [{ ...pane, id: -1 }],
      [{ ...pane, place: { x: 0, y: 0, scale: 0 } }],
      [{ ...pane, region: { x: NaN, y: 0, width: 1, height: 1 } }],
      [{ ...pane, more: 1 }],
      Array.from({ length: 7 }, () => pane),
    ])
      expect(arePanes(bad)).toBe(false);
    expect(isMark(markAt(10, 10, 2))).toBe(true);
    expect(isMark({ ...markAt(10, 10), pane: 'all' })).toBe(false);
  });
});
