// The companion in Firefox. No driver presses an extension's button there, so it is put over pages by its manifest; all else is as built.
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PNG } from 'pngjs';
import puppeteer from 'puppeteer-core';

const BUILT = fileURLToPath(new URL('../../companion/dist/firefox', import.meta.url));
const POLICY = "default-src 'none'; style-src 'unsafe-inline'";
const PAGE = `<!doctype html><title>Words</title><body style="overflow-anchor:none;font:18px/1.6 serif;max-width:640px;margin:60px auto">
${Array.from({ length: 30 }, (_, i) => `<p>Paragraph ${i}: the footbridge carried people over the brook.</p>`).join('')}`;
/** Blue of the second ready pen, and of nothing else there. */
const BLUE = [0, 114, 178];
const SOON_MS = 15_000;

/** Writes over a page with a strict policy, scrolls and loads it again. Throws Error where something is not as it should be. */
export async function companionIn(executablePath) {
  const folder = mkdtempSync(join(tmpdir(), 'companion-firefox-'));
  cpSync(BUILT, folder, { recursive: true });
  const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8'));
  const over = { matches: ['http://127.0.0.1/*'], js: ['words.en.js', 'page.js'], run_at: 'document_end' };
  const rights = { host_permissions: over.matches, content_scripts: [over] };
  writeFileSync(join(folder, 'manifest.json'), JSON.stringify({ ...manifest, ...rights }));
  const server = createServer((_, response) =>
    response.writeHead(200, { 'content-type': 'text/html', 'content-security-policy': POLICY }).end(PAGE),
  );
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const browser = await puppeteer.launch({ browser: 'firefox', executablePath, headless: true });
  try {
    await browser.installExtension(folder);
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    await page.goto(`http://127.0.0.1:${server.address().port}/`);
    await writeAndLook(page);
  } finally {
    await browser.close();
    server.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function writeAndLook(page) {
  await until(async () => (await page.$$('[popover]')).length === 2, 'the companion over the page');
  // Its letters come last.
  await until(() => page.evaluate(() => document.fonts.size > 2), 'the letters of the tools');
  // The second ready pen, where the tools show it.
  const swatch = await until(
    async () => blueIn(await shot(page), { x: FRAME, width: 158 }),
    'the ready pens',
  );
  await page.mouse.click(swatch.x, swatch.y);
  await page.mouse.move(500, 300);
  await page.mouse.down();
  for (let i = 1; i <= 20; i++) await page.mouse.move(500 + 10 * i, 300 + i);
  await page.mouse.up();
  const area = { x: 400, width: 400 };
  const drawn = await until(async () => blueIn(await shot(page), area), 'the ink');
  await page.evaluate(() => window.scrollBy(0, 100));
  await until(
    async () => near((await blueIn(await shot(page), area))?.y, drawn.y - 100),
    'the ink where the page was scrolled to',
  );
  await page.evaluate(() => document.querySelector('p').before('New words above. '.repeat(60)));
  await until(
    async () => (await blueIn(await shot(page), area))?.y > drawn.y - 90,
    'the ink where its words went',
  );
  await page.reload();
  await until(async () => blueIn(await shot(page), area), 'the ink after the page was loaded again');
}

const near = (a, b) => a !== undefined && Math.abs(a - b) < 3;
const shot = async (page) => PNG.sync.read(Buffer.from(await page.screenshot()));

/** The frame round the window has the pen's colour too while one writes; CSS pixels. */
const FRAME = 12;

/** The first place in a strip of the window that has the pen's colour; undefined where none has. */
function blueIn({ width, height, data }, strip) {
  for (let y = FRAME; y < height - FRAME; y++)
    for (let x = strip.x; x < strip.x + strip.width; x++) {
      const at = 4 * (y * width + x);
      if (BLUE.every((part, i) => Math.abs(data[at + i] - part) < 4)) return { x, y };
    }
  return undefined;
}

async function until(look, what) {
  const end = Date.now() + SOON_MS;
  for (;;) {
    const seen = await look();
    if (seen) return seen;
    if (Date.now() > end) throw new Error(`never came: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
