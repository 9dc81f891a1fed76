// How well shared screens are followed: real pages, scrolled and zoomed, as they arrive when the browser has scaled or
// compressed them; the time for a frame is compared with looking at every pixel of it once.
import { estimateMotion } from '@doodla/core/follow';
import { chromium } from 'playwright-core';
import { median, report } from './report.mjs';
import { CAPTURES, steps } from './screenDocs.mjs';
import { touchPixels } from './touchPixels.mjs';

const STEPS = Number(process.env.BENCH_STEPS ?? 60);
const RIGHT = 1;
const WRONG = 3;

/** The largest error over what was seen before and still is, pixels. */
function errorOf({ scale, dx, dy }, expected, frame) {
  const region = expected.region ?? { x: 0, y: 0, ...frame };
  const errors = [0, 1].flatMap((u) =>
    [0, 1].map((v) => {
      const now = {
        x: clamp(expected.scale * (region.x + u * region.width) + expected.dx, frame.width),
        y: clamp(expected.scale * (region.y + v * region.height) + expected.dy, frame.height),
      };
      const [x, y] = [(now.x - expected.dx) / expected.scale, (now.y - expected.dy) / expected.scale];
      return Math.hypot(scale * x + dx - now.x, scale * y + dy - now.y);
    }),
  );
  return Math.max(...errors);
}

const clamp = (value, most) => Math.min(most, Math.max(0, value));

async function follow(browser, capture) {
  const outcome = { steps: 0, right: 0, unsure: 0, wrong: 0, times: [] };
  for await (const { before, now, expected } of steps(browser, capture, STEPS)) {
    const started = performance.now();
    const motion = estimateMotion(before, now);
    outcome.times.push(performance.now() - started);
    outcome.steps += 1;
    if (motion.kind !== 'moved') outcome.unsure += 1;
    else {
      const error = errorOf(motion, expected, capture.frame);
      if (error <= RIGHT) outcome.right += 1;
      else if (error > WRONG) outcome.wrong += 1;
    }
  }
  return outcome;
}

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--allow-file-access-from-files'],
});
const figures = {};
const quick = [];
let bare = 0;
for (const capture of CAPTURES) {
  const { steps: all, right, wrong, unsure, times } = await follow(browser, capture);
  figures[`${capture.name}: missed`] = { value: +(1 - right / all).toFixed(3), limit: 0.03 };
  figures[`${capture.name}: wrong`] = { value: wrong, limit: 0 };
  figures[`${capture.name}: unsure`] = { value: unsure };
  figures[`${capture.name}: ms`] = { value: +median(times).toFixed(1) };
  if (capture.frame.width === 1280 && !capture.wide && !capture.zoom) quick.push(...times);
  bare ||= touchPixels(capture.frame);
}
await browser.close();
report('follow', {
  ...figures,
  frameMedianMs: { value: +median(quick).toFixed(1), limit: 8 },
  frameRatio: { value: +(median(quick) / bare).toFixed(1) },
});
