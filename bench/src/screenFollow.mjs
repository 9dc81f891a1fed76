import { PNG } from 'pngjs';
import { estimateMotion, fingerprintOf, greyFrame, isSameView } from '@doodla/core/follow';
import { median, percentile } from './report.mjs';
import { KINDS, pageOf, randomOf } from './screenPages.mjs';

/** What the browser shows, as luma. */
async function frameOf(page) {
  const png = PNG.sync.read(await page.screenshot());
  return greyFrame(new Uint8ClampedArray(png.data), png.width, png.height);
}

async function scrollTo(page, y) {
  return page.evaluate((to) => {
    window.play?.();
    scrollTo(0, to);
    return document.scrollingElement.scrollTop;
  }, y);
}

/** Scrolls real pages by 1 to 400 pixels a step, up and down, and asks how far each step was. */
export async function followScrolls(browser, { size, stepsPerKind, kinds = KINDS }) {
  const page = await browser.newPage({ viewport: size });
  const random = randomOf(7);
  const times = [];
  const outcome = { steps: 0, right: 0, unsure: 0, wrong: 0, worst: 0 };
  for (const [n, kind] of kinds.entries()) {
    await page.setContent(pageOf(kind, n + 1));
    let y = await scrollTo(page, 0);
    let before = await frameOf(page);
    for (let i = 0; i < stepsPerKind; i++) {
      // Many small steps and some large ones, as wheels and fingers make them.
      const by = Math.max(1, Math.round(400 ** random()));
      const down = y < 200 || (random() < 0.7 && i % 9 !== 8);
      const next = await scrollTo(page, y + (down ? by : -by));
      const moved = next - y;
      y = next;
      const now = await frameOf(page);
      if (moved === 0) continue;
      const started = performance.now();
      const motion = estimateMotion(before, now);
      times.push(performance.now() - started);
      before = now;
      outcome.steps += 1;
      if (motion.kind !== 'moved') {
        outcome.unsure += 1;
        continue;
      }
      const error = Math.hypot(motion.dx, motion.dy + moved);
      outcome.worst = Math.max(outcome.worst, error);
      if (error <= 1) outcome.right += 1;
      else if (error > 3) outcome.wrong += 1;
    }
  }
  await page.close();
  return { ...outcome, medianMs: median(times), p95Ms: percentile(times, 0.95) };
}

/** A small change that must not matter: a clock, a caret, a pointer. */
function disturbed(frame, random) {
  const grey = Uint8Array.from(frame.grey);
  const box = (x, y, w, h, value) => {
    for (let row = y; row < y + h; row++) grey.fill(value, row * frame.width + x, row * frame.width + x + w);
  };
  const at = (limit) => Math.floor(random() * (limit - 60));
  box(frame.width - 90, 8, 60, 20, random() * 255);
  box(at(frame.width), at(frame.height), 2, 22, 0);
  box(at(frame.width), at(frame.height), 14, 20, 40);
  return { ...frame, grey };
}

/** Remembers many pages and asks for each again with small changes. */
export async function rememberViews(browser, { size, views }) {
  const page = await browser.newPage({ viewport: size });
  const random = randomOf(11);
  const frames = [];
  for (let i = 0; i < views; i++) {
    await page.setContent(pageOf(KINDS[i % KINDS.length], 100 + i, 6));
    frames.push(await frameOf(page));
  }
  await page.close();
  const known = frames.map(fingerprintOf);
  const times = [];
  let [found, wrong, compared] = [0, 0, 0];
  for (const [i, frame] of frames.entries()) {
    const again = disturbed(frame, random);
    const started = performance.now();
    const print = fingerprintOf(again);
    const same = known.map((other) => isSameView(print, other));
    times.push(performance.now() - started);
    found += same[i] ? 1 : 0;
    wrong += same.filter((is, j) => is && j !== i).length;
    compared += known.length - 1;
  }
  return {
    views,
    foundShare: found / views,
    wrongShare: wrong / compared,
    medianMs: median(times),
    p95Ms: percentile(times, 0.95),
  };
}
