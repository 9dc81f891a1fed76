import type { Browser, Locator, Page } from '@playwright/test';
import { strFromU8 } from 'fflate';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { plainPdf } from '../support/pdfs';
import { pageOnScreen, similarity } from '../support/pictures';
import { at, expectMarks, stageState } from '../support/stage';

async function classWithWren(browser: Browser, server: { url: string }, teacher: Page): Promise<Page> {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  return joinAs(browser, server.url, await startWriting(teacher), 'Wren');
}

async function putFormula(page: Page, tex: string): Promise<void> {
  await page.keyboard.press('t');
  await page.getByRole('button', { name: 'Options' }).click();
  await page.getByRole('button', { name: 'Formula', exact: true }).click();
  await page.getByLabel('The same as TeX').fill(tex);
  await page.getByRole('button', { name: 'Put it on the page' }).click();
  await expect(page.getByRole('button', { name: 'For this formula' })).toBeVisible();
}

async function ofFormula(page: Page, entry: string): Promise<void> {
  await page.getByRole('button', { name: 'For this formula' }).click();
  await page.getByRole('menuitem', { name: entry }).click();
}

/** Of a page of the document, page units. */
const SHEET = { width: 595, height: 842 };
const preview = (page: Page) => page.getByTestId('plot-preview');
/** What is drawn of the lines of a colour in the preview, as path data. */
const linesOf = (page: Page, colour: string) =>
  preview(page)
    .locator(`path[stroke="${colour}"]`)
    .evaluateAll((paths) => paths.map((path) => path.getAttribute('d')));
/** How many corners each line of a colour has. */
const cornersOf = (within: Locator, colour: string) =>
  within
    .locator(`path[stroke="${colour}"]`)
    .evaluateAll((paths) => paths.map((path) => path.getAttribute('d')!.match(/[ML]/g)?.length));
const [BLUE, VERMILION] = ['#0072b2', '#c14f00'];

test('a formula becomes a graph, with another curve, its places, moved and zoomed; the class sees it; it is changed by a slider', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await classWithWren(browser, server, teacher);
  await putFormula(teacher, 'y=ax^2-3');
  await ofFormula(teacher, 'Draw its graph');
  await expect.poll(() => linesOf(teacher, BLUE)).toHaveLength(1);
  const slider = teacher.getByRole('slider', { name: 'a', exact: true });
  await expect(slider).toHaveValue('1');

  await teacher.getByRole('button', { name: 'Another curve' }).click();
  await teacher.locator('math-field').nth(1).focus();
  await teacher.keyboard.type('x^2+y^2=1');
  await expect(teacher.getByRole('alert')).toContainText('alone on one side');
  // What could be drawn before is still there.
  expect(await linesOf(teacher, BLUE)).toHaveLength(1);
  await teacher.keyboard.press('Control+a');
  await teacher.keyboard.type('y=1/x');
  // A pole parts it.
  await expect.poll(() => linesOf(teacher, VERMILION)).toHaveLength(2);
  await expect(teacher.getByRole('alert')).toHaveCount(0);

  const before = await preview(teacher).innerHTML();
  await teacher.getByLabel('Where curves cross').check();
  await expect.poll(() => preview(teacher).innerHTML()).not.toBe(before);

  const box = (await preview(teacher).boundingBox())!;
  const middle = [box.x + box.width / 2, box.y + box.height / 2] as const;
  await teacher.mouse.move(...middle);
  await teacher.mouse.down();
  // A quarter of the window to the right: what is in sight goes to the left.
  await teacher.mouse.move(middle[0] + box.width / 4, middle[1], { steps: 4 });
  await teacher.mouse.up();
  await expect.poll(async () => Number(await teacher.getByLabel('x from').inputValue())).toBeCloseTo(-9, 0);
  await teacher.mouse.wheel(0, -400);
  await expect.poll(async () => Number(await teacher.getByLabel('x to').inputValue())).toBeLessThan(2.5);
  await teacher.getByRole('button', { name: 'Usual window' }).click();
  await expect(teacher.getByLabel('x from')).toHaveValue('-6');

  await teacher.getByRole('button', { name: 'Put on the page' }).click();
  await expectMarks(wren, 2);
  const plotOf = async (page: Page) => (await stageState(page)).marks.find(({ kind }) => kind === 'plot')!;
  const { bounds } = await plotOf(wren);
  expect(bounds.width / bounds.height).toBeCloseTo(4 / 3, 1);

  await teacher.getByRole('button', { name: 'Change this graph' }).click();
  const drawn = await linesOf(teacher, BLUE);
  const seen = await pageOnScreen(wren, SHEET.width, SHEET.height);
  await slider.fill('-2');
  await expect.poll(() => linesOf(teacher, BLUE)).not.toEqual(drawn);
  // What is pulled is seen by the class as soon as the hand rests, before it is kept.
  await expect
    .poll(async () => similarity(seen, await pageOnScreen(wren, SHEET.width, SHEET.height)))
    .toBeLessThan(0.999);
  await teacher.getByRole('button', { name: 'Keep the change' }).click();
  await expect(teacher.getByRole('dialog')).toHaveCount(0);
  expect((await plotOf(teacher)).bounds).toEqual(bounds);

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const svg = strFromU8((await saveAs(teacher, 'Drawings (SVG)')).bytes);
  expect(/<title>(Graph of [^<]*)/.exec(svg)?.[1]).toContain(
    'Graph of y equals a x squared minus 3; y equals',
  );
  // Lines, not a picture of them: one curve is one line, the other two.
  const lines = (colour: string) => svg.match(new RegExp(`<path[^>]*stroke="${colour}"`, 'g'))?.length;
  expect([lines(BLUE), lines(VERMILION)]).toEqual([1, 2]);
  // One picture, that of the page itself.
  expect(svg.match(/<image/g)).toHaveLength(1);
});

test('a table of values is covered, uncovered cell by cell, or left for the class; too long ones are said', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await classWithWren(browser, server, teacher);
  await putFormula(teacher, 'y=x^2-3');
  await ofFormula(teacher, 'Table of values');
  const dialog = teacher.getByRole('dialog', { name: 'Table of values' });
  await dialog.getByLabel('Step').fill('0,01');
  await dialog.getByRole('button', { name: 'Put the table on the page' }).click();
  await expect(dialog.getByRole('alert')).toContainText('601 rows');
  await dialog.getByLabel('Step').fill('1');
  await dialog.getByLabel('x from').fill('0');
  await dialog.getByLabel('x to').fill('2');
  await dialog.getByLabel('Values of y').selectOption('Covered, each by a patch');
  await dialog.getByRole('button', { name: 'Put the table on the page' }).click();
  await expect(dialog).toHaveCount(0);
  // Five level lines, three upright ones, eight cells and three patches, beside the formula itself.
  await expectMarks(wren, 20);
  const { marks } = await stageState(wren);
  const patches = marks.filter(({ kind }) => kind === 'patch');
  expect(patches).toHaveLength(3);

  await teacher.keyboard.press('Escape');
  await teacher.keyboard.press('p');
  const { x, y, width, height } = patches[0]!.bounds;
  await teacher.mouse.click(...(await at(teacher, x + width / 2, y + height / 2)));
  await expect.poll(async () => (await stageState(wren)).scene?.uncovered).toEqual([patches[0]!.id]);
  await teacher.getByRole('button', { name: 'Undo' }).click();
  await expectMarks(wren, 1);
});

test('a small table becomes a chart of any kind; what cannot be read is said by its line; it is changed, and undone', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await classWithWren(browser, server, teacher);
  await teacher.keyboard.press('t');
  await teacher.getByRole('button', { name: 'Options' }).click();
  const begin = teacher.getByRole('button', { name: 'Chart', exact: true });
  // What cannot be fetched is said, and asked for again the next time.
  await teacher.route(/assets\/ChartDialog-/, (route) => route.abort());
  await begin.click();
  await expect(teacher.getByText('Graphs could not be fetched')).toBeVisible();
  await teacher.unrouteAll();
  await begin.click();
  const dialog = teacher.getByRole('dialog', { name: 'Draw a chart' });
  const shown = dialog.getByTestId('chart-preview').locator('path');
  const table = dialog.getByLabel(/^Table/);
  await table.fill('Class A; Class B\n3; 5\n4; six');
  await expect(dialog.getByRole('alert')).toContainText('Line 3: six is no number');
  await table.fill('Class A; Class B\n3; 5\n4; 6\n7; 9\n8; 2');
  for (const kind of ['Bars', 'Line', 'Points', 'Histogram', 'Box plot', 'Pie']) {
    const before = await dialog.getByTestId('chart-preview').innerHTML();
    await dialog.getByLabel('Kind of chart').selectOption(kind);
    if (kind !== 'Bars')
      await expect.poll(() => dialog.getByTestId('chart-preview').innerHTML()).not.toBe(before);
    await expect.poll(() => shown.count()).toBeGreaterThan(3);
    // Each of four rows is a corner of the line, the first twice; dots have more.
    if (kind === 'Line') await expect.poll(() => cornersOf(dialog, BLUE)).toContain(5);
  }
  // What was typed is there again after the sheet was closed by mistake.
  await teacher.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await teacher.getByRole('button', { name: 'Options' }).click();
  await teacher.getByRole('button', { name: 'Chart', exact: true }).click();
  await expect(table).toHaveValue(/^Class A/);
  await dialog.getByRole('button', { name: 'Put on the page' }).click();
  await expectMarks(wren, 1);
  await teacher.getByRole('button', { name: 'Change the chart' }).click();
  await teacher.getByLabel(/^Table/).fill('Jan; 1\nFeb; -1');
  await expect(teacher.getByRole('alert')).toContainText('Take bars');
  await teacher.getByLabel('Kind of chart').selectOption('Bars');
  await teacher.getByRole('button', { name: 'Keep the change' }).click();
  await expect(teacher.getByRole('dialog')).toHaveCount(0);
  await teacher.getByRole('button', { name: 'List of what is on the page' }).click();
  const listed = (name: RegExp) => teacher.getByRole('button', { name });
  await expect(listed(/^Diagram: Bars of Jan 1, Feb -1/)).toBeVisible();
  await teacher.getByRole('button', { name: 'Undo' }).click();
  await expect(listed(/^Diagram: Pie of Class A: 1 3, 2 4/)).toBeVisible();
});
