// Handing out: 30 pages with 100 marks each over a document that nobody here wrote, beside loading and saving that
// document: with a thread that works out ink meanwhile, as the application has them, and without. And 100 pages as
// pictures at twice their size, with what they take and whether the page still answers.
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { packPoints } from '@doodla/core';
import { makePdf } from '@doodla/core/handout';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import timers from 'node:timers';
import { promisify } from 'node:util';
import { deflate, deflateSync } from 'node:zlib';
import { corpusFolder } from './corpus.mjs';
import { withBrowser } from './harness.mjs';
import { startInkThread } from './inkThread.mjs';
import { median, report } from './report.mjs';
import { handPoints } from './school.mjs';

/** 30 pages with links, a contents list and a dozen fonts. */
const DOCUMENT = 'usr/share/doc/texlive-doc/latex/aomart/aomsample.pdf';
const MARKS = 100;
/** Odd, so that one of them is the median. */
const ROUNDS = 25;
const ANNOTATED_ROUNDS = 5;
const PICTURES = 100;
/** A task of the page that takes longer is felt as standing still, ms (RAIL: 100 ms for an answer). */
const LONGEST_TASK = 100;

const require = createRequire(import.meta.url);
const andika = new Uint8Array(
  readFileSync(require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf')),
);

const frame = (id, page) => ({
  ...{ id, page, author: 'ada', space: 'class', order: 'a0' },
  ...{ locked: false, group: null, alt: null, createdAt: 0 },
});

/** What a page has after a lesson: mostly ink of 10 to 40 points, no two strokes alike, some words, some shapes. */
function markOf(page, n, seed) {
  const common = frame(`${page}-${n}`, page);
  const [x, y] = [40 + ((n * 37) % 480), 60 + ((n * 53) % 700)];
  if (n % 10 === 8)
    return {
      ...common,
      kind: 'text',
      ...{ x, y, width: 180, rotation: 0, text: `A word or two, number ${n}` },
      style: {
        ...{ font: 'andika', size: 16, colour: '#0072b2', bold: false, italic: false, underline: false },
        ...{ background: null, align: 'left', list: 'none' },
      },
    };
  if (n % 10 === 9)
    return {
      ...common,
      kind: 'shape',
      ...{ form: 'ellipse', sides: 4, flip: false, x, y, width: 90, height: 50, rotation: 0 },
      style: { line: '#d55e00', width: 3, dash: 'solid', fill: null, opacity: 1 },
    };
  return {
    ...common,
    kind: 'stroke',
    points: handPoints(10 + ((n * 7) % 31), seed),
    pressure: true,
    style: { nature: 'pen', colour: '#0072b2', width: 4, opacity: 1 },
  };
}

async function documents() {
  const bytes = new Uint8Array(readFileSync(join(corpusFolder(), DOCUMENT)));
  const count = (await PDFDocument.load(bytes)).getPageCount();
  const pages = Array.from({ length: count }, (_, index) => {
    const id = `p${index}`;
    const surface = { kind: 'pdf', material: 'm', index };
    const page = { id, order: 'a0', title: '', width: 595, height: 842, surface, removed: false };
    return { page, marks: Array.from({ length: MARKS }, (_, n) => markOf(id, n, index * MARKS + n)) };
  });
  const sources = {
    pdf: () => Promise.resolve(bytes),
    font: () => Promise.resolve(andika),
    deflate: promisify(deflate),
  };
  const timed = async (task) => {
    const started = performance.now();
    const made = await task();
    return { ms: performance.now() - started, made };
  };
  const [plain, drawn, alone, annotated] = [[], [], [], []];
  const { ink, stop } = startInkThread();
  const helped = { ...sources, ink };
  let sizes;
  for (let round = 0; round < ROUNDS; round++) {
    plain.push((await timed(async () => (await PDFDocument.load(bytes)).save())).ms);
    const flat = await timed(() => makePdf(pages, helped, { title: 'x' }));
    drawn.push(flat.ms);
    alone.push((await timed(() => makePdf(pages, sources, { title: 'x' }))).ms);
    sizes = { flat: flat.made.length };
  }
  // What these leave behind would be swept up while the others are measured.
  for (let round = 0; round < ANNOTATED_ROUNDS; round++) {
    const notes = await timed(() => makePdf(pages, helped, { title: 'x', marksAs: 'annotations' }));
    annotated.push(notes.ms);
    sizes.annotated = notes.made.length;
  }
  await stop();
  const strokes = pages.flatMap(({ marks }) =>
    marks.flatMap(({ points }) => (points ? [packPoints(points)] : [])),
  );
  const least = bytes.length + deflateSync(Buffer.from(strokes.join())).length;
  return {
    plainMs: { value: Math.round(median(plain)) },
    drawnRatio: { value: round2(median(drawn) / median(plain)), limit: 3 },
    aloneRatio: { value: round2(median(alone) / median(plain)) },
    annotatedRatio: { value: round2(median(annotated) / median(plain)) },
    sizeRatio: { value: round2(sizes.flat / least), limit: 1.5 },
    annotatedSizeRatio: { value: round2(sizes.annotated / least) },
  };
}

const round2 = (value) => Math.round(value * 100) / 100;

async function longDocument() {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 0; n < PICTURES; n++) {
    const page = doc.addPage([595, 842]);
    for (let line = 0; line < 40; line++)
      page.drawText(`Page ${n + 1}, line ${line}: a bridge carries its load into the banks.`, {
        ...{ x: 50, y: 780 - line * 18, size: 11, font },
      });
  }
  return Buffer.from(await doc.save());
}

/** Resident memory of the process that shows pages, bytes. */
function residentBytes() {
  const out = execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8', maxBuffer: 1e7 });
  const renderers = out.split('\n').filter((line) => line.includes('--type=renderer'));
  return Math.max(...renderers.map((line) => Number(line.trim().split(' ')[0]) * 1024));
}

function pictures() {
  return withBrowser(async (context) => {
    const page = await context.newPage();
    await page.goto('/');
    const buffer = await longDocument();
    await page
      .getByLabel('Choose documents')
      .setInputFiles({ name: 'long.pdf', mimeType: 'application/pdf', buffer });
    await page.waitForURL(/\/lesson\//);
    await page.locator('[data-testid=stage][data-shown=true]').waitFor();
    await page.getByRole('button', { name: 'Hand out' }).click();
    await page.getByLabel('Hand out as').selectOption({ label: 'Pictures (PNG)' });
    await page.evaluate(() => {
      window.tasks = [];
      window.steps = [];
      new window.PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) window.tasks.push(duration);
      }).observe({ entryTypes: ['longtask'] });
      new window.MutationObserver(() => {
        const bar = document.querySelector('[role=progressbar]');
        const part = Number(bar?.getAttribute('aria-valuenow') ?? -1);
        if (part >= 0 && window.steps.at(-1)?.part !== part)
          window.steps.push({ part, at: performance.now() });
      }).observe(document.body, { attributes: true, childList: true, subtree: true });
    });
    // The small pictures of the pages are drawn while one chooses; they are not what is measured.
    await page.waitForTimeout(4000);
    await page.evaluate(() => (window.tasks.length = 0));
    const seen = [];
    const started = performance.now();
    const watch = timers.setInterval(() => seen.push(residentBytes()), 250);
    await page.getByRole('button', { name: 'Make the pictures' }).click();
    await page.getByRole('link', { name: /^Save/ }).waitFor({ timeout: 300_000 });
    timers.clearInterval(watch);
    const ms = performance.now() - started;
    const { tasks, steps } = await page.evaluate(() => ({ tasks: window.tasks, steps: window.steps }));
    const waits = steps.slice(1).map(({ at }, i) => at - steps[i].at);
    const size = await page.getByRole('link', { name: /^Save/ }).evaluate(async (link) => {
      return (await (await fetch(link.href)).blob()).size;
    });
    const onePage = 2 * 794 * 2 * 1123 * 4;
    const early = Math.max(...seen.slice(0, Math.ceil(seen.length / 4)));
    // What has been made so far is kept, so only what goes beyond it counts.
    const grown = Math.max(0, Math.max(...seen) - early - size);
    return {
      picturesMs: { value: Math.round(ms) },
      longestTaskMs: { value: Math.round(Math.max(0, ...tasks)), limit: LONGEST_TASK },
      pagesHeld: { value: round2(grown / onePage), limit: 3 },
      longestWaitRatio: { value: round2(Math.max(...waits) / (ms / steps.length)), limit: 6 },
    };
  });
}

report('handout', { ...(await documents()), ...(await pictures()) });
