import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PictureMark, Sides } from '../src/index.js';
import { applyMatrix, boxMatrix, cropBy, croppedSides, patchMark } from '../src/index.js';
import { common } from './helpers/marks.js';

const aPicture = (set: Partial<PictureMark> = {}): PictureMark => ({
  ...common(),
  kind: 'picture',
  material: 'm',
  x: 100,
  y: 50,
  width: 200,
  height: 100,
  rotation: 0,
  flip: false,
  crop: { x: 0, y: 0, width: 1, height: 1 },
  style: { opacity: 1 },
  ...set,
});

/** Where a place of the whole picture, 0 to 1 each way, is seen on the page. */
function placeOf(picture: PictureMark, u: number, v: number): [number, number] {
  const { crop } = picture;
  const x = picture.x + ((u - crop.x) / crop.width) * picture.width;
  const y = picture.y + ((v - crop.y) / crop.height) * picture.height;
  const matrix = boxMatrix(picture);
  return matrix ? applyMatrix(matrix, x, y) : [x, y];
}

describe('cropping a picture', () => {
  it('takes away at the side that is moved, and gives back', () => {
    const cropped = patchMark(aPicture(), cropBy(aPicture(), { left: 0.25, bottom: 0.5 })) as PictureMark;
    expect(cropped).toMatchObject({ x: 150, y: 50, width: 150, height: 50 });
    expect(cropped.crop).toEqual({ x: 0.25, y: 0, width: 0.75, height: 0.5 });
    expect(patchMark(cropped, cropBy(cropped, { left: -9, bottom: -9 }))).toEqual({
      ...aPicture(),
      id: cropped.id,
    });
  });

  it('is of the side that is seen, also where it is mirrored', () => {
    const cropped = patchMark(aPicture({ flip: true }), cropBy(aPicture({ flip: true }), { left: 0.25 }));
    expect(cropped).toMatchObject({ x: 150, width: 150, crop: { x: 0, width: 0.75 } });
    expect(croppedSides(cropped as PictureMark)).toEqual({ left: 0.25, right: 0, top: 0, bottom: 0 });
  });

  it('leaves what stays in sight where it is, however it is turned, and something always', () => {
    const part = fc.double({ min: -1.5, max: 1.5, noNaN: true });
    const moves = fc.record({ left: part, top: part, right: part, bottom: part });
    const turned = fc.record({ rotation: fc.integer({ min: 0, max: 359 }), flip: fc.boolean() });
    fc.assert(
      fc.property(
        turned,
        fc.array(moves as fc.Arbitrary<Sides>, { minLength: 1, maxLength: 4 }),
        (set, all) => {
          const before = aPicture(set);
          let picture = before;
          for (const each of all) picture = patchMark(picture, cropBy(picture, each)) as PictureMark;
          expect(picture.width).toBeGreaterThan(5);
          expect(picture.height).toBeGreaterThan(2);
          for (const side of Object.values(croppedSides(picture))) expect(side).toBeGreaterThanOrEqual(-1e-9);
          for (const [u, v] of [
            [0.5, 0.5],
            [0.1, 0.8],
          ] as const) {
            const [was, is] = [placeOf(before, u, v), placeOf(picture, u, v)];
            expect(is[0]).toBeCloseTo(was[0], 5);
            expect(is[1]).toBeCloseTo(was[1], 5);
          }
        },
      ),
    );
  });
});
