// A PDF of 200 pages: from upload finished to the first page on screen, against bare pdf.js drawing
// the same page in the same browser; and memory while all pages are turned, against ten of them.
import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { withBrowser } from './harness.mjs';
import { median, report } from './report.mjs';

const PAGES = 200;
const ROUNDS = 5;
const pdfjs = createRequire(import.meta.url)
  .resolve('pdfjs-dist/package.json')
  .replace('package.json', 'legacy/build/');

/** A textbook: each page has text, a drawing of lines, and the pages share their fonts. */
async function makeBook() {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (let n = 0; n < PAGES; n++) {
    const page = doc.addPage([595.28, 841.89]);
    for (let line = 0; line < 40; line++) {
      page.drawText(`Page ${n + 1}, line ${line + 1}: the load on a beam is carried to both of its ends.`, {
        x: 50,
        y: 790 - line * 13,
        size: 10,
        font,
      });
    }
    for (let i = 0; i < 120; i++) {
      page.drawLine({
        start: { x: 50 + i * 4, y: 60 },
        end: { x: 50 + ((i * 37) % 480), y: 240 },
        thickness: 0.5,
        color: rgb(0.2, 0.3, (i % 10) / 10),
      });
    }
  }
  return Buffer.from(await doc.save());
}

/** Milliseconds from asking the bare engine for the file to its first page on a canvas of the same size. */
async function bare(context, book, width) {
  const page = await context.newPage();
  const serve = (path, body, contentType) =>
    page.route(`**/bare/${path}`, (route) => route.fulfill({ body, contentType }));
  await serve('', '<canvas></canvas>', 'text/html');
  await serve('pdf.mjs', readFileSync(`${pdfjs}pdf.min.mjs`), 'text/javascript');
  await serve('worker.mjs', readFileSync(`${pdfjs}pdf.worker.min.mjs`), 'text/javascript');
  await serve('book.pdf', book, 'application/pdf');
  await page.goto('/bare/');
  const time = await page.evaluate(async (wanted) => {
    const started = performance.now();
    const { getDocument, GlobalWorkerOptions } = await import('/bare/pdf.mjs');
    GlobalWorkerOptions.workerSrc = '/bare/worker.mjs';
    const doc = await getDocument({
      url: '/bare/book.pdf',
      standardFontDataUrl: '/pdfjs/standard_fonts/',
      useSystemFonts: false,
    }).promise;
    const first = await doc.getPage(1);
    const viewport = first.getViewport({ scale: wanted / first.getViewport({ scale: 1 }).width });
    const canvas = document.querySelector('canvas');
    [canvas.width, canvas.height] = [viewport.width, viewport.height];
    await first.render({ canvas, viewport }).promise;
    await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - started;
  }, width);
  await page.close();
  return time;
}

/** Milliseconds from the last byte sent to the first page on screen; the page stays open. */
async function ours(context, book) {
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('heading', { name: 'Your lessons' }).waitFor();
  await page.evaluate(() => {
    const send = XMLHttpRequest.prototype.send;
    XMLHttpRequest.prototype.send = function (...args) {
      this.upload.addEventListener('load', () => (window.sentAt = performance.now()));
      return send.apply(this, args);
    };
    const look = () => {
      if (document.querySelector('[data-testid=stage][data-shown=true]')) window.shownAt = performance.now();
      else requestAnimationFrame(look);
    };
    look();
  });
  await page
    .getByLabel('Choose documents')
    .setInputFiles({ name: 'book.pdf', mimeType: 'application/pdf', buffer: book });
  await page.waitForFunction(() => window.shownAt !== undefined);
  const time = await page.evaluate(() => window.shownAt - window.sentAt);
  return { page, time };
}

async function memoryAfter(page, turns) {
  for (let i = 0; i < turns; i++) {
    await page.keyboard.press('PageDown');
    await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  }
  await page.evaluate(() => globalThis.gc?.());
  return rendererMegabytes();
}

/** Resident memory of all of the browser's page processes, which holds canvases too. */
function rendererMegabytes() {
  const rows = execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8' }).split('\n');
  const kilobytes = rows
    .filter((row) => row.includes('--type=renderer'))
    .reduce((sum, row) => sum + parseInt(row, 10), 0);
  return kilobytes / 1024;
}

const book = await makeBook();
await withBrowser(async (context) => {
  const [oursMs, bareMs] = [[], []];
  let last;
  for (let round = 0; round < ROUNDS; round++) {
    await last?.close();
    const { page, time } = await ours(context, book);
    oursMs.push(time);
    last = page;
    const width = await page.evaluate(() => Math.round(window.doodla.stageState().scale * 793.7));
    bareMs.push(await bare(context, book, width));
  }
  const ten = await memoryAfter(last, 10);
  const all = await memoryAfter(last, PAGES - 11);
  report('pdf', {
    firstPageMs: { value: Math.round(median(oursMs)) },
    barePdfJsMs: { value: Math.round(median(bareMs)) },
    firstPageRatio: { value: Number((median(oursMs) / median(bareMs)).toFixed(2)), limit: 1.5 },
    memoryAfter10Mb: { value: Math.round(ten) },
    memoryGrowthMb: { value: Math.round(all - ten), limit: 150 },
  });
});
