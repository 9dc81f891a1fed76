// Frames while an instrument is turned over a page of 1,000 marks, against the same over an empty page in the same browser.
import { withBrowser } from './harness.mjs';
import { fill } from './manyStrokes.mjs';
import { median, report } from './report.mjs';

const MARKS = 1000;
const MOVES = 120;
const ROUNDS = 3;
const KINDS = ['Ruler', 'Protractor'];

/** Opens a lesson with one blank page. */
async function openLesson(context) {
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('button', { name: /^New lesson without a document/ }).click();
  await page.getByRole('menuitem', { name: /^On a blank page/ }).click();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  return page;
}

async function take(page, kind) {
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  await page.getByRole('button', { name: kind, exact: true }).click();
}

/** Notes the milliseconds that each move of the hand takes, and those from frame to frame. */
function watch(page) {
  return page.evaluate(() => {
    const seen = (window.seen = { work: [], frames: [], on: true });
    let began = 0;
    window.addEventListener('pointermove', () => (began = performance.now()), { capture: true });
    window.addEventListener('pointermove', () => seen.work.push(performance.now() - began));
    let last = performance.now();
    const tick = (now) => {
      seen.frames.push(now - last);
      last = now;
      if (seen.on) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
}

/** Turns an instrument by its handle; medians in milliseconds. */
async function turning(page, kind) {
  await take(page, kind);
  const turn = page.getByRole('group', { name: kind }).getByRole('button', { name: 'Turn', exact: true });
  const box = await turn.boundingBox();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await watch(page);
  for (let n = 1; n <= MOVES; n++) await page.mouse.move(x - n, y + 1.4 * n);
  await page.mouse.up();
  const { work, frames } = await page.evaluate(() => {
    window.seen.on = false;
    return window.seen;
  });
  await take(page, kind);
  return { work: median(work), frame: median(frames.slice(2)) };
}

/** The worst of all kinds, each by its middle round: others use the machine too. */
async function worst(page) {
  const rounds = [];
  for (const kind of KINDS) {
    const some = [];
    for (let n = 0; n < ROUNDS; n++) some.push(await turning(page, kind));
    rounds.push({
      work: median(some.map(({ work }) => work)),
      frame: median(some.map(({ frame }) => frame)),
    });
  }
  return {
    work: Math.max(...rounds.map(({ work }) => work)),
    frame: Math.max(...rounds.map(({ frame }) => frame)),
  };
}

await withBrowser(async (context) => {
  const page = await openLesson(context);
  const empty = await worst(page);
  const [cookie] = await context.cookies();
  const lesson = /lesson\/([\w-]+)/.exec(page.url())[1];
  await fill(new URL(page.url()).origin, `${cookie.name}=${cookie.value}`, lesson, MARKS);
  await page.waitForFunction((count) => window.doodla.stageState().marks.length === count, MARKS);
  const full = await worst(page);
  report('neaten: instruments', {
    marks: { value: MARKS },
    frameMs: { value: +full.frame.toFixed(2), limit: 17 },
    workMs: { value: +full.work.toFixed(2), limit: 17 },
    ratioToEmptyPage: { value: +(full.work / empty.work).toFixed(2), limit: 2 },
  });
});
