import type { Browser, Page } from '@playwright/test';
import { bringIn, expect, startClass, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, sideState, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
  await startClass(teacher);
});

async function invited(teacher: Page, kind: 'A display' | 'A pad'): Promise<string> {
  await teacher.getByRole('button', { name: /^Devices/ }).click();
  await teacher.getByRole('button', { name: kind }).click();
  const told = teacher.getByTestId(kind === 'A pad' ? 'pad-address' : 'device-code');
  const code = (await told.innerText()).replace(/\s/g, '');
  await teacher.getByRole('button', { name: 'Close' }).click();
  return code;
}

async function display(browser: Browser, url: string, code: string): Promise<Page> {
  const context = await browser.newContext({
    baseURL: url,
    viewport: { width: 1920, height: 1080 },
    hasTouch: true,
  });
  const page = await context.newPage();
  await page.goto('/display');
  await page.getByLabel('Code').fill(code);
  await page.getByRole('button', { name: 'Connect' }).click();
  return page;
}

test('a display and a pad write as the teacher, turn pages, and leave with the class', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await invited(teacher, 'A display');
  const wall = await display(browser, server.url, code);
  await surfaceShown(wall);
  await draw(wall, wave(200, 200));
  await expectMarks(teacher, 1);

  const address = await invited(teacher, 'A pad');
  const phone = { viewport: { width: 390, height: 780 }, hasTouch: true, isMobile: true };
  const pad = await (await browser.newContext({ ...phone, baseURL: server.url })).newPage();
  await pad.goto(address);
  await surfaceShown(pad);
  await expect(pad).toHaveURL(/\/pad$/);
  await draw(pad, wave(100, 400));
  for (const page of [teacher, wall]) await expectMarks(page, 2);
  // The same pen: what the pad wrote, the laptop takes back.
  await expect
    .poll(async () => new Set((await stageState(teacher)).marks.map(({ author }) => author)).size)
    .toBe(1);
  await pad.getByRole('button', { name: 'Next page' }).click();
  for (const page of [teacher, wall]) await expectMarks(page, 0);

  // A band of the page moves on as the writing comes to its end.
  const { scale } = await stageState(pad);
  await pad.getByRole('button', { name: 'A band that moves on' }).click();
  await expect.poll(async () => (await stageState(pad)).scale).toBeGreaterThan(scale * 1.5);
  const { x } = await stageState(pad);
  await draw(pad, wave(180, 100, 180));
  await expect.poll(async () => (await stageState(pad)).x).toBeLessThan(x - 100);
  await expectMarks(teacher, 1);

  // A device that was reloaded is where it was; one that is thrown out is told so.
  await wall.reload();
  await surfaceShown(wall);
  await expectMarks(wall, 1);
  await teacher.getByRole('button', { name: 'Devices: 2' }).click();
  await teacher.getByRole('button', { name: 'Take out' }).first().click();
  await expect(wall.getByRole('heading', { name: /has taken this device out/ })).toBeVisible();
  await teacher.getByRole('button', { name: 'Close' }).click();
  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await expect(pad.getByRole('alert')).toContainText('The class has ended');
});

test('codes that are wrong or used are refused with what to do, and a second display is welcome', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await invited(teacher, 'A display');
  await surfaceShown(await display(browser, server.url, code));
  const second = await display(browser, server.url, code);
  await expect(second.getByRole('alert')).toContainText('used already');
  await second.getByLabel('Code').fill('NOTONE');
  await second.getByRole('button', { name: 'Connect' }).click();
  await expect(second.getByRole('alert')).toContainText('no such code');
  await second.getByLabel('Code').fill(await invited(teacher, 'A display'));
  await second.getByRole('button', { name: 'Connect' }).click();
  await surfaceShown(second);
  await expect(teacher.getByRole('button', { name: 'Devices: 2' })).toBeVisible();
});

test('at the display its teacher finds pens, pages, a picture and the whole page again', async ({
  browser,
  server,
  teacher,
}) => {
  const wall = await display(browser, server.url, await invited(teacher, 'A display'));
  await surfaceShown(wall);
  const press = (name: string) => wall.getByRole('button', { name, exact: true }).click();
  await press('Pens down: let them write');
  await expect(teacher.getByRole('button', { name: /^Pens up/ })).toBeVisible();
  await press('Pens up: put them down');
  await expect(teacher.getByRole('button', { name: /^Pens down/ })).toBeVisible();
  const { scale } = await stageState(wall);
  await wall.keyboard.down('Control');
  await wall.mouse.move(700, 400);
  await wall.mouse.wheel(0, -600);
  await wall.keyboard.up('Control');
  await expect.poll(async () => (await stageState(wall)).scale).toBeGreaterThan(scale * 2);
  await press('Fit the page');
  await expect.poll(async () => (await stageState(wall)).scale).toBeCloseTo(scale, 2);
  await press('Show all pages');
  const strip = wall.getByRole('navigation', { name: 'Pages' });
  const small = strip.getByRole('button', { name: /^Page \d+$/ });
  await expect(small.first()).toBeVisible();
  const count = await small.count();
  await small.last().click();
  await press('Next page');
  await press('A new page like it');
  await expect(small).toHaveCount(count + 1);
  await press('Grab a picture');
  await wall.getByRole('button', { name: 'Onto a new page' }).click();
  await expect(small).toHaveCount(count + 2);
});

test('two pages side by side can both be written on, on the display too, and the divider moves', async ({
  browser,
  server,
  teacher,
}) => {
  const wall = await display(browser, server.url, await invited(teacher, 'A display'));
  await surfaceShown(wall);
  await teacher.keyboard.press('8');
  await expect(teacher.getByTestId('stage')).toHaveCount(2);
  await expect(wall.getByTestId('stage')).toHaveCount(2);
  await teacher.keyboard.press('p');
  const { x, y, scale } = await sideState(teacher);
  await teacher.mouse.move(x + 100 * scale, y + 100 * scale);
  await teacher.mouse.down();
  await teacher.mouse.move(x + 200 * scale, y + 160 * scale, { steps: 3 });
  await teacher.mouse.up();
  await draw(teacher, wave(100, 200));
  await draw(teacher, wave(100, 300));
  await expect.poll(async () => (await sideState(wall)).marks.length).toBe(1);
  await expectMarks(wall, 2);
  const divider = teacher.getByRole('slider', { name: /^Divider/ });
  await divider.focus();
  await teacher.keyboard.press('ArrowLeft');
  await expect(divider).toHaveAttribute('aria-valuenow', '45');
  await expect.poll(async () => (await stageState(wall)).scene?.split?.at).toBeCloseTo(0.45, 5);
  await teacher.getByRole('button', { name: 'One page again' }).click();
  await expect(wall.getByTestId('stage')).toHaveCount(1);
});

test('what is set up goes on without a connection, and other tabs may change the lesson meanwhile', async ({
  server,
  teacher,
}) => {
  const other = await teacher.context().newPage();
  await other.goto(teacher.url());
  await surfaceShown(other);
  await other.getByRole('button', { name: 'Show all pages' }).click();
  await other.getByRole('button', { name: 'What to do with page 3' }).click();
  await other.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(teacher.getByLabel('Page 1 of 2')).toBeVisible();
  await server.kill();
  await teacher.keyboard.press('a');
  await expect(teacher.getByTestId('spotlight')).toBeVisible();
  await teacher.keyboard.press('PageDown');
  await expect(teacher.getByLabel('Page 2 of 2')).toBeVisible();
  await expect(teacher.getByText(/No connection/)).toBeVisible();
  await server.run();
  await expect(other.getByLabel('Page 2 of 2')).toBeVisible();
  await teacher.keyboard.press('PageUp');
  await expect(other.getByTestId('spotlight')).toBeVisible();
});
