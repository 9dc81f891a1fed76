import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import type { Corners, Photo } from '../src/photo/index.js';
import { cleanPaper, rectangleTo, sheetSize, straighten } from '../src/photo/index.js';
import { randomOf } from './helpers/frames.js';

interface Mat {
  data: Uint8Array;
  data64F: Float64Array;
}
/** The parts of OpenCV that serve as a reference. */
interface OpenCv {
  Mat: new () => Mat;
  Size: new (width: number, height: number) => object;
  matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): Mat;
  getPerspectiveTransform(from: Mat, to: Mat): Mat;
  warpPerspective(from: Mat, to: Mat, map: Mat, size: object, flags: number, border: number): void;
  CV_32FC2: number;
  CV_8UC4: number;
  INTER_LINEAR: number;
  BORDER_REPLICATE: number;
  onRuntimeInitialized?: () => void;
}

/** Wrapped, since the module is a thenable that resolves with itself. */
async function openCv(): Promise<{ cv: OpenCv }> {
  const cv = createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv;
  if (!cv.Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve));
  return { cv };
}

const CORNERS: Corners = [20, 12, 150, 30, 140, 118, 8, 100];

/** A photo with soft stripes, so that a small error of place is a small error of colour. */
function photo(width: number, height: number): Photo {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i += 4) {
    const [x, y] = [(i / 4) % width, Math.floor(i / 4 / width)];
    data.set([128 + 100 * Math.sin(x / 9), 128 + 100 * Math.cos(y / 7), (x + y) % 256, 255], i);
  }
  return { width, height, data };
}

describe('straightening a photo', () => {
  it('maps as OpenCV’s getPerspectiveTransform does, and draws as its warpPerspective', async () => {
    const { cv } = await openCv();
    const { width, height } = sheetSize(CORNERS);
    const from = cv.matFromArray(4, 1, cv.CV_32FC2, [0, 0, width, 0, width, height, 0, height]);
    const to = cv.matFromArray(4, 1, cv.CV_32FC2, [...CORNERS]);
    const theirs = cv.getPerspectiveTransform(from, to).data64F;
    rectangleTo(CORNERS, width, height).forEach((value, i) => expect(value).toBeCloseTo(theirs[i]!, 4));

    const source = photo(160, 130);
    // Their pixels have their middles on whole numbers, ours on halves.
    const shifted = [...CORNERS].map((value) => value - 0.5);
    const corners = [-0.5, -0.5, width - 0.5, -0.5, width - 0.5, height - 0.5, -0.5, height - 0.5];
    const map = cv.getPerspectiveTransform(
      cv.matFromArray(4, 1, cv.CV_32FC2, shifted),
      cv.matFromArray(4, 1, cv.CV_32FC2, corners),
    );
    const warped = new cv.Mat();
    const image = cv.matFromArray(130, 160, cv.CV_8UC4, source.data);
    cv.warpPerspective(image, warped, map, new cv.Size(width, height), cv.INTER_LINEAR, cv.BORDER_REPLICATE);
    const ours = straighten(source, CORNERS);
    let sum = 0;
    for (let i = 0; i < ours.data.length; i++) sum += Math.abs(ours.data[i]! - warped.data[i]!);
    expect(sum / ours.data.length).toBeLessThan(1);
  });

  it('says when the corners enclose nothing', () => {
    expect(() => straighten(photo(20, 20), [1, 1, 5, 5, 9, 9, 13, 13])).toThrow('enclose nothing');
  });
});

describe('clean paper', () => {
  it('is white under uneven light, and ink on it stays dark', () => {
    const [width, height] = [240, 160];
    const data = new Uint8ClampedArray(width * height * 4);
    const random = randomOf(3);
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        // A shadow from the left, a little noise, and lines of writing.
        const light = 110 + 0.5 * x + random() * 4;
        const ink = y % 20 < 3 && x % 30 < 20;
        const value = ink ? light * 0.3 : light;
        data.set([value, value, value, 255], (y * width + x) * 4);
      }
    }
    const { data: out } = cleanPaper({ width, height, data });
    for (const x of [5, 120, 235]) {
      expect(out[(10 * width + x) * 4]).toBeGreaterThan(240);
      expect(out[(1 * width + (x - (x % 30)) + 5) * 4]).toBeLessThan(60);
    }
  });
});
