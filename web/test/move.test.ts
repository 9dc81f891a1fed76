import type { Frame, ViewState } from '@doodla/core/follow';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { movedFrame, moveBetween } from '../src/screen/move';

const region = { x: 0, y: 0, width: 40, height: 30 };
const state = (y = 0, set: Partial<ViewState> = {}, scale = 1): ViewState => ({
  view: 1,
  panes: [{ id: 1, region, place: { x: 0, y, scale } }],
  certain: true,
  ...set,
});
const frame: Frame = {
  width: 40,
  height: 30,
  grey: Uint8Array.from({ length: 1200 }, (_, i) => (i * 7) % 251),
};

describe('a scroll told as a move', () => {
  it('is by whole pixels, and only within one view that is known', () => {
    expect(moveBetween(state(), state(-8))).toEqual({ ...region, dx: 0, dy: -8 });
    expect(moveBetween(state(0, { panes: [] }), state(-8))).toEqual({ ...region, dx: 0, dy: -8 });
    expect(moveBetween(state(), state())).toBeUndefined();
    expect(moveBetween(state(), state(-8, { view: 2 }))).toBeUndefined();
    expect(moveBetween(state(0, { certain: false }), state(-8))).toBeUndefined();
    expect(moveBetween(state(), state(30))).toBeUndefined();
    // What has been enlarged is no move.
    expect(moveBetween(state(), state(-8, {}, 1.5))).toBeUndefined();
  });

  it('moves every pixel that stays in its region, and leaves what is outside of it', () => {
    const within = { x: 4, y: 5, width: 30, height: 20 };
    fc.assert(
      fc.property(fc.integer({ min: -29, max: 29 }), fc.integer({ min: -19, max: 19 }), (dx, dy) => {
        const moved = movedFrame(frame, { ...within, dx, dy });
        for (let y = 0; y < 30; y++)
          for (let x = 0; x < 40; x++) {
            const isIn = (px: number, py: number) => px >= 4 && px < 34 && py >= 5 && py < 25;
            const from = isIn(x, y) && isIn(x - dx, y - dy) ? [x - dx, y - dy] : [x, y];
            expect(moved.grey[y * 40 + x]).toBe(frame.grey[from[1]! * 40 + from[0]!]);
          }
      }),
      { numRuns: 30 },
    );
  });
});
