import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import type { Frame, ViewState } from '../src/follow/index.js';
import type { Placement } from '../src/live/panes.js';
import { mainPlace } from '../src/live/panes.js';
import {
  estimateMotion,
  fingerprintOf,
  greyFrame,
  isSameCell,
  isSameView,
  likeness,
  ViewMemory,
} from '../src/follow/index.js';
import { contentsList, lossy, scaledWindow, sheet, windowOn, withVideo } from './helpers/frames.js';

const HEIGHT = 480;
const tall = sheet(800, 3000, 5);
const at = (y: number, header = 0) => windowOn(tall, y, HEIGHT, header);

/** The parts of OpenCV that serve as a reference. */
interface OpenCv {
  Mat: { new (): Mat };
  Rect: new (x: number, y: number, width: number, height: number) => object;
  matFromArray(rows: number, columns: number, type: number, data: Uint8Array): Mat;
  matchTemplate(image: Mat, part: Mat, result: Mat, method: number): void;
  minMaxLoc(result: Mat): { maxLoc: { x: number; y: number } };
  CV_8UC1: number;
  TM_CCOEFF_NORMED: number;
  onRuntimeInitialized?: () => void;
}
interface Mat {
  roi(rect: object): Mat;
  delete(): void;
}

/** Wrapped, since the module is a thenable that resolves with itself. */
async function openCv(): Promise<{ cv: OpenCv }> {
  const cv = createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv;
  if (!cv.Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve));
  return { cv };
}

describe('motion between two frames', () => {
  it('agrees with OpenCV’s template matching', async () => {
    const { cv } = await openCv();
    const mat = ({ width, height, grey }: Frame) => cv.matFromArray(height, width, cv.CV_8UC1, grey);
    for (const by of [3, 57, 140, -90]) {
      const [before, now] = [at(600), at(600 + by)];
      const part = { x: 64, y: 180, width: 320, height: 120 };
      const result = new cv.Mat();
      const template = mat(before).roi(new cv.Rect(part.x, part.y, part.width, part.height));
      cv.matchTemplate(mat(now), template, result, cv.TM_CCOEFF_NORMED);
      const { maxLoc } = cv.minMaxLoc(result);
      const motion = estimateMotion(before, now);
      expect(motion).toMatchObject({ kind: 'moved', dx: 0 });
      if (motion.kind === 'moved') expect(motion.dy).toBe(maxLoc.y - part.y);
    }
  });

  it.each([1, 2, 40, 199, 300, -1, -250])('finds a scroll of %i pixels', (by) => {
    expect(estimateMotion(at(800), at(800 + by))).toMatchObject({ kind: 'moved', dx: 0, dy: -by });
  });

  it.each([0.4, 1.7, 33.3, 150.6, -88.2])('finds a scroll of %f pixels of a scaled picture', (by) => {
    const small = (y: number) => scaledWindow(tall, { scale: 0.62, dx: 0, dy: -y }, 496, 400);
    const motion = estimateMotion(small(400), small(400 + by));
    expect(motion).toMatchObject({ kind: 'moved', scale: 1 });
    if (motion.kind !== 'moved') return;
    expect(Math.hypot(motion.dx, motion.dy + by)).toBeLessThan(0.2);
  });

  // Samples that are taken at a distance which divides that of the lines see all of the underlines or none.
  it.each([-58, -12, -4, 2, 7, 15, 23])('finds a scroll of %i pixels of small underlined lines', (by) => {
    const list = contentsList(1280, 3000, 2);
    for (const header of [0, 48]) {
      const seen = (y: number) => windowOn(list, y, 720, header);
      expect(estimateMotion(seen(900), seen(900 + by))).toMatchObject({ kind: 'moved', dx: 0, dy: -by });
    }
  });

  it('finds a scroll of a poor picture, and none where only the picture got worse', () => {
    for (const by of [5, 61, -140])
      expect(estimateMotion(lossy(at(800), 1), lossy(at(800 + by), 2))).toMatchObject({ dx: 0, dy: -by });
    expect(estimateMotion(lossy(at(800), 1), lossy(at(800), 2)).kind).toBe('still');
  });

  it.each([
    [23, 40],
    [-60, 111],
    [140, -9],
  ])('finds a diagonal scroll by %i, %i', (x, y) => {
    const wide = sheet(1400, 1600, 8);
    const seen = (dx: number, dy: number) => scaledWindow(wide, { scale: 1, dx: -dx, dy: -dy }, 800, HEIGHT);
    const motion = estimateMotion(seen(200, 500), seen(200 + x, 500 + y));
    expect(motion).toMatchObject({ kind: 'moved', scale: 1, dx: -x, dy: -y });
  });

  it.each([0.6, 0.9, 1.1, 1.5, 1.9])('finds a zoom by %f about any point', (scale) => {
    const wide = sheet(1400, 1600, 8);
    for (const [px, py] of [
      [100, 90],
      [420, 300],
    ] as const) {
      const seen = (s: number) =>
        scaledWindow(
          wide,
          { scale: s, dx: -150 * s + px * (1 - s), dy: -400 * s + py * (1 - s) },
          800,
          HEIGHT,
        );
      const [before, now] = [seen(1), seen(scale)];
      const motion = estimateMotion(before, now);
      expect(motion.kind).toBe('moved');
      if (motion.kind !== 'moved') continue;
      // Where a corner of what was seen before has come to.
      const [dx, dy] = [
        -150 * scale + px * (1 - scale) + scale * 150,
        -400 * scale + py * (1 - scale) + scale * 400,
      ];
      expect(Math.abs(motion.scale - scale)).toBeLessThan(0.002);
      expect(Math.hypot(motion.dx - dx, motion.dy - dy)).toBeLessThan(1);
    }
  });

  it('finds scrolling sideways', () => {
    const turned = (frame: Frame): Frame => {
      const grey = new Uint8Array(frame.grey.length);
      for (let y = 0; y < frame.height; y++)
        for (let x = 0; x < frame.width; x++) grey[x * frame.height + y] = frame.grey[y * frame.width + x]!;
      return { width: frame.height, height: frame.width, grey };
    };
    const wide = sheet(480, 3000, 9);
    const motion = estimateMotion(turned(windowOn(wide, 500, 800)), turned(windowOn(wide, 573, 800)));
    expect(motion).toMatchObject({ kind: 'moved', dx: -73, dy: 0 });
  });

  it('leaves out what does not scroll: a fixed header, a video', () => {
    const motion = estimateMotion(at(800, 64), at(900, 64));
    expect(motion).toMatchObject({ kind: 'moved', dy: -100 });
    // All but the header, also the margins, where nothing is to be seen.
    if (motion.kind === 'moved') expect(motion.region).toEqual({ x: 0, y: 64, width: 800, height: 416 });
    expect(estimateMotion(withVideo(at(800), 1), withVideo(at(860), 2))).toMatchObject({ dy: -60 });
  });

  it('reaches over a gap between paragraphs, where only the lines of a table stay as they are', () => {
    const grey = Uint8Array.from(tall.grey);
    for (const y of [930, 1130]) grey.fill(250, y * 800, (y + 86) * 800);
    for (let y = 0; y < 3000; y++) for (const x of [60, 300]) grey.fill(0, y * 800 + x, y * 800 + x + 2);
    const page = { width: 800, height: 3000, grey };
    const motion = estimateMotion(windowOn(page, 1020, HEIGHT, 32), windowOn(page, 820, HEIGHT, 32));
    expect(motion).toMatchObject({ kind: 'moved', dy: 200, region: { y: 32, height: HEIGHT - 32 } });
  });

  it('does not take a playing video for scrolling', () => {
    for (let i = 0; i < 5; i++)
      expect(estimateMotion(withVideo(at(800), i + 1), withVideo(at(800), i + 2)).kind).not.toBe('moved');
    // A camera that pans within a small picture moves nothing but that picture.
    const box = { x: 300, y: 100, width: 224, height: 128 };
    const panned = (by: number) => {
      const film = sheet(800, 3000, 77);
      const grey = Uint8Array.from(at(800).grey);
      for (let y = 0; y < box.height; y++)
        grey.set(
          film.grey.subarray((y + by) * 800 + 40, (y + by) * 800 + 40 + box.width),
          (box.y + y) * 800 + box.x,
        );
      return { width: 800, height: HEIGHT, grey };
    };
    expect(estimateMotion(panned(100), panned(112)).kind).not.toBe('moved');
  });

  it('says that it is unsure where lines repeat, and where everything is another', () => {
    const grey = new Uint8Array(800 * HEIGHT);
    const stripes = (phase: number) => ({
      width: 800,
      height: HEIGHT,
      grey: grey.map((_, i) => ((Math.floor(i / 800) + phase) % 24 < 4 ? 40 : 240)),
    });
    expect(estimateMotion(stripes(0), stripes(9)).kind).toBe('changed');
    expect(estimateMotion(at(0), windowOn(sheet(800, 600, 99), 0, HEIGHT)).kind).toBe('changed');
    expect(estimateMotion(at(0), windowOn(tall, 0, HEIGHT - 20)).kind).toBe('changed');
  });

  it('takes a caret or a clock for nothing', () => {
    const caret = at(800);
    for (let y = 200; y < 222; y++) caret.grey.fill(0, y * 800 + 390, y * 800 + 392);
    expect(estimateMotion(at(800), caret).kind).toBe('still');
  });
});

describe('fingerprints', () => {
  it('tell pages of text apart and know them again with small changes', () => {
    const views = Array.from({ length: 24 }, (_, i) => windowOn(sheet(800, 700, i + 1), 0, HEIGHT));
    const prints = views.map(fingerprintOf);
    for (const [i, view] of views.entries()) {
      const again = { ...view, grey: Uint8Array.from(view.grey) };
      for (let y = 4; y < 24; y++) again.grey.fill((i * 40) % 255, y * 800 + 700, y * 800 + 780);
      const print = fingerprintOf(again);
      prints.forEach((other, j) => expect(isSameView(print, other)).toBe(i === j));
    }
  });

  it('know nothing of an empty screen, and leave masked cells out', () => {
    const empty = { width: 800, height: HEIGHT, grey: new Uint8Array(800 * HEIGHT).fill(255) };
    expect(likeness(fingerprintOf(empty), fingerprintOf(empty))).toBe(0);
    const [a, b] = [fingerprintOf(at(0)), fingerprintOf(withVideo(at(0), 3))];
    const mask = a.filled.map((_, cell) => (isSameCell(a, b, cell) ? 0 : 1));
    expect(likeness(a, b)).toBeLessThan(1);
    expect(likeness(a, b, mask)).toBe(1);
  });

  it('weigh colours as ITU-R BT.601 does', () => {
    const rgba = new Uint8ClampedArray([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 255, 255, 255, 255]);
    const { grey } = greyFrame(rgba, 4, 1);
    [76, 150, 29, 255].forEach((luma, i) => expect(Math.abs(grey[i]! - luma)).toBeLessThanOrEqual(1));
  });
});

describe('the memory of views', () => {
  /** Shows frames one after the other, a tenth of a second apart. */
  function player() {
    const memory = new ViewMemory();
    let time = 0;
    return (frame: Frame, times = 1): ViewState & { place: Placement } => {
      let state: ViewState | undefined;
      for (let i = 0; i < times; i++) state = memory.take(frame, (time += 100));
      return { ...state!, place: mainPlace(state!.panes) };
    };
  }

  it('follows a page that is scrolled away and back, to the pixel', () => {
    const show = player();
    show(at(500));
    let y = 500;
    for (const by of [40, 120, 300, 333, 77, -200, -333, -300, -37]) {
      y += by;
      expect(show(at(y))).toMatchObject({ view: 0, place: { x: 0, y: 500 - y, scale: 1 }, certain: true });
    }
    expect(y).toBe(500);
  });

  it('puts views away and brings them back, scrolled as they are now', () => {
    const show = player();
    const other = windowOn(sheet(800, 700, 42), 0, HEIGHT);
    show(at(500));
    show(at(640));
    expect(show(other).certain).toBe(false);
    expect(show(other, 8)).toMatchObject({ view: 1, place: { x: 0, y: 0, scale: 1 }, certain: true });
    expect(show(at(640))).toMatchObject({ view: 0, place: { x: 0, y: -140, scale: 1 }, certain: true });
    expect(show(other)).toMatchObject({ view: 1, certain: true });
    // A little further than it was when it was left.
    expect(show(at(500 + 9), 7)).toMatchObject({ view: 0, place: { x: 0, y: -9, scale: 1 } });
  });

  it('finds its place after a jump to where it has been', () => {
    const show = player();
    show(at(0));
    for (let y = 100; y <= 1500; y += 100) show(at(y));
    expect(show(at(0))).toMatchObject({ view: 0, place: { x: 0, y: 0, scale: 1 }, certain: true });
    expect(show(at(1500), 2)).toMatchObject({ view: 0, place: { x: 0, y: -1500, scale: 1 } });
  });

  it('stays where it is while a video plays, and says for a moment that it is unsure', () => {
    const show = player();
    show(at(500), 3);
    const states = Array.from({ length: 40 }, (_, i) => show(withVideo(at(500), i + 1)));
    for (const state of states) expect(state).toMatchObject({ view: 0, place: { x: 0, y: 0, scale: 1 } });
    expect(states.at(-1)!.certain).toBe(true);
    expect(show(withVideo(at(560), 99))).toMatchObject({ view: 0, place: { x: 0, y: -60, scale: 1 } });
  });
});
