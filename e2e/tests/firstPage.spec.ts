import type { Browser, Page, Route } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, startClass, startWriting, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { pageOnScreen, similarity } from '../support/pictures';
import { draw, expectMarks, wave } from '../support/stage';

/** A file that is on its way until `letThrough`. */
class HeldFile {
  readonly #waiting: Route[] = [];
  #open = false;

  async hold(page: Page, address: RegExp): Promise<void> {
    await page.context().route(address, async (route) => {
      if (this.#open) return route.continue();
      this.#waiting.push(route);
    });
  }

  async letThrough(): Promise<void> {
    this.#open = true;
    await Promise.all(this.#waiting.map((route) => route.continue()));
  }
}

/** Part of the window that shows the page's white paper. */
async function paperSeen(page: Page): Promise<number> {
  const { data } = PNG.sync.read(await page.screenshot());
  let white = 0;
  for (let i = 0; i < data.length; i += 4) if (data[i]! + data[i + 1]! + data[i + 2]! === 765) white += 1;
  return white / (data.length / 4);
}

async function visitor(browser: Browser, url: string): Promise<Page> {
  const context = await browser.newContext({ baseURL: url, viewport: { width: 1024, height: 768 } });
  return context.newPage();
}

/** A class with one page, in which students may write, and a browser that has not joined it. */
async function oneBeside(
  teacher: Page,
  browser: Browser,
  url: string,
): Promise<{ wren: Page; code: string }> {
  await bringIn(teacher, { name: 'load.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  return { wren: await visitor(browser, url), code };
}

async function goIn(page: Page, code: string): Promise<void> {
  await page.goto(`/join/${code}`);
  await page.getByLabel('Your name').fill('Wren');
  await page.getByRole('button', { name: 'Go in' }).click();
}

test('a student reads and writes on a page of a PDF before what draws PDFs has come, and then it gets sharp', async ({
  teacher,
  browser,
  server,
}) => {
  await bringIn(teacher, { name: 'load.pdf', bytes: await plainPdf(2) });
  const code = await startWriting(teacher);
  const wren = await visitor(browser, server.url);
  const engine = new HeldFile();
  await engine.hold(wren, /pdfEngine/);
  await goIn(wren, code);
  await surfaceShown(wren);
  await draw(wren, wave(100, 500));
  await expectMarks(teacher, 1);
  const quick = await pageOnScreen(wren, 595, 400);
  const words = wren.getByRole('region', { name: 'What the page says' });
  await engine.letThrough();
  await expect(words.getByText('Bridges, sheet 1')).toBeAttached();
  const sharp = await pageOnScreen(wren, 595, 400);
  expect(similarity(quick, sharp)).toBeGreaterThan(0.85);
  expect(quick.data.equals(sharp.data)).toBe(false);
  await wren.context().close();
});

test('what is drawn before the tools have come is there when they are', async ({
  teacher,
  browser,
  server,
}) => {
  const { wren, code } = await oneBeside(teacher, browser, server.url);
  const tools = new HeldFile();
  await tools.hold(wren, /assets\/work-/);
  await goIn(wren, code);
  await surfaceShown(wren);
  await draw(wren, wave(100, 500));
  await draw(wren, wave(100, 700));
  await tools.letThrough();
  await expectMarks(teacher, 2);
  await wren.context().close();
});

/** Lets the browser's database open only when `window.openNow()` is called. */
async function holdDatabase(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const held: (() => void)[] = [];
    let isHeld = true;
    const open = IDBFactory.prototype.open;
    IDBFactory.prototype.open = function (...asked) {
      const request = open.apply(this, asked);
      request.addEventListener('success', (event) => {
        if (!isHeld) return;
        event.stopImmediatePropagation();
        held.push(() => request.dispatchEvent(new Event('success')));
      });
      return request;
    };
    const openNow = () => {
      isHeld = false;
      for (const goOn of held) goOn();
    };
    Object.assign(window, { openNow });
  });
}

test('what is drawn before a slow browser knows what waited from before is there when it does', async ({
  teacher,
  browser,
  server,
}) => {
  const { wren, code } = await oneBeside(teacher, browser, server.url);
  await holdDatabase(wren);
  await goIn(wren, code);
  await surfaceShown(wren);
  await draw(wren, wave(100, 500));
  await wren.evaluate(() => (window as unknown as { openNow(): void }).openNow());
  await expectMarks(teacher, 1);
  await wren.context().close();
});

test('what a cover hides is not seen by somebody whose cover is still on its way', async ({
  teacher,
  browser,
  server,
}) => {
  await bringIn(teacher, { name: 'answers.pdf', bytes: await plainPdf(2) });
  const code = await startClass(teacher);
  await teacher.keyboard.press('b');
  await teacher.getByTestId('cover').waitFor();
  const wren = await visitor(browser, server.url);
  const cover = new HeldFile();
  await cover.hold(wren, /FocusOverlay/);
  await goIn(wren, code);
  await surfaceShown(wren);
  await expect(wren.getByRole('region', { name: 'What the page says' })).toBeAttached();
  expect(await paperSeen(wren)).toBeLessThan(0.05);
  await cover.letThrough();
  await wren.getByTestId('cover').waitFor();
  await teacher.keyboard.press('Escape');
  await expect.poll(() => paperSeen(wren)).toBeGreaterThan(0.2);
  await wren.context().close();
});

test('a page of the program that fails says what to do, and is there after loading it again', async ({
  browser,
  server,
}) => {
  const page = await visitor(browser, server.url);
  await page.route(/DisplayPage/, (route) =>
    route.fulfill({ contentType: 'text/javascript', body: 'throw new TypeError("broken")' }),
  );
  await page.goto('/display');
  await expect(page.getByRole('heading', { name: 'This page could not be shown' })).toBeVisible();
  await page.unroute(/DisplayPage/);
  await page.getByRole('button', { name: 'Load the page again' }).click();
  await expect(page.getByRole('heading', { name: 'Classroom display' })).toBeVisible();
});
