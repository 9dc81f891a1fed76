import type { Locator, Page } from '@playwright/test';
import { Resvg } from '@resvg/resvg-js';
import { strFromU8, unzipSync } from 'fflate';
import { PNG } from 'pngjs';
import { openExercise } from '../support/exercises';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { similarity } from '../support/pictures';
import { stageState } from '../support/stage';

const PHONE = { width: 390, height: 844 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'countries.pdf', bytes: await plainPdf(1) });
});

/** Drags a card onto the middle of something else. */
async function drag(page: Page, card: string, to: { x: number; y: number }): Promise<void> {
  const box = (await page
    .getByRole('button', { name: `To be moved: Shape: ${card}`, exact: true })
    .boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x - 6, to.y, { steps: 3 });
  await page.mouse.move(to.x, to.y);
  await page.mouse.up();
}

test('a student on a phone sees names by a tap and names countries; other programs draw the map', async ({
  browser,
  server,
  teacher,
}) => {
  const names = await openExercise(teacher, { kind: 'Name the countries', list: 'Brazil\nAtlantis' });
  await names.getByLabel('Which map').selectOption('South America');
  await expect(names.getByRole('status')).toContainText('This is not on the map: Atlantis');
  await names.getByLabel('List', { exact: true }).fill('Brazil\nArgentina');
  await putOnNewPage(names);
  const map = await openExercise(teacher, { kind: 'Outline map', list: 'Peru', level: 'Medium' });
  await map.getByLabel('Which map').selectOption('South America');
  await putOnNewPage(map);
  await expect(teacher.getByLabel('Page 3 of 3')).toBeVisible();

  // Two other programs, which know nothing of each other, draw the same map.
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const pdf = new OutsideReader((await saveAs(teacher, 'PDF')).bytes);
  pdf.check();
  const svg = strFromU8(unzipSync((await saveAs(teacher, 'Drawings (SVG)')).bytes)['03.svg']!);
  const drawn = PNG.sync.read(new Resvg(svg, { fitTo: { mode: 'width', value: 1280 } }).render().asPng());
  expect(similarity(pdf.picture(3, 1280), drawn)).toBeGreaterThan(0.9);
  await teacher.keyboard.press('Escape');

  const code = await startClass(teacher);
  await penState(teacher, true);
  const wren = await joinAs(browser, server.url, code, 'Wren', PHONE);
  const shown = async (page: Page) =>
    (await stageState(page)).marks.filter(({ text }) => text === 'Peru').length;
  expect(await shown(wren)).toBe(0);
  await wren
    .getByRole('button', { name: /^To be tapped: .*Peru$/ })
    .first()
    .click();
  await expect.poll(() => shown(wren)).toBe(1);
  await expect.poll(() => shown(teacher)).toBe(1);
  if (process.env.LOOK) await wren.screenshot({ path: '/tmp/look/map-phone.png' });

  await teacher.keyboard.press('PageUp');
  await expect(wren.getByRole('button', { name: 'To be moved: Shape: Argentina' })).toBeVisible();
  // Argentina does not belong to Brazil and goes back; Brazil does.
  await drag(wren, 'Argentina', await inLargest(wren));
  await expect(wren.getByRole('status').filter({ hasText: 'Does not belong there' })).toBeVisible();
  await drag(wren, 'Brazil', await inLargest(wren));
  await expect(wren.getByRole('status').filter({ hasText: /^Right$/ })).toBeVisible();
});

async function putOnNewPage(sheet: Locator): Promise<void> {
  await expect(sheet.getByRole('img', { name: 'What the class gets' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Put it on a new page' }).click();
  await expect(sheet).toBeHidden();
}

/** A place in the window within the largest country. */
async function inLargest(page: Page): Promise<{ x: number; y: number }> {
  const { marks, x, y, scale } = await stageState(page);
  const size = ({ bounds }: (typeof marks)[number]) => bounds.width * bounds.height;
  const { bounds } = marks
    .filter(({ kind, fill }) => kind === 'path' && fill === '#ffffff')
    .sort((a, b) => size(b) - size(a))[0]!;
  return { x: x + (bounds.x + bounds.width * 0.55) * scale, y: y + (bounds.y + bounds.height * 0.4) * scale };
}
