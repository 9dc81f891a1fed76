import type { Page } from '@playwright/test';
import { PNG } from 'pngjs';
import {
  bringIn,
  expect,
  joinAs,
  startClass,
  startWriting,
  surfaceShown,
  test,
  undoInNotice,
} from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { pageMenu } from '../support/pageMenu';
import { openLesson } from '../support/lessonMenu';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('pages are added, ruled, duplicated, renamed, moved and deleted, also in class', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(teacher, wave(100, 300));
  const menu = (n: number, item: string) => pageMenu(teacher, n, item);
  await menu(1, 'Add a page after this');
  await teacher.getByRole('button', { name: 'Squared' }).click();
  await teacher.getByRole('button', { name: 'Add this page' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await draw(teacher, wave(200, 300));
  await expectMarks(wren, 1);
  await menu(1, 'Duplicate');
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();
  await expectMarks(teacher, 1);
  await menu(3, 'Rename');
  await teacher.getByLabel('Name of the page').fill('Squares');
  await teacher.getByRole('button', { name: 'Keep this name' }).click();
  await expect(teacher.getByRole('button', { name: 'Page 3: Squares' })).toBeVisible();
  await menu(3, 'Put a picture of it on the shown page');
  await expectMarks(teacher, 2);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 1);
  await menu(3, 'Move up');
  await expect(teacher.getByRole('button', { name: 'Page 2: Squares' })).toBeVisible();
  await menu(2, 'Delete');
  await expect(teacher.getByLabel(/of 3$/)).toBeVisible();
  await undoInNotice(teacher);
  await expect(teacher.getByRole('button', { name: 'Page 2: Squares' })).toBeVisible();
});

test('a page of number lines has the ends and steps that are chosen, and one that cannot be is told', async ({
  teacher,
}) => {
  await pageMenu(teacher, 1, 'Add a page after this');
  await teacher.getByRole('button', { name: 'Number lines' }).click();
  await teacher.getByLabel('From').fill('-5');
  await teacher.getByLabel('To', { exact: true }).fill('-9');
  await expect(teacher.getByRole('alert')).toContainText('cannot be');
  await expect(teacher.getByRole('button', { name: 'Add this page' })).toBeDisabled();
  await teacher.getByLabel('To', { exact: true }).fill('5');
  await teacher.getByRole('button', { name: 'Add this page' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  const words = new OutsideReader(await makeHandout(teacher)).text(2);
  for (const number of ['−5', '−1', '0', '5']) expect(words).toContain(number);
});

test('a boundless page grows in every direction, has a map, and is whole in the PDF', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await pageMenu(teacher, 1, 'Add a page after this');
  await teacher.getByRole('button', { name: 'Boundless' }).click();
  await teacher.getByRole('button', { name: 'Dotted' }).click();
  await teacher.getByRole('button', { name: 'Add this page' }).click();
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  const map = teacher.getByRole('application', { name: /^Map of the page/ });
  await expect(map).toBeVisible();
  await draw(teacher, wave(300, 300));
  await map.focus();
  for (let i = 0; i < 3; i++) await teacher.keyboard.press('ArrowLeft');
  for (let i = 0; i < 4; i++) await teacher.keyboard.press('ArrowUp');
  const { x, y } = await stageState(teacher);
  expect(x).toBeGreaterThan(1000);
  expect(y).toBeGreaterThan(700);
  await teacher.keyboard.press('p');
  await draw(teacher, [
    [-900, -500],
    [-860, -460],
    [-800, -500],
  ]);
  await expectMarks(wren, 2);
  const [, far] = (await stageState(wren)).marks;
  expect(far!.bounds.x).toBeLessThan(-850);
  await teacher.keyboard.press('0');
  await expect.poll(async () => (await at(teacher, -900, -500))[0]).toBeGreaterThan(0);
  const handout = new OutsideReader(await makeHandout(teacher));
  handout.check();
  const size = handout.geometry().find((line) => line.startsWith('Page 2 size'))!;
  const width = Number(/([\d.]+) x/.exec(size)![1]);
  expect((width * 96) / 72).toBeGreaterThan(1280 + 900);
});

test('students keep in sight what the teacher sees, until they move the page themselves', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const phone = await joinAs(browser, server.url, code, 'Rowan');
  await phone.setViewportSize({ width: 390, height: 844 });
  await pageMenu(teacher, 1, 'Add a page after this');
  await teacher.getByRole('button', { name: 'Boundless' }).click();
  await teacher.getByRole('button', { name: 'Add this page' }).click();
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  const map = teacher.getByRole('application', { name: /^Map of the page/ });
  await map.focus();
  for (let i = 0; i < 3; i++) await teacher.keyboard.press('ArrowRight');
  const seenBy = async (page: Page, x: number, y: number) => {
    const [left, top] = await at(page, x, y);
    const { width, height } = page.viewportSize()!;
    return left >= 0 && top >= 0 && left <= width && top <= height;
  };
  const { scale, x } = await stageState(teacher);
  const middle = (640 - x) / scale;
  expect(middle).toBeGreaterThan(1300);
  for (const page of [wren, phone]) await expect.poll(() => seenBy(page, middle, 200)).toBe(true);
  // Moved by hand it stays so, until one wants to be back.
  await wren.mouse.move(640, 500);
  await wren.mouse.wheel(-6000, 0);
  await expect.poll(() => seenBy(wren, middle, 200)).toBe(false);
  await map.focus();
  await teacher.keyboard.press('ArrowRight');
  await expect.poll(() => seenBy(phone, middle + 300, 200)).toBe(true);
  expect(await seenBy(wren, middle, 200)).toBe(false);
  await wren.getByRole('button', { name: 'Back to the class' }).click();
  await expect.poll(() => seenBy(wren, middle + 300, 200)).toBe(true);
  // The next page is seen whole again.
  await teacher.keyboard.press('PageUp');
  for (const page of [wren, phone]) await expect.poll(() => seenBy(page, 20, 20)).toBe(true);
  // After the class nobody is led to where its teacher looked last.
  for (let i = 0; i < 6; i++) await teacher.keyboard.press('+');
  await expect.poll(() => seenBy(wren, 20, 20)).toBe(false);
  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await expect(wren.getByText('This class has ended')).toBeVisible();
  await wren.reload();
  await surfaceShown(wren);
  await expect.poll(() => seenBy(wren, 20, 20)).toBe(true);
});

test('a picture of one’s own can be the ground of a page', async ({ browser, server, teacher }) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await pageMenu(teacher, 1, 'Add a page before this');
  const picture = new PNG({ width: 60, height: 40 });
  for (let i = 0; i < picture.data.length; i += 4) picture.data.set([10, 120, 200, 255], i);
  await teacher
    .getByLabel('Picture for the page')
    .setInputFiles({ name: 'ground.png', mimeType: 'image/png', buffer: PNG.sync.write(picture) });
  await expect(teacher.getByLabel('Page 1 of 3')).toBeVisible();
  await surfaceShown(wren);
  const colour = async (page: Page) => {
    const [px, py] = await at(page, 400, 300);
    const shot = PNG.sync.read(await page.screenshot());
    const i = (Math.round(py) * shot.width + Math.round(px)) * 4;
    return [...shot.data.subarray(i, i + 3)];
  };
  for (const page of [teacher, wren]) await expect.poll(() => colour(page)).toEqual([10, 120, 200]);
});

test('a page is copied and moved to another lesson with all that is on it', async ({ teacher }) => {
  await draw(teacher, wave(100, 300));
  await expectMarks(teacher, 1);
  await teacher.goto('/');
  await bringIn(teacher, { name: 'arches.pdf', bytes: await plainPdf(1) });
  await teacher.goto('/');
  await openLesson(teacher, 'bridges');
  await surfaceShown(teacher);
  await pageMenu(teacher, 1, 'Copy or move to another lesson');
  await teacher.getByRole('radio', { name: 'arches' }).check();
  await teacher.getByRole('button', { name: 'Move it there' }).click();
  await expect(teacher.getByLabel('Page 1 of 1')).toBeVisible();
  await teacher.goto('/');
  await openLesson(teacher, 'arches');
  await surfaceShown(teacher);
  await teacher.keyboard.press('PageDown');
  await expect(teacher.getByLabel('Page 2 of 2')).toBeVisible();
  await expectMarks(teacher, 1);
});

test('a ready template is placed by one tap, of ordinary marks, and one undo takes it away', async ({
  teacher,
}) => {
  await pageMenu(teacher, 1, 'Put a ready template on it');
  const templates = teacher.getByRole('list', { name: 'Ready templates' });
  await expect(templates.getByRole('listitem')).toHaveCount(13);
  await templates.getByRole('button', { name: /^Know, want, learned(?!, with)/ }).click();
  await expect.poll(async () => (await stageState(teacher)).marks.length).toBeGreaterThan(5);
  const { marks } = await stageState(teacher);
  expect(new Set(marks.map(({ kind }) => kind))).toEqual(new Set(['shape', 'path', 'text']));
  await undoInNotice(teacher);
  await expectMarks(teacher, 0);
  // One with rules: its cards go from column to column.
  await templates.getByRole('button', { name: /^Board with columns/ }).click();
  await expect(teacher.getByRole('img', { name: 'Can be moved by the class' })).toHaveCount(4);
  await undoInNotice(teacher);
  await expectMarks(teacher, 0);
});
