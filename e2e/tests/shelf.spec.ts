import type { Locator, Page } from '@playwright/test';
import { expectReachable } from '../support/controls';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test, undoInNotice } from '../support/fixtures';
import { openLesson } from '../support/lessonMenu';
import { pageMenu } from '../support/pageMenu';
import { plainPdf } from '../support/pdfs';
import { openShelf, shelf } from '../support/shelf';
import { at, draw, expectMarks, stageState, typeAt, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

const things = (page: Page) => page.getByRole('list', { name: 'Your things' }).getByRole('listitem');

async function middleOf(target: Locator): Promise<[number, number]> {
  const { x, y, width, height } = (await target.boundingBox())!;
  return [x + width / 2, y + height / 2];
}

async function drag(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, { steps: 4 });
  await page.mouse.move(...to, { steps: 4 });
  await page.mouse.up();
}

type Bounds = Awaited<ReturnType<typeof stageState>>['marks'][number]['bounds'];

const inside = ({ bounds: { x, y } }: { bounds: Bounds }): [number, number] => [x + 40, y + 18];

function enclosing(all: readonly Bounds[]): Bounds {
  const [x, y] = [Math.min(...all.map((one) => one.x)), Math.min(...all.map((one) => one.y))];
  const width = Math.max(...all.map((one) => one.x + one.width)) - x;
  return { x, y, width, height: Math.max(...all.map((one) => one.y + one.height)) - y };
}

async function leaveFor(page: Page, title: string): Promise<void> {
  await page.goto('/');
  await openLesson(page, title);
  await surfaceShown(page);
}

test('what is dragged onto the shelf stays on its page, and is dragged into another lesson the next day', async ({
  teacher,
}) => {
  await draw(teacher, wave(120, 300));
  await typeAt(teacher, 120, 360, 'Keystone');
  await expectMarks(teacher, 2);
  await openShelf(teacher);
  await teacher.keyboard.press('v');
  await draw(teacher, [
    [60, 240],
    [500, 240],
    [500, 460],
    [60, 460],
    [60, 250],
  ]);
  await teacher.keyboard.press('Control+g');
  const before = (await stageState(teacher)).marks;
  await drag(
    teacher,
    await at(teacher, ...inside(before.find(({ kind }) => kind === 'text')!)),
    await middleOf(shelf(teacher)),
  );
  await expect(things(teacher)).toHaveCount(1);
  await expect(things(teacher)).toContainText('Keystone');
  // The picture of it has come.
  await expect(things(teacher).locator('img')).toBeVisible();
  expect((await stageState(teacher)).marks).toEqual(before);

  await teacher.goto('/');
  await bringIn(teacher, { name: 'arches.pdf', bytes: await plainPdf(1) });
  await openShelf(teacher);
  const card = things(teacher).getByRole('button', { name: 'Keystone', exact: true });
  await drag(teacher, await middleOf(card), await at(teacher, 400, 700));
  await expectMarks(teacher, 2);
  const { marks } = await stageState(teacher);
  const { x, y, width, height } = enclosing(marks.map(({ bounds }) => bounds));
  expect(Math.hypot(x + width / 2 - 400, y + height / 2 - 700)).toBeLessThan(3);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 0);
  // By the keyboard too.
  await card.press('Enter');
  await expectMarks(teacher, 2);
});

test('pages go onto the shelf from the strip and into a class, where students have them', async ({
  browser,
  server,
  teacher,
}) => {
  await draw(teacher, wave(120, 300));
  await expectMarks(teacher, 1);
  await openShelf(teacher);
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  const first = teacher
    .getByRole('navigation', { name: 'Pages' })
    .getByRole('button', { name: 'Page 1', exact: true });
  await drag(teacher, await middleOf(first), await middleOf(shelf(teacher)));
  await expect(things(teacher)).toContainText('1 page');
  await pageMenu(teacher, 2, 'Put it on the shelf');
  await expect(things(teacher)).toHaveCount(2);
  await shelf(teacher).getByRole('button', { name: 'Keep all pages' }).click();
  await expect(things(teacher).first()).toContainText('2 pages');

  await leaveFor(teacher, 'bridges');
  const wren = await joinAs(browser, server.url, await startWriting(teacher), 'Wren');
  await openShelf(teacher);
  await things(teacher).first().getByRole('button', { name: '2 pages' }).click();
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();
  await expect(wren.getByText('Page 2', { exact: true })).toBeVisible();
  await expectMarks(wren, 1);
  await undoInNotice(teacher);
  await expect(teacher.getByLabel(/^Page \d of 2$/)).toBeVisible();
});

test('things are named, put into folders, found, shared with the school, taken off and put back', async ({
  teacher,
}) => {
  const name = `Truss ${Date.now()}`;
  await typeAt(teacher, 120, 360, 'Girder');
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await openShelf(teacher);
  await shelf(teacher).getByRole('button', { name: 'Keep selected' }).click();
  const menu = async (thing: string, item: string) => {
    await shelf(teacher)
      .getByRole('button', { name: `More for ${thing}` })
      .click();
    await teacher.getByRole('menuitem', { name: item }).click();
  };
  await menu('Girder', 'Name and folder');
  await teacher.getByLabel('Name', { exact: true }).fill(name);
  await teacher.getByRole('dialog').getByLabel('Folder').fill('Bridges');
  await teacher.getByRole('button', { name: 'Keep this name' }).click();
  await expect(things(teacher)).toContainText(name);
  await shelf(teacher).getByLabel('Folder').selectOption('Bridges');
  await expect(things(teacher)).toHaveCount(1);
  const search = shelf(teacher).getByRole('searchbox', { name: 'Search the shelf' });
  await search.fill('gird');
  await expect(things(teacher)).toHaveCount(1);
  await search.fill('arch');
  await expect(shelf(teacher).getByText('Nothing found.')).toBeVisible();
  await search.fill('');
  await menu(name, 'Share with the school');
  await shelf(teacher).getByRole('tab', { name: 'School’s' }).click();
  await expect(teacher.getByRole('list', { name: 'Things of the school' })).toContainText(name);
  await shelf(teacher).getByRole('tab', { name: 'Mine' }).click();
  await menu(name, 'Take it off the shelf');
  await expect(things(teacher)).toHaveCount(0);
  await undoInNotice(teacher);
  await expect(things(teacher)).toHaveCount(1);
  await teacher.keyboard.press('Escape');
});

test('everything on the shelf can be reached on the smallest and the largest screen, and closing it leads to the page', async ({
  teacher,
}) => {
  await openShelf(teacher);
  await shelf(teacher).getByRole('button', { name: 'Keep all pages' }).click();
  await expect(things(teacher).locator('img')).toBeVisible();
  for (const viewport of [
    { width: 320, height: 640 },
    { width: 3840, height: 2160 },
  ]) {
    await teacher.setViewportSize(viewport);
    for (const part of ['Templates', 'Pictures', 'Mine']) {
      await shelf(teacher).getByRole('tab', { name: part }).click();
      await expect(shelf(teacher).getByRole('tabpanel', { name: part })).toBeVisible();
      await expectReachable(teacher);
    }
  }
  await shelf(teacher).getByRole('button', { name: 'Close the shelf' }).press('Enter');
  await expect(shelf(teacher)).toBeHidden();
  await expect(teacher.getByTestId('stage')).toBeFocused();
});

test('ready pictures are found by a word, also without a connection, and stand on the page with their names', async ({
  context,
  teacher,
}) => {
  await openShelf(teacher, 'Pictures');
  const pictures = teacher.getByRole('list', { name: 'Ready pictures' });
  await expect(pictures.getByRole('button', { name: 'elephant', exact: true })).toBeVisible();
  const search = shelf(teacher).getByRole('searchbox', { name: 'Search the pictures' });
  await search.fill('bridg');
  const bridge = pictures.getByRole('button', { name: 'bridge at night' });
  await drag(teacher, await middleOf(bridge), await at(teacher, 400, 500));
  await expectMarks(teacher, 1);
  // By a finger too: sideways it drags, up and down it scrolls.
  const cdp = await context.newCDPSession(teacher);
  await cdp.send('Emulation.setTouchEmulationEnabled', { enabled: true });
  const [[fromX, fromY], [toX, toY]] = [await middleOf(bridge), await at(teacher, 300, 800)];
  const touch = (type: 'touchStart' | 'touchMove', part: number) =>
    cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: [{ x: fromX + (toX - fromX) * part, y: fromY + (toY - fromY) * part ** 3, id: 1 }],
    });
  await touch('touchStart', 0);
  for (let step = 1; step <= 10; step++) await touch('touchMove', step / 10);
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expectMarks(teacher, 2);
  await cdp.send('Emulation.setTouchEmulationEnabled', { enabled: false });
  await context.setOffline(true);
  await search.fill('volc');
  await expect(pictures.getByRole('button', { name: 'volcano' })).toBeVisible();
  await context.setOffline(false);
  await teacher.getByRole('button', { name: 'List of what is on' }).click();
  await expect(shelf(teacher)).toBeHidden();
  await expect(
    teacher.getByRole('complementary').getByRole('button', { name: 'bridge at night' }),
  ).toHaveCount(2);
});
