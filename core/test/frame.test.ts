import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Frame } from '../src/index.js';
import {
  applyMatrix,
  draggedSides,
  frameOf,
  frameResize,
  frameTurn,
  transformMatrix,
  transformPatch,
  patchMark,
} from '../src/index.js';
import { aShape, aStroke } from './helpers/marks.js';

const FRAME: Frame = { x: 100, y: 50, width: 200, height: 100, rotation: 0 };
const FREE = { steady: false, centred: false };
const START = { x: 0, y: 0 };

/** Where a corner or side of the frame (0 to 1 each way) comes to lie. */
function moved(transform: ReturnType<typeof frameResize>, u: number, v: number): [number, number] {
  const at = applyMatrix(transformMatrix(transform), FRAME.x + u * FRAME.width, FRAME.y + v * FRAME.height);
  return at.map((value) => Math.round(value * 1000) / 1000) as [number, number];
}

describe('the frame', () => {
  it('of one box is turned with it, of several marks it is upright', () => {
    const box = aShape({ x: 10, y: 20, width: 60, height: 30, rotation: 30 });
    expect(frameOf([box])).toMatchObject({ x: 10, y: 20, width: 60, height: 30, rotation: 30 });
    const both = frameOf([box, aStroke()]);
    expect(both.rotation).toBe(0);
    expect(both.width).toBeGreaterThan(60);
    expect(frameOf([])).toEqual({ x: 0, y: 0, width: 0, height: 0, rotation: 0 });
  });
});

describe('a handle of the frame', () => {
  it('on a side moves that side only, as far as the pointer', () => {
    const wider = frameResize(FRAME, { x: 1, y: 0.5 }, START, { x: 50, y: 30 }, FREE);
    expect(moved(wider, 1, 0.5)).toEqual([350, 100]);
    expect(moved(wider, 0, 0)).toEqual([100, 50]);
    const lower = frameResize(FRAME, { x: 0.5, y: 0 }, START, { x: 50, y: 30 }, FREE);
    expect(moved(lower, 0.5, 0)).toEqual([200, 80]);
    expect(moved(lower, 1, 1)).toEqual([300, 150]);
  });

  it('on a corner keeps proportions, and lets them go with the key for it; sides the other way round', () => {
    const corner = { x: 1, y: 1 };
    const kept = frameResize(FRAME, corner, START, { x: 100, y: 0 }, FREE);
    expect([kept.fx, kept.fy]).toEqual([1.5, 1.5]);
    const free = frameResize(FRAME, corner, START, { x: 100, y: 20 }, { ...FREE, steady: true });
    expect([free.fx, free.fy]).toEqual([1.5, 1.2]);
    const side = frameResize(FRAME, { x: 0, y: 0.5 }, START, { x: -100, y: 0 }, { ...FREE, steady: true });
    expect([side.fx, side.fy]).toEqual([1.5, 1.5]);
  });

  it('never turns a mark inside out, nor makes it nothing', () => {
    const in_ = frameResize(FRAME, { x: 1, y: 0.5 }, START, { x: -5000, y: 0 }, FREE);
    expect(in_.fx).toBe(0.02);
  });

  it('stays under the pointer, whatever is dragged, and what is opposite stays where it is', () => {
    const far = fc.integer({ min: -80, max: 900 });
    const end = fc.constantFrom(0, 1);
    fc.assert(
      fc.property(end, end, far, far, fc.boolean(), (u, v, ax, ay, centred) => {
        const [dx, dy] = [u === 1 ? ax : -ax, v === 1 ? ay : -ay];
        const least = (size: number) => size * (centred ? 0.49 : 0.98);
        fc.pre(ax > -least(FRAME.width) && ay > -least(FRAME.height));
        const keys = { steady: true, centred };
        const to = frameResize(FRAME, { x: u, y: v }, START, { x: dx, y: dy }, keys);
        const [x, y] = moved(to, u, v);
        expect(x).toBeCloseTo(FRAME.x + u * FRAME.width + dx, 1);
        expect(y).toBeCloseTo(FRAME.y + v * FRAME.height + dy, 1);
        const still = centred ? [0.5, 0.5] : [1 - u, 1 - v];
        expect(moved(to, still[0]!, still[1]!)[0]).toBeCloseTo(FRAME.x + still[0]! * FRAME.width, 1);
      }),
    );
  });

  it('goes by the sides of a turned frame, whose middle stays', () => {
    const turned = { ...FRAME, rotation: 90 };
    const to = frameResize(turned, { x: 1, y: 0.5 }, START, { x: 0, y: 100 }, FREE);
    expect(to).toMatchObject({ x: 200, y: 100 });
    expect(to.fx).toBeCloseTo(1.5);
    expect(to.fy).toBeCloseTo(1);
  });
});

describe('the handle that turns', () => {
  const middle = { x: 200, y: 100 };
  it('turns clockwise by the angle between two points, seen from the middle', () => {
    const quarter = frameTurn(FRAME, { x: 200, y: 20 }, { x: 300, y: 100 }, false);
    expect(quarter).toEqual({ kind: 'turn', degrees: 90, ...middle });
    const shape = aShape({ ...FRAME });
    expect(patchMark(shape, transformPatch(shape, quarter))).toMatchObject({ rotation: 90 });
  });

  it('keeps to steps of fifteen degrees while the key for it is held', () => {
    const near = (now: { x: number; y: number }) => frameTurn(FRAME, { x: 200, y: 20 }, now, true).degrees;
    expect(near({ x: 299, y: 102 })).toBe(90);
    expect(near({ x: 220, y: 20 })).toBe(15);
    expect(near({ x: 204, y: 20 })).toBe(0);
  });
});

describe('a handle that cuts a picture', () => {
  const picture = { width: 100, height: 50, crop: { x: 0, y: 0, width: 0.5, height: 1 } };
  it('moves the sides it is on, by shares of the whole picture', () => {
    expect(draggedSides(picture, { x: 0, y: 0 }, { x: 20, y: 10 })).toEqual({ left: 0.1, top: 0.2 });
    expect(draggedSides(picture, { x: 1, y: 0.5 }, { x: 20, y: 10 })).toEqual({ right: -0.1 });
    expect(draggedSides(picture, { x: 0.5, y: 1 }, { x: 20, y: -10 })).toEqual({ bottom: 0.2 });
  });
});
