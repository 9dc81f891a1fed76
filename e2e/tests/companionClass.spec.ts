import type { BrowserContext, Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import type { CompanionBrowser } from '../support/companion';
import { browserWithCompanion, Companion } from '../support/companion';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { wipe } from '../support/livePages';
import type { Site } from '../support/sites';
import { serveSite } from '../support/sites';
import { draw, expectMarks, stageState, wave } from '../support/stage';

const TITLE = 'Live bridge figures';
const story = `<!doctype html><html lang="en"><title>${TITLE}</title>
<style>body{font:18px/1.6 serif;max-width:640px;margin:0 auto;padding:70px 0} header{position:fixed;inset:0 0 auto;height:40px;background:#cde}</style>
<header>Stays above</header><h1>Figures of the footbridge</h1><canvas id="chart" width="300" height="80"></canvas>
${Array.from({ length: 40 }, (_, i) => `<p id="p${i}">Measured on day ${i}: the deck gave way by ${i * 3} hundredths.</p>`).join('')}
<script>const ctx = document.querySelector('canvas').getContext('2d'); ctx.fillStyle = '#d55e00'; ctx.fillRect(0, 0, 300, 80);
document.querySelector('#p3').insertAdjacentHTML('beforeend', '<b id="late">Added by a script.</b>');</script>`;

let own: CompanionBrowser;
let site: Site;

test.beforeAll(async () => {
  // In the place of the person who chooses a tab in the browser's own dialog.
  own = await browserWithCompanion({ args: [`--auto-select-tab-capture-source-by-title=${TITLE}`] });
  site = await serveSite({ '/': { html: story } });
});

test.afterAll(async () => {
  await own.close();
  await site.close();
});

async function openTab(): Promise<[Page, Companion]> {
  const page = await own.context.newPage();
  await page.goto(site.at('/'));
  const companion = await Companion.over(page);
  await companion.open();
  return [page, companion];
}

/** What opens by a press on something of the companion's. */
async function opened(context: BrowserContext, press: () => Promise<void>): Promise<Page> {
  const page = context.waitForEvent('page');
  await press();
  return page;
}

/** Pairs the companion with the class that a teacher has going, or with the lesson that is being prepared. */
async function pairUp(
  teacher: Page,
  url: string,
  companion: Companion,
  into: 'class' | 'lesson' = 'class',
): Promise<Page> {
  await teacher.getByRole('button', { name: into === 'class' ? /^Devices/ : 'Companion' }).click();
  await teacher.getByRole('button', { name: 'A companion' }).click();
  const code = await teacher.getByTestId('device-code').innerText();
  await teacher.getByRole('button', { name: 'Close' }).click();
  const page = await opened(companion.page.context(), () => companion.click('Class'));
  await page.getByLabel('Address of the school’s Doodla').fill(url.replace('http://', ''));
  await page.getByLabel('Code').fill('WRONG1');
  await page.getByRole('button', { name: 'Connect' }).click();
  await expect(page.getByRole('alert')).toContainText('There is no such code');
  await page.getByLabel('Code').fill(code);
  await page.getByRole('button', { name: 'Connect' }).click();
  await expect(page.getByText(`Connected with the ${into}.`)).toBeVisible();
  return page;
}

test('a page comes into class as a copy with its marks, as what is in sight and as a whole, and as a live tab on which students write', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  const [mia, noah] = [
    await joinAs(browser, server.url, code, 'Mia'),
    await joinAs(browser, server.url, code, 'Noah'),
  ];
  const [page, companion] = await openTab();
  await companion.click('Tools to the other side');
  await companion.click('Pen');
  await companion.draw([400, 330], [520, 350]);
  const desk = await pairUp(teacher, server.url, companion);

  // A copy: what a script has made of the page, the drawing on a canvas, and the ink.
  await desk.getByRole('button', { name: 'A copy with what is written on it' }).click();
  await expect(desk.getByText('It is on a page of its own now')).toBeVisible();
  const frame = mia.frameLocator('[data-testid=stage] iframe');
  await expect(frame.locator('#late')).toHaveText('Added by a script.');
  await expect(frame.locator('img[src^="data:image/"]')).toHaveCount(1);
  await expect(frame.locator('script')).toHaveCount(0);
  await expectMarks(mia, 1);
  const copied = (await stageState(mia)).page;

  // A picture of what is in sight, and one of the whole page, with the header once.
  await desk.getByRole('button', { name: 'A picture of what is in sight' }).click();
  await expect.poll(async () => (await stageState(mia)).page).not.toBe(copied);
  const seen = (await stageState(mia)).page;
  await desk.getByRole('button', { name: 'A picture of the whole page' }).click();
  await expect.poll(async () => (await stageState(mia)).page).not.toBe(seen);
  await surfaceShown(mia);

  // A picture taken among the tools of the page goes there too.
  const whole = (await stageState(mia)).page;
  await page.bringToFront();
  await companion.click('Picture');
  const picture = await opened(own.context, () => companion.click('What is in sight'));
  await picture.getByRole('button', { name: 'Onto a page' }).click();
  await expect(picture.getByText('It is on a page of its own now.')).toBeVisible();
  await expect.poll(async () => (await stageState(mia)).page).not.toBe(whole);
  await picture.close();
  await page.bringToFront();

  const stored: string[] = [];
  desk.on('response', (response) => {
    if (!response.url().endsWith('/pictures') || response.request().method() !== 'POST') return;
    // An answer that cannot be read any more was none of a picture that counts.
    response.json().then(
      ({ id }: { id: string }) => stored.push(id),
      () => undefined,
    );
  });

  // The tab itself, live: its page is the class's, and what students write lies on it in the tab.
  await desk.getByRole('button', { name: 'Show it, and let the class write on it' }).click();
  await expect(desk.getByRole('button', { name: 'Stop showing' })).toBeVisible();
  await expect(mia.locator('[data-testid=stage]')).toHaveAttribute('data-shown', 'true');
  await expectMarks(mia, 1);
  await expectMarks(noah, 1);
  await draw(mia, wave(300, 300));
  await companion.waitUntil('tab.guests.all().length === 1');
  await draw(noah, wave(300, 500));
  await companion.waitUntil('tab.guests.all().length === 2');
  // Where they lie on the page of the class is where they lie in the tab, which is as wide as that page is in page units.
  const onClass = (await stageState(noah)).marks.map(({ id, bounds }) => [id, bounds] as const);
  const inTab = await companion.look<[string, number, number][]>(
    `tab.guests.all().map(({ glued, shown }) => [glued.mark.id, shown.points[0], shown.points[1]])`,
  );
  for (const [id, px, py] of inTab) {
    const { x, y, width, height } = new Map(onClass).get(id)!;
    expect(px).toBeGreaterThan(x - 1);
    expect(px).toBeLessThan(x + width + 1);
    expect(py).toBeGreaterThan(y - 1);
    expect(py).toBeLessThan(y + height + 1);
  }

  // What is kept under the marks has none of them in it, so that what is wiped off is gone.
  await expect.poll(() => stored.length).toBeGreaterThan(0);
  const { colour } = (await stageState(noah)).marks.find(({ id }) => id === inTab[0]![0])!;
  const address = `/api/pictures/${stored.at(-1)}`;
  expect(await teacher.evaluate(pixelsLike, { address, colour })).toBe(0);

  // Scrolled, the page itself says where it is, to the pixel, and what is written goes along for everybody.
  await page.evaluate(() => scrollBy(0, 150));
  const placeOf = async (student: Page) =>
    (await stageState(student)).screen?.panes.find(({ id }) => id === 1)?.place.y;
  for (const student of [mia, noah]) await expect.poll(() => placeOf(student)).toBe(-150);
  await companion.draw([600, 420], [700, 430]);
  for (const student of [mia, noah]) await expectMarks(student, 4);

  // The connection is lost and comes back: what was drawn meanwhile arrives.
  await desk.context().setOffline(true);
  await companion.draw([600, 520], [700, 530]);
  await desk.context().setOffline(false);
  for (const student of [mia, noah]) await expectMarks(student, 5);

  await desk.getByRole('button', { name: 'Stop showing' }).click();
  await companion.waitUntil('tab.guests.all().length === 0');
  // Thrown out, the companion is told so.
  await teacher.getByRole('button', { name: /^Devices/ }).click();
  await expect(teacher.getByText('Companion 1')).toBeVisible();
  await teacher.getByRole('button', { name: 'Take out' }).click();
  await teacher.getByRole('button', { name: 'Close' }).click();
  await desk.reload();
  await expect(desk.getByText('This companion is connected no longer')).toBeVisible();
  await desk.getByRole('button', { name: 'Type a new code' }).click();
  await desk.close();
  await page.close();
});

test('while a lesson is prepared, pages come into it as copies with their marks and as pictures', async ({
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const [page, companion] = await openTab();
  await wipe(companion);
  await companion.click('Pen');
  await companion.draw([400, 330], [520, 350]);
  const desk = await pairUp(teacher, server.url, companion, 'lesson');
  // There is no class that could be shown a tab.
  await expect(desk.getByRole('button', { name: /Show it/ })).toHaveCount(0);
  await desk.getByRole('button', { name: 'A copy with what is written on it' }).click();
  await expect(desk.getByText('It is on a page of its own now')).toBeVisible();
  await desk.getByRole('button', { name: 'A picture of what is in sight' }).click();
  await expect(teacher.getByLabel('Page 1 of 3')).toBeVisible();
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expectMarks(teacher, 1);
  await expect(teacher.frameLocator('[data-testid=stage] iframe').locator('#late')).toHaveText(
    'Added by a script.',
  );
  await desk.getByRole('button', { name: 'Leave' }).click();
  await desk.close();
  await page.close();
});

test('pictures of a page are cropped, saved as PNG and as a PDF whose words are found', async () => {
  const [page, companion] = await openTab();
  await companion.click('Picture');
  const whole = await opened(own.context, () => companion.click('The whole page'));
  await expect(whole.getByTestId('sheet')).toHaveCount(1);
  const height = await page.evaluate(() => document.documentElement.scrollHeight);
  const canvas = whole.locator('[data-testid=sheet] canvas');
  expect(await canvas.evaluate((one) => (one as HTMLCanvasElement).height)).toBe(height);
  const pdf = await saved(whole, 'Save as PDF');
  execFileSync('qpdf', ['--check', pdf]);
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' });
  expect(text).toContain('Measured on day 0');
  expect(text).toContain('Measured on day 39');
  // The header stays over the page while it is scrolled through, and is on the picture once.
  expect(text.match(/Stays above/g)).toHaveLength(1);
  const png = PNG.sync.read(readFileSync(await saved(whole, 'Save as PNG')));
  const blue = rowsOf(png, [0xcc, 0xdd, 0xee]);
  expect(blue.filter((y, i) => y - (blue[i - 1] ?? -9) > 1)).toHaveLength(1);

  await own.context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await whole.getByRole('button', { name: 'Copy' }).click();
  await expect(whole.getByText('The picture is on the clipboard.')).toBeVisible();
  const copied = await whole.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    return (await createImageBitmap(await item!.getType('image/png'))).height;
  });
  expect(copied).toBe(height);
  // On paper there is the picture alone.
  await whole.evaluate(() => (window.print = () => (document.title = 'on paper')));
  await whole.getByRole('button', { name: 'Print' }).click();
  await expect(whole).toHaveTitle('on paper');
  await whole.emulateMedia({ media: 'print' });
  await expect(whole.getByRole('toolbar')).toBeHidden();
  await expect(whole.getByTestId('sheet')).toBeVisible();
  await whole.emulateMedia({ media: 'screen' });

  await whole.getByRole('button', { name: 'Crop', exact: true }).click();
  const box = (await whole.getByTestId('sheet').boundingBox())!;
  await whole.mouse.move(box.x + 100, box.y + 100);
  await whole.mouse.down();
  await whole.mouse.move(box.x + 300, box.y + 250, { steps: 4 });
  await whole.mouse.up();
  const isCropped = () => canvas.evaluate((one) => Math.abs((one as HTMLCanvasElement).width - 203) < 5);
  await expect.poll(isCropped).toBe(true);
  await whole.getByRole('button', { name: 'Undo the crop' }).click();
  await expect.poll(() => canvas.evaluate((one) => (one as HTMLCanvasElement).height)).toBe(height);
  await whole.getByRole('button', { name: 'Onto a page' }).click();
  await expect(whole.getByText('Go into a class or lesson first')).toBeVisible();
  await whole.close();

  await page.bringToFront();
  await companion.click('Picture');
  await companion.click('A part of it');
  await companion.waitUntil(`find('[data-testid="region"]')`);
  const part = await opened(own.context, () => companion.draw([400, 200], [600, 320]));
  await expect
    .poll(() =>
      part.locator('[data-testid=sheet] canvas').evaluate((one) => (one as HTMLCanvasElement).width),
    )
    .toBe(200);
  await part.close();
  await page.close();
});

/** How many pixels of a picture have a colour, or nearly. */
async function pixelsLike({ address, colour }: { address: string; colour: string }): Promise<number> {
  const bitmap = await createImageBitmap(await (await fetch(address)).blob());
  const ctx = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
  ctx.drawImage(bitmap, 0, 0);
  const { data } = ctx.getImageData(0, 0, bitmap.width, bitmap.height);
  const wanted = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
  let count = 0;
  for (let at = 0; at < data.length; at += 4)
    if (wanted.every((part, i) => Math.abs(data[at + i]! - part) < 24)) count += 1;
  return count;
}

async function saved(page: Page, button: string): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: button }).click();
  return (await download).path();
}

/** Rows whose pixel near the right edge has a colour. */
function rowsOf({ width, height, data }: PNG, colour: readonly number[]): number[] {
  const rows: number[] = [];
  for (let y = 0; y < height; y++) {
    const at = 4 * (y * width + width - 30);
    if (colour.every((part, i) => Math.abs(data[at + i]! - part) < 4)) rows.push(y);
  }
  return rows;
}
