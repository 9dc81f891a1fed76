// A student on a line of 0.4 Mbit/s, who has never been here: from the link to the page with the pen in hand, in
// bytes and seconds, for a page of a PDF with marks on it; beside a page that loads as many bytes and nothing else.
import { packPoints } from '@doodla/core';
import { createServer } from 'node:http';
import { once } from 'node:events';
import { chromium } from 'playwright-core';
import { median, report } from './report.mjs';
import { aStroke, handPoints, School } from './school.mjs';
import { SlowLine } from './slowLine.mjs';

const BYTES_PER_SECOND = 50_000;
const ROUNDS = 3;
const STROKES = 40;

/** Seconds and bytes until the page shows, until its tools are there, and until all is quiet. */
async function join(browser, school, code, round) {
  const line = new SlowLine(Number(new URL(school.url).port), BYTES_PER_SECOND);
  const port = await line.open();
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    deviceScaleFactor: 2,
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  const start = performance.now();
  const now = () => ({ seconds: (performance.now() - start) / 1000, bytes: line.down });
  await page.goto(`http://127.0.0.1:${port}/join/${code}`, { waitUntil: 'commit' });
  await page.getByLabel('Your name').fill(`Wren ${round}`);
  await page.getByRole('button', { name: 'Go in' }).click();
  await page.locator('[data-testid=stage][data-shown=true]').waitFor({ timeout: 120_000 });
  const shown = now();
  await page.getByRole('toolbar', { name: 'Tools' }).waitFor({ timeout: 120_000 });
  const tools = now();
  await page.waitForLoadState('networkidle', { timeout: 120_000 });
  const all = now();
  await context.close();
  line.close();
  return { shown, tools, all };
}

const BARE = `<!doctype html><script>
  fetch('/bytes').then((answer) => answer.blob()).then(() => (document.title = 'here'));
</script>`;

/** Seconds until a page is here that loads so many bytes and nothing else. */
async function bare(browser, bytes) {
  const server = createServer((request, response) => {
    if (request.url === '/bytes') return response.end(Buffer.alloc(bytes, 7));
    response.setHeader('Content-Type', 'text/html').end(BARE);
  }).listen(0);
  await once(server, 'listening');
  const line = new SlowLine(server.address().port, BYTES_PER_SECOND);
  const port = await line.open();
  const page = await browser.newPage();
  const start = performance.now();
  await page.goto(`http://127.0.0.1:${port}/`, { waitUntil: 'commit' });
  await page.waitForFunction(() => document.title === 'here', undefined, { timeout: 120_000 });
  const seconds = (performance.now() - start) / 1000;
  await page.close();
  line.close();
  server.close();
  return seconds;
}

const school = new School();
await school.start();
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
try {
  const { code, log, teacher, author, pages } = await school.startClass();
  for (let i = 0; i < STROKES; i++) {
    const mark = aStroke(pages[0], author, null, packPoints(handPoints(40, i)));
    await teacher.ask('submit', {
      log,
      operation: { id: `join-bench-${i}`, changes: [{ do: 'add', mark }] },
    });
  }
  const rounds = [];
  for (let i = 0; i < ROUNDS; i++) rounds.push(await join(browser, school, code, i));
  const middle = (part, unit) => median(rounds.map((round) => round[part][unit]));
  const bytes = middle('shown', 'bytes');
  const seconds = middle('shown', 'seconds');
  const bareSeconds = await bare(browser, bytes);
  report('join', {
    bytes: { value: bytes, limit: 300_000 },
    seconds: { value: round(seconds), limit: 12 },
    bareSeconds: { value: round(bareSeconds) },
    ratio: { value: round(seconds / bareSeconds), limit: 1.5 },
    toolsSeconds: { value: round(middle('tools', 'seconds')) },
    toolsBytes: { value: middle('tools', 'bytes') },
    allBytes: { value: middle('all', 'bytes') },
  });
} finally {
  await browser.close();
  await school.remove();
}

function round(value) {
  return Math.round(value * 100) / 100;
}
