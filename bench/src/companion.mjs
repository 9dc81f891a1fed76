// Writing on live pages by the companion: what a pointer event takes on a page of 2,000 marks, what the extension costs pages
// on which it is not switched on, and how far ink is from its words after a thousand random scrolls, zooms and resizes.
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from 'playwright-core';
import { median, report } from './report.mjs';

const UNPACKED = fileURLToPath(new URL('../../companion/dist/chromium', import.meta.url));
const MARKS = 2000;
const EVENT_MS = 4;
const SLOWER = 1.1;
const MOVES = 1000;
const OFF_PX = 1;
const OFF_MS = 1;
const LOADS = 15;

const paragraph = (i) =>
  `<p id="p${i}">Word${i} of paragraph ${i}: the deck of the footbridge gives way by ${i} hundredths when a class walks over it.</p>`;
const HTML = `<!doctype html><title>Bench</title><style>body{font:16px/1.5 serif;max-width:800px;margin:60px auto}section{height:240px;overflow:auto}</style>
${Array.from({ length: 400 }, (_, i) => paragraph(i)).join('\n')}<section>${Array.from({ length: 60 }, (_, i) => paragraph(400 + i)).join('')}</section>`;

const asked = [];
const server = createServer((request, response) => {
  asked.push(request.url);
  response.writeHead(200, { 'content-type': 'text/html' }).end(HTML);
});
await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
const ADDRESS = `http://127.0.0.1:${server.address().port}/page`;

const plain = await launched([]);
const own = await launched([`--disable-extensions-except=${UNPACKED}`, `--load-extension=${UNPACKED}`]);
const off = await costWhereOff();
const writing = await writes();
await plain.close();
await own.close();
server.close();

report('companion', {
  pointerEvent: { value: writing.eventMs, unit: 'ms', limit: EVENT_MS, marks: MARKS },
  pageWithExtension: { value: off.slower, unit: 'times without', limit: SLOWER, withoutMs: off.loadMs },
  requests: { value: off.requests, limit: 0 },
  scriptAdded: { value: off.addedMs, unit: 'ms', limit: OFF_MS },
  offItsWords: { value: writing.offPx, unit: 'px', limit: OFF_PX, moves: MOVES },
});

async function launched(args) {
  const profile = mkdtempSync(join(tmpdir(), 'companion-bench-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    viewport: { width: 1280, height: 800 },
    args: ['--no-sandbox', '--disable-gpu', '--enable-unsafe-extension-debugging', ...args],
  });
  const close = async () => {
    await context.close();
    rmSync(profile, { recursive: true, force: true });
  };
  return { context, close };
}

/** Loads and scrolls the page in turn without and with the extension, which is not switched on. */
async function costWhereOff() {
  const times = { plain: [], own: [] };
  const scripts = { plain: [], own: [] };
  const pages = { plain: await plain.context.newPage(), own: await own.context.newPage() };
  const script = { plain: await scriptOf(pages.plain), own: await scriptOf(pages.own) };
  asked.length = 0;
  for (let i = 0; i < LOADS; i++)
    for (const name of i % 2 === 0 ? ['plain', 'own'] : ['own', 'plain']) {
      times[name].push(await loadAndScroll(pages[name]));
      scripts[name].push(await script[name]());
    }
  const requests = asked.filter((url) => !/^\/(page|favicon)/.test(url)).length;
  const [without, withIt] = [median(times.plain), median(times.own)];
  for (const page of Object.values(pages)) await page.close();
  const addedMs = Math.max(0, median(scripts.own) - median(scripts.plain));
  return { loadMs: round(without), slower: round(withIt / without), requests, addedMs: round(addedMs) };
}

/** What tells the milliseconds of script that a page has run since it was last asked. */
async function scriptOf(page) {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  let before = 0;
  return async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    const { value } = metrics.find(({ name }) => name === 'ScriptDuration');
    const since = value - before;
    before = value;
    return since * 1000;
  };
}

async function loadAndScroll(page) {
  await page.goto(ADDRESS);
  return page.evaluate(async () => {
    const { domComplete } = performance.getEntriesByType('navigation')[0];
    const started = performance.now();
    for (let y = 0; y < 6000; y += 200) {
      window.scrollTo(0, y);
      await new Promise((resolve) => requestAnimationFrame(resolve));
    }
    return domComplete + performance.now() - started;
  });
}

async function writes() {
  const page = await own.context.newPage();
  await page.goto(ADDRESS);
  const look = await over(page);
  await look(`(${putMarks})(tab, ${MARKS})`);
  await page.evaluate(() => window.scrollTo(0, 2000));
  await page.waitForTimeout(500);
  const eventMs = await eventTime(page, look);
  const offPx = await farthestOff(page, look);
  await page.close();
  return { marks: MARKS, eventMs, offPx };
}

/** Presses the button and gives what looks into the extension's world. */
async function over(page) {
  const session = await own.context.newCDPSession(page);
  const worlds = [];
  session.on('Runtime.executionContextCreated', ({ context }) => {
    if (context.origin.startsWith('chrome-extension://')) worlds.push(context.id);
  });
  await session.send('Runtime.enable');
  const worker = own.context.serviceWorkers()[0] ?? (await own.context.waitForEvent('serviceworker'));
  const browser = await own.context.browser().newBrowserCDPSession();
  const { targetInfos } = await browser.send('Target.getTargets', { filter: [{ type: 'tab' }] });
  const { targetId } = targetInfos.find(({ url }) => url === ADDRESS);
  await browser.send('Extensions.triggerAction', { id: new URL(worker.url()).host, targetId });
  const look = async (expression) => {
    const { result, exceptionDetails } = await session.send('Runtime.evaluate', {
      contextId: worlds.at(-1),
      expression: `(async () => { const { tab } = globalThis.doodlaCompanion ?? {}; return (${expression}); })()`,
      awaitPromise: true,
      returnByValue: true,
    });
    if (exceptionDetails) throw new Error(exceptionDetails.exception?.description);
    return result.value;
  };
  for (let i = 0; i < 200; i++) {
    if (worlds.length > 0 && (await look('tab !== undefined'))) return look;
    await page.waitForTimeout(50);
  }
  throw new Error('the companion never came');
}

/** Puts ink on words of the whole page, as if it had been written there. */
function putMarks(tab, count) {
  const marks = [];
  const walker = document.createTreeWalker(document.body, window.NodeFilter.SHOW_TEXT);
  const texts = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode())
    if (/^Word/.test(node.data)) texts.push(node);
  let text = '';
  const starts = new Map();
  const all = document.createTreeWalker(document.body, window.NodeFilter.SHOW_TEXT);
  for (let node = all.nextNode(); node; node = all.nextNode()) {
    starts.set(node, text.length);
    text += node.data;
  }
  for (let n = 0; n < count; n++) {
    const node = texts[n % texts.length];
    const words = [...node.data.matchAll(/\w+/g)];
    const word = words[Math.floor(n / texts.length) % words.length];
    const range = document.createRange();
    range.setStart(node, word.index);
    range.setEnd(node, word.index + word[0].length);
    const box = range.getClientRects()[0];
    const at = { x: box.x + window.scrollX, y: box.y + window.scrollY, width: box.width, height: box.height };
    const start = starts.get(node) + word.index;
    const quote = {
      exact: word[0],
      prefix: text.slice(Math.max(0, start - 32), start),
      suffix: text.slice(start + word[0].length, start + word[0].length + 32),
      start,
    };
    const points = Array.from({ length: 24 }, (_, i) => [
      at.x + (i / 23) * at.width,
      at.y + at.height + 2 * Math.sin(i),
      0.5,
      i * 8,
    ]).flat();
    const style = { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 };
    const mark = {
      ...tab.desk.newMark(`bench-${n}`),
      order: `a${String(n).padStart(5, '0')}1`,
      kind: 'stroke',
      style,
      points,
      pressure: false,
    };
    marks.push({ mark, glue: { to: 'words', frames: [], quote, at } });
  }
  tab.log.bringIn(marks);
  return tab.log.all().filter(({ matrix }) => matrix).length;
}

/** Milliseconds of script that a pointer event takes, from down to up, the drawing of its frame among it. */
async function eventTime(page, look) {
  await look(`(tab.desk.takeTool('pen'), true)`);
  const session = await own.context.newCDPSession(page);
  await session.send('Performance.enable');
  const script = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    const of = (name) => metrics.find((metric) => metric.name === name).value;
    return (of('ScriptDuration') + of('LayoutDuration') + of('RecalcStyleDuration')) * 1000;
  };
  const perEvent = [];
  for (let n = 0; n < 8; n++) {
    const before = await script();
    await page.mouse.move(400, 200 + n * 40);
    await page.mouse.down();
    for (let i = 1; i <= 60; i++) await page.mouse.move(400 + i * 6, 200 + n * 40 + 10 * Math.sin(i / 4));
    await page.mouse.up();
    perEvent.push(((await script()) - before) / 63);
  }
  return round(median(perEvent));
}

/** The farthest that ink was from its word at rest, CSS pixels, as it was scrolled, enlarged and laid out at other widths. */
async function farthestOff(page, look) {
  let seed = 7;
  const chance = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  let worst = 0;
  for (let i = 0; i < MOVES; i++) {
    const kind = chance();
    if (kind < 0.7) await page.evaluate((y) => window.scrollTo(0, y), Math.floor(chance() * 20_000));
    else if (kind < 0.8)
      await page.evaluate((y) => document.querySelector('section').scrollTo(0, y), chance() * 2000);
    else if (kind < 0.9) await page.evaluate((zoom) => (document.body.style.zoom = zoom), 0.6 + chance());
    else await page.setViewportSize({ width: 700 + Math.floor(chance() * 900), height: 800 });
    if (i % 20 === 19) worst = Math.max(worst, await look(`(${offNow})(tab)`));
  }
  return round(worst);
}

/** How far ink is from its words now, looked for by the page's own means. */
async function offNow(tab) {
  await new Promise((resolve) => setTimeout(resolve, 60));
  await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
  let worst = 0;
  const marks = tab.log.all();
  for (let n = 0; n < marks.length; n += 97) {
    const { glued, shown } = marks[n];
    const { quote, at } = glued.glue;
    const id = /^Word(\d+)$/.exec(quote.exact)?.[1];
    if (id === undefined || !shown) continue;
    const node = document.querySelector(`#p${id}`).firstChild;
    const range = document.createRange();
    range.setStart(node, 0);
    range.setEnd(node, quote.exact.length);
    const box = range.getClientRects()[0];
    const k = box.height / at.height;
    const [x, y] = [box.x + window.scrollX, box.y + window.scrollY];
    const px = x + (glued.mark.points[0] - at.x) * k;
    const py = y + (glued.mark.points[1] - at.y) * k;
    worst = Math.max(worst, Math.hypot(shown.points[0] - px, shown.points[1] - py));
  }
  return worst;
}

function round(value) {
  return Math.round(value * 1000) / 1000;
}
