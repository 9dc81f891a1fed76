// Takes the picture of the companion over the demo's web page: docs/screenshots/companion.png.
import { chromium } from '@playwright/test';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const path = (relative) => fileURLToPath(new URL(relative, import.meta.url));
const UNPACKED = path('../companion/dist/chromium');

/** Writes on the demo's article with the companion, and takes its picture. */
export async function shootCompanion() {
  const article = readFileSync(path('../demo/material/footbridge.html'));
  const server = createServer((_, response) =>
    response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(article),
  );
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const profile = mkdtempSync(join(tmpdir(), 'companion-shot-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    viewport: { width: 1280, height: 800 },
    args: [
      '--no-sandbox',
      `--disable-extensions-except=${UNPACKED}`,
      `--load-extension=${UNPACKED}`,
      '--enable-unsafe-extension-debugging',
    ],
  });
  const page = await context.newPage();
  await page.goto(`http://127.0.0.1:${server.address().port}/`);
  await write(page, await press(context, page));
  await page.screenshot({ path: path('../docs/screenshots/companion.png') });
  await context.close();
  server.close();
  rmSync(profile, { recursive: true, force: true });
}

/** Presses the companion's button and waits until its tools are over the page. */
async function press(context, page) {
  const worker = context.serviceWorkers()[0] ?? (await context.waitForEvent('serviceworker'));
  const browser = await context.browser().newBrowserCDPSession();
  const { targetInfos } = await browser.send('Target.getTargets', { filter: [{ type: 'tab' }] });
  const { targetId } = targetInfos.find(({ url }) => url === page.url());
  await browser.send('Extensions.triggerAction', { id: new URL(worker.url()).host, targetId });
  await page.locator('[popover]').nth(1).waitFor({ state: 'attached' });
  await page.waitForFunction(() => document.fonts.size > 2);
}

async function write(page) {
  const lines = await page.locator('p').first().boundingBox();
  await page.keyboard.press('h');
  await drag(page, [lines.x + 130, lines.y + 42], [lines.x + 420, lines.y + 42]);
  await page.keyboard.press('p');
  const [x, y] = [lines.x + lines.width * 0.62, lines.y + 14];
  const ring = Array.from({ length: 25 }, (_, i) => {
    const turn = (i / 24) * 2 * Math.PI;
    return [x + 74 * Math.cos(turn), y + 24 * Math.sin(turn)];
  });
  await drag(page, ...ring);
  await page.keyboard.press('l');
  await drag(page, [x + 150, y + 190], [x + 40, y + 34]);
  await page.keyboard.press('s');
  await drag(page, [lines.x + 20, lines.y + 330], [lines.x + 240, lines.y + 400]);
  await page.keyboard.press('p');
  await page.mouse.move(1200, 700);
}

async function drag(page, [x, y], ...rest) {
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (const [px, py] of rest) await page.mouse.move(px, py, { steps: 4 });
  await page.mouse.up();
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await shootCompanion();
