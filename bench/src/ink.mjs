// A page with 5,000 finished strokes (200,000 points): writing, moving the page, opening it, memory,
// erasing, lasso, pouring; each against a plain canvas doing the same in the same browser.
import { execFileSync } from 'node:child_process';
import { PDFDocument } from '@cantoo/pdf-lib';
import { withBrowser } from './harness.mjs';
import { fill, POINTS } from './manyStrokes.mjs';
import { median, percentile, report } from './report.mjs';

const STROKES = 5000;

function heapMegabytes(page) {
  return page.evaluate(() => {
    globalThis.gc?.();
    return performance.memory.usedJSHeapSize / 1e6;
  });
}

function rendererMegabytes() {
  const rows = execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8' }).split('\n');
  return (
    rows.filter((row) => row.includes('--type=renderer')).reduce((sum, row) => sum + parseInt(row, 10), 0) /
    1024
  );
}

/** Main-thread milliseconds of every pointer event while a stroke is drawn with the tool in hand. */
async function pointerWork(page, key, from, to) {
  await page.keyboard.press(key);
  await page.evaluate(() => {
    window.work = [];
    const host = document.querySelector('[data-testid=stage]');
    window.timed = {
      start: (event) => (event.startedAt = performance.now()),
      end: (event) => window.work.push(performance.now() - event.startedAt),
    };
    window.addEventListener('pointermove', window.timed.start, { capture: true });
    window.addEventListener('pointermove', window.timed.end);
    host.dataset.timed = 'true';
  });
  await page.mouse.move(...from);
  await page.mouse.down();
  for (let i = 1; i <= 150; i++) {
    const t = i / 150;
    await page.mouse.move(
      from[0] + (to[0] - from[0]) * t,
      from[1] + (to[1] - from[1]) * t + 8 * Math.sin(i / 5),
    );
  }
  await page.mouse.up();
  return page.evaluate(() => {
    window.removeEventListener('pointermove', window.timed.start, { capture: true });
    window.removeEventListener('pointermove', window.timed.end);
    return window.work;
  });
}

/** The same number of events on a bare canvas that draws the whole stroke so far with lineTo. */
function barePointerWork(page) {
  return page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [innerWidth, innerHeight];
    const ctx = canvas.getContext('2d');
    const points = [];
    const work = [];
    for (let i = 0; i < 150; i++) {
      const started = performance.now();
      points.push([300 + i * 3, 300 + 8 * Math.sin(i / 5)]);
      ctx.clearRect(0, 0, canvas.width, canvas.height);
      ctx.beginPath();
      for (const [x, y] of points) ctx.lineTo(x, y);
      ctx.stroke();
      work.push(performance.now() - started);
    }
    return work;
  });
}

/** Milliseconds between frames while the page is panned with the wheel. */
async function panFrames(page) {
  await page.mouse.move(700, 400);
  await page.evaluate(() => {
    window.frames_ = [];
    let last = performance.now();
    const tick = (now) => {
      window.frames_.push(now - last);
      last = now;
      window.ticking = requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  for (let i = 0; i < 40; i++) await page.mouse.wheel(0, i % 20 < 10 ? 12 : -12);
  return page.evaluate(() => {
    cancelAnimationFrame(window.ticking);
    return window.frames_.slice(2);
  });
}

/** Milliseconds between frames while one bitmap of the window's size is drawn anew in each. */
function bitmapFrames(page) {
  return page.evaluate(async () => {
    const source = document.createElement('canvas');
    [source.width, source.height] = [innerWidth, innerHeight];
    source.getContext('2d').fillRect(0, 0, 400, 400);
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [innerWidth, innerHeight];
    canvas.style.cssText = 'position:fixed;inset:0;z-index:99';
    document.body.append(canvas);
    const ctx = canvas.getContext('2d');
    const frames = [];
    let last = performance.now();
    for (let i = 0; i < 40; i++) {
      const now = await new Promise(requestAnimationFrame);
      frames.push(now - last);
      last = now;
      ctx.clearRect(0, 0, canvas.width, canvas.height);
      ctx.drawImage(source, i % 20, i % 20);
    }
    canvas.remove();
    return frames.slice(2);
  });
}

/** Milliseconds of JSON.parse and of building a Path2D of as many curves for each stroke. */
function bareOpening(page, json) {
  return page.evaluate((text) => {
    const started = performance.now();
    const marks = JSON.parse(text);
    window.kept = marks.map(({ points }) => {
      const path = new Path2D();
      for (let side = 0; side < 2; side++) {
        for (let i = 0; i + 4 < points.length; i += 4) {
          path.quadraticCurveTo(
            points[i],
            points[i + 1],
            (points[i] + points[i + 4]) / 2,
            (points[i + 1] + points[i + 5]) / 2,
          );
        }
      }
      return path;
    });
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [innerWidth, innerHeight];
    const ctx = canvas.getContext('2d');
    for (const path of window.kept) ctx.fill(path);
    ctx.getImageData(0, 0, 1, 1);
    const took = performance.now() - started;
    window.kept = undefined;
    return took;
  }, json);
}

/** Milliseconds of pouring into a large ring on a page of 2,000 by 1,500 pixels, as the worker does. */
async function pouring() {
  const { pour } = await import('../../core/dist/fill/index.js');
  const [width, height] = [2000, 1500];
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const d = Math.hypot(x - 1000, y - 750);
      if (Math.abs(d - 700) < 3 || (d < 690 && x % 97 < 2 && y % 89 < 40))
        data.fill(0, (y * width + x) * 4, (y * width + x) * 4 + 3);
    }
  }
  const times = [];
  for (let i = 0; i < 7; i++) {
    const started = performance.now();
    pour({ width, height, data }, { x: 1010, y: 760, tolerance: 48, gap: 8 });
    times.push(performance.now() - started);
  }
  return median(times);
}

// Before the browser takes its share of the machine.
const pourMs = Math.round(await pouring());

await withBrowser(async (context) => {
  const doc = await PDFDocument.create();
  doc.addPage([595.28, 841.89]);
  const page = await context.newPage();
  await page.goto('/');
  await page
    .getByLabel('Choose documents')
    .setInputFiles({ name: 'page.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await doc.save()) });
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  const lesson = /lesson\/([\w-]+)/.exec(page.url())[1];
  const url = new URL(page.url()).origin;
  const [cookie] = await context.cookies();
  const emptyHeap = await heapMegabytes(page);
  const emptyRss = rendererMegabytes();
  const marks = await fill(url, `${cookie.name}=${cookie.value}`, lesson, STROKES);
  await page.waitForFunction((count) => window.doodla.stageState().marks.length === count, STROKES);

  // Opening: from the log's arrival until everything is on the canvas, by marks that the page sets.
  const bareOpen = [];
  for (let i = 0; i < 3; i++) bareOpen.push(await bareOpening(page, JSON.stringify(marks)));
  await page.reload();
  await page.waitForFunction((count) => window.doodla?.stageState().marks.length === count, STROKES);
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  await page.waitForFunction(() => performance.getEntriesByName('log drawn').length > 0);
  const opening = await page.evaluate(
    () =>
      performance.getEntriesByName('log drawn')[0].startTime -
      performance.getEntriesByName('page arrived')[0].startTime,
  );

  const bytesPerPoint = (((await heapMegabytes(page)) - emptyHeap) * 1e6) / (STROKES * POINTS);
  const rssPerPoint = ((rendererMegabytes() - emptyRss) * 1024 * 1024) / (STROKES * POINTS);

  const writing = await pointerWork(page, 'p', [500, 250], [800, 400]);
  const bare = await barePointerWork(page);
  const pan = await panFrames(page);
  const bitmap = await bitmapFrames(page);
  const lasso = await pointerWork(page, 'v', [480, 200], [900, 600]);
  const erasing = await pointerWork(page, 'e', [480, 150], [860, 700]);

  report('ink', {
    pourMs: { value: pourMs, limit: 150 },
    writing95Ms: { value: +percentile(writing, 0.95).toFixed(2), limit: 4 },
    writingRatio: { value: +(percentile(writing, 0.95) / percentile(bare, 0.95)).toFixed(1) },
    bareLineTo95Ms: { value: +percentile(bare, 0.95).toFixed(2) },
    panFrameMs: { value: +median(pan).toFixed(1) },
    bitmapFrameMs: { value: +median(bitmap).toFixed(1) },
    panRatio: { value: +(median(pan) / median(bitmap)).toFixed(2), limit: 1.5 },
    openingMs: { value: Math.round(opening) },
    bareOpeningMs: { value: Math.round(median(bareOpen)) },
    openingRatio: { value: +(opening / median(bareOpen)).toFixed(2), limit: 2 },
    heapBytesPerPoint: { value: Math.round(bytesPerPoint), limit: 300 },
    residentBytesPerPoint: { value: Math.round(rssPerPoint) },
    lasso95Ms: { value: +percentile(lasso, 0.95).toFixed(2), limit: 16 },
    erasing95Ms: { value: +percentile(erasing, 0.95).toFixed(2), limit: 16 },
  });
});
