// Playing a class again that took an hour: 20,000 strokes on 20 pages. Reading it, and jumping to any moment of it, drawn; beside
// working the same moment out from the beginning.
import { unpackLogged } from '@doodla/core';
import { Replay } from '@doodla/core/replay';
import { chromium } from 'playwright-core';
import { fillLog } from './filledLog.mjs';
import { median, percentile, report } from './report.mjs';
import { School } from './school.mjs';

const STROKES = Number(process.env.BENCH_STROKES ?? 20_000);
const PAGES = 20;
const HOUR_MS = 3_600_000;
const JUMPS = 60;
const SEED = 16;

/** Places from 0 to 1, the same every time (Park and Miller 1988). */
function places(count) {
  let state = SEED;
  return Array.from({ length: count }, () => (state = (state * 16807) % 2147483647) / 2147483647);
}

/** Milliseconds of each jump in the browser, until the moment is drawn. */
async function jumps(page) {
  return page.evaluate(async (shares) => {
    const slider = document.querySelector('[role=dialog] input[type=range]');
    const canvas = document.querySelector('[data-testid=replay-page]');
    const set = Object.getOwnPropertyDescriptor(globalThis.HTMLInputElement.prototype, 'value').set;
    const times = [];
    for (const share of shares) {
      const wanted = String(Math.round(share * Number(slider.max)));
      const started = performance.now();
      set.call(slider, wanted);
      slider.dispatchEvent(new globalThis.Event('input', { bubbles: true }));
      while (canvas.dataset.time !== wanted) await new Promise((done) => setTimeout(done));
      // What was drawn is on the screen with the next frame.
      await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
      times.push(performance.now() - started);
    }
    return times;
  }, places(JUMPS));
}

/** Milliseconds for the same moments without a browser: with what is kept, and each from the beginning. */
async function workedOut(school, log) {
  const text = await (await school.send('GET', `/api/logs/sitting/${log.id}/replay`)).text();
  const lines = text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line));
  const recorded = {
    turns: lines[0].turns,
    operations: lines.flatMap(({ steps = [] }) => steps.map(unpackLogged)),
  };
  const choice = { counts: () => true, leads: () => true, longestPause: 2000 };
  const timed = (replay, share) => {
    const started = performance.now();
    replay.stateAfter(replay.at(share * replay.length));
    return performance.now() - started;
  };
  const kept = new Replay(recorded, choice);
  const shares = places(JUMPS);
  for (const share of shares) timed(kept, share);
  const fromStart = shares.slice(0, 12).map((share) => {
    const started = performance.now();
    timed(new Replay(recorded, choice), share);
    return performance.now() - started;
  });
  return { kept: shares.map((share) => timed(kept, share)), fromStart, bytes: text.length };
}

const school = new School();
await school.start();
const made = await school.startClass(PAGES);
made.teacher.close();
await school.stop();
const began = Date.now();
await fillLog(school.data, made, {
  count: STROKES,
  points: 40,
  pageOf: (i) => made.pages[Math.floor((i * PAGES) / STROKES)],
  at: (i) => began + (i * HOUR_MS) / STROKES,
  turns: made.pages.map((page, i) => ({ page, at: began + (i * HOUR_MS) / PAGES })),
});

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
try {
  await school.start();
  const context = await browser.newContext({ baseURL: school.url, viewport: { width: 1280, height: 800 } });
  const [name, value] = school.cookie.split('=');
  await context.addCookies([{ name, value, url: school.url }]);
  const page = await context.newPage();
  await page.goto(`/sitting/${made.log.id}`);
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  await page.getByRole('button', { name: 'Show all pages' }).click();
  await page.getByRole('button', { name: 'What to do with page 1', exact: true }).click();
  const opening = performance.now();
  await page.getByRole('menuitem', { name: 'Play again' }).click();
  await page.getByRole('combobox', { name: 'What is played' }).selectOption('The whole class');
  await page.locator('[data-testid=replay-page][data-time]').waitFor();
  const openMs = performance.now() - opening;
  // Every page has been drawn once by then.
  const first = await jumps(page);
  const times = await jumps(page);
  const { kept, fromStart, bytes } = await workedOut(school, made.log);
  report('record: jumping', {
    strokes: { value: STROKES },
    seed: { value: SEED },
    openMs: { value: Math.round(openMs) },
    readBytes: { value: bytes },
    firstJumpMs: { value: Math.round(percentile(first, 0.95)) },
    jumpMs: { value: median(times), limit: 150 },
    jump95Ms: { value: percentile(times, 0.95), limit: 150 },
    stateMs: { value: median(kept), baseline: median(fromStart) },
    ratio: { value: median(kept) / median(fromStart), limit: 0.1 },
  });
} finally {
  await browser.close();
  await school.remove();
}
process.exit();
