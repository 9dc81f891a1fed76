// What recording an explanation costs while one writes, beside writing without: main-thread time of each event, memory over time,
// and what ten minutes take; then a video of it. BENCH_MINUTES says for how long it is recorded; 30 are what is promised.
import { chromium } from 'playwright-core';
import { filmTimes } from './film.mjs';
import { median, report } from './report.mjs';
import { School } from './school.mjs';

const MINUTES = Number(process.env.BENCH_MINUTES ?? 3);
const EVENTS = 150;
const ROUNDS = 6;
const MB = 1e6;

const school = new School();
await school.start();
const made = await school.startClass(1);
made.teacher.close();
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    '--js-flags=--expose-gc',
    '--enable-precise-memory-info',
  ],
});

/** Seconds that the main thread has been busy since the page was opened. */
async function busySeconds(cdp) {
  const { metrics } = await cdp.send('Performance.getMetrics');
  return metrics.find(({ name }) => name === 'TaskDuration').value;
}

/** Main-thread milliseconds for each event of a stroke. */
async function strokeWork(page, cdp, y) {
  const before = await busySeconds(cdp);
  await page.mouse.move(300, y);
  await page.mouse.down();
  for (let i = 1; i <= EVENTS; i++) await page.mouse.move(300 + 4 * i, y + 10 * Math.sin(i / 6));
  await page.mouse.up();
  return ((await busySeconds(cdp)) - before) * (1000 / EVENTS);
}

async function strokes(page, cdp, count, from) {
  const work = [];
  for (let i = 0; i < count; i++) work.push(await strokeWork(page, cdp, from + 12 * i));
  return work;
}

const heap = (page) =>
  page.evaluate(() => {
    globalThis.gc();
    return performance.memory.usedJSHeapSize;
  });

async function begin(page) {
  await page.getByRole('button', { name: 'Explanations', exact: true }).click();
  await page.getByRole('meter').waitFor();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await page.locator('[data-recording=recording]').waitFor();
}

async function finish(page) {
  await page.getByRole('button', { name: 'Finish' }).click();
  await page.locator('[data-recording]').waitFor({ state: 'detached' });
}

/** Bytes of the tracks of what was recorded last, and its length in milliseconds. */
async function recordedBytes() {
  const path = `/api/logs/sitting/${made.log.id}/explanations`;
  for (;;) {
    const { explanations } = await (await school.send('GET', path)).json();
    const [last] = explanations;
    if (last?.finished) {
      const size = async (track) =>
        (
          await (
            await school.send('GET', `${path}/${last.id}/takes/${last.takes[0].id}/${track}`)
          ).arrayBuffer()
        ).byteLength;
      return { voice: await size('voice'), notes: await size('notes'), length: last.takes[0].length };
    }
    await new Promise((done) => setTimeout(done, 200));
  }
}

try {
  const context = await browser.newContext({ baseURL: school.url, viewport: { width: 1280, height: 800 } });
  const [name, value] = school.cookie.split('=');
  await context.addCookies([{ name, value, url: school.url }]);
  const page = await context.newPage();
  await page.goto(`/sitting/${made.log.id}`);
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  const cdp = await context.newCDPSession(page);
  await cdp.send('Performance.enable');
  await strokes(page, cdp, 4, 130);
  const [plain, recorded] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    plain.push(...(await strokes(page, cdp, 4, 150)));
    await begin(page);
    recorded.push(...(await strokes(page, cdp, 4, 156)));
    await finish(page);
  }

  await begin(page);
  const began = performance.now();
  const heaps = [];
  for (let i = 0; performance.now() - began < MINUTES * 60_000; i++) {
    await strokeWork(page, cdp, 140 + (i % 40) * 12);
    await page.waitForTimeout(1500);
    if (performance.now() - began > 60_000) heaps.push(await heap(page));
  }
  const marks = await page.evaluate(() => globalThis.doodla.stageState().marks.length);
  await finish(page);
  const { voice, notes, length } = await recordedBytes();
  const tenMinutes = (bytes) => (bytes * 600_000) / length / MB;
  report('record: recording', {
    minutes: { value: MINUTES },
    strokes: { value: marks },
    eventMs: { value: median(recorded), baseline: median(plain) },
    ratio: { value: median(recorded) / median(plain), limit: 1.1 },
    heapGrowthMb: { value: (heaps.at(-1) - heaps[0]) / MB, limit: 20 },
    tenMinutesMb: { value: tenMinutes(voice + notes), limit: 6 },
    notesShare: { value: notes / (voice + notes), limit: 0.1 },
  });
  const film = await filmTimes(page);
  const plainBytes = film.bytes / film.length;
  report('record: video, 720p', {
    seconds: { value: film.length },
    pictures: { value: film.pictures },
    tenMinutesMb: { value: (film.bytes * 600) / film.length / MB },
    // A video of the same, beside what is kept of an explanation.
    timesLarger: { value: plainBytes / ((voice + notes) / (length / 1000)) },
    madeInShareOfItsLength: { value: film.made / film.length, limit: 0.5 },
    ratio: { value: film.made / film.bare, limit: 1.5 },
  });
} finally {
  await browser.close();
  await school.remove();
}
process.exit();
