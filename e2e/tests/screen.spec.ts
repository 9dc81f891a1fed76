import type { Page } from '@playwright/test';
import { PNG } from 'pngjs';
import {
  bringIn,
  expect,
  joinAs,
  penState,
  startClass,
  startWriting,
  surfaceShown,
  test,
} from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { similarity } from '../support/pictures';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';
import { forStudent } from '../support/roster';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

async function show(page: Page, what: string): Promise<void> {
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await page.getByRole('menuitem', { name: what }).click();
  await expect.poll(async () => (await stageState(page)).screen?.certain).toBe(true);
}

const bar = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Shown screen' }).getByRole('button', { name, exact: true }).click();

const offsetOf = async (page: Page) => {
  const { screen } = await stageState(page);
  return screen && (screen.panes[0]?.place.y ?? 0) + 0;
};

/** Where a place of what stays on the glass is in the window, however the main part is scrolled. */
async function onBar(page: Page, x: number, y: number): Promise<[number, number]> {
  return at(page, x, y - ((await offsetOf(page)) ?? 0));
}

/** What is seen round a place of the content, page units. */
async function seenAt(page: Page, x: number, y: number, height = 90): Promise<PNG> {
  const [left, top] = await at(page, x, y);
  const { scale } = await stageState(page);
  const clip = { x: left, y: top, width: 240 * scale, height: height * scale };
  return PNG.sync.read(await page.screenshot({ clip }));
}

test(
  'ink on a shared page stays on its words when the page is scrolled, on every screen',
  { tag: '@plain' },
  async ({ browser, server, teacher }) => {
    const code = await startClass(teacher);
    await penState(teacher, true);
    const wren = await joinAs(browser, server.url, code, 'Wren');
    const rowan = await joinAs(browser, server.url, code, 'Rowan');
    const all = [teacher, wren, rowan];
    await show(teacher, 'A screen to practise with');
    for (const page of all) await expect.poll(() => offsetOf(page)).toBe(0);
    await teacher.keyboard.press('p');
    await draw(teacher, wave(300, 330, 200));
    await wren.keyboard.press('p');
    await draw(wren, wave(320, 400, 160));
    for (const page of all) await expectMarks(page, 2);
    const before = await Promise.all(all.map((page) => seenAt(page, 280, 290)));
    // On the bar above, which is not scrolled: marks stay there.
    await draw(teacher, wave(900, 22, 120));
    for (const page of all) await expectMarks(page, 3);
    const barBefore = await Promise.all(all.map((page) => seenAt(page, 860, 0, 40)));
    await bar(teacher, 'Scroll down');
    for (const page of all) await expect.poll(() => offsetOf(page)).toBe(-240);
    for (const [i, page] of all.entries())
      await expect
        .poll(async () => similarity(barBefore[i]!, await seenAt(page, 860, 240, 40)))
        .toBeGreaterThan(0.97);
    for (const [i, page] of all.entries())
      await expect
        .poll(async () => similarity(before[i]!, await seenAt(page, 280, 290)))
        .toBeGreaterThan(0.75);
    // What is selected there has its frame there, and is moved there.
    await teacher.keyboard.press('v');
    await teacher.mouse.click(...(await onBar(teacher, 900, 22)));
    const handle = teacher.getByRole('button', { name: 'Turn', exact: true });
    const frame = async () => (await handle.locator('..').boundingBox())!;
    const [left, top] = await onBar(teacher, 900, 22);
    expect(Math.abs((await frame()).x - left)).toBeLessThan(30);
    expect(Math.abs((await frame()).y - top)).toBeLessThan(40);
    await teacher.keyboard.press('Escape');
    await bar(teacher, 'Scroll down');
    await bar(teacher, 'Scroll down');
    await bar(teacher, 'Scroll up');
    await bar(teacher, 'Scroll up');
    await bar(teacher, 'Scroll up');
    for (const page of all) await expect.poll(() => offsetOf(page)).toBe(0);
    for (const [i, page] of all.entries())
      await expect
        .poll(async () => similarity(before[i]!, await seenAt(page, 280, 290)))
        .toBeGreaterThan(0.95);

    // A video in the page must not drag the ink along.
    await bar(teacher, 'Scroll down');
    await bar(teacher, 'Video');
    const heard = (page: Page) =>
      page.evaluate(
        () =>
          (window as unknown as { doodla: { screen: { received: { sound: number } } } }).doodla.screen
            .received.sound,
      );
    // It hums, and students hear it.
    const secure = await teacher.evaluate(() => isSecureContext);
    if (secure) for (const page of [wren, rowan]) await expect.poll(() => heard(page)).toBeGreaterThan(0.5);
    for (const page of all) await expect.poll(() => offsetOf(page)).toBe(-240);
    await bar(teacher, 'Scroll down');
    await expect.poll(() => offsetOf(teacher)).toBe(-480);
  },
);

test('slides in a shared window keep their marks apart and get them back, with a picture in the handout', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await show(teacher, 'A screen to practise with');
  await teacher.keyboard.press('p');
  await draw(teacher, wave(300, 330));
  await bar(teacher, 'Next slide');
  await expectMarks(teacher, 0);
  const first = (await stageState(teacher)).screen!.page;
  await draw(teacher, wave(200, 400));
  await expectMarks(wren, 1);
  await bar(teacher, 'Next slide');
  await expect.poll(async () => (await stageState(teacher)).screen?.page).not.toBe(first);
  for (const page of [teacher, wren]) await expectMarks(page, 0);
  await draw(teacher, wave(500, 420));
  await draw(teacher, wave(500, 500));
  await expectMarks(wren, 2);
  for (let i = 0; i < 3; i++) {
    await bar(teacher, 'Next slide');
    await expectMarks(teacher, i < 2 ? 0 : 1);
  }
  await expectMarks(wren, 1);
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBe(first);
  await bar(teacher, 'Stop showing');
  await expect(teacher.getByRole('group', { name: 'Shown screen' })).toBeHidden();
  await expectMarks(wren, 1);
  const handout = new OutsideReader(await makeHandout(teacher));
  handout.check();
  expect(handout.geometry().filter((line) => line.includes('size'))).toHaveLength(5);
  const picture = handout.picture(3, 1280);
  let inked = 0;
  for (let i = 0; i < picture.data.length; i += 4) if (picture.data[i]! < 60) inked += 1;
  expect(inked).toBeGreaterThan(2000);

  // The small picture of a page that has not been turned to since a reload has what was shown under it.
  await teacher.reload();
  await surfaceShown(teacher);
  await teacher.keyboard.press('PageUp');
  await teacher.reload();
  await surfaceShown(teacher);
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  const small = teacher.getByRole('button', { name: /^Page 3: Screen/ }).locator('canvas');
  await expect
    .poll(() =>
      small.evaluate((canvas: HTMLCanvasElement) => {
        if (canvas.width === 0) return 0;
        const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
        return new Set(Array.from({ length: data.length / 4 }, (_, i) => data[4 * i]! >> 3)).size;
      }),
    )
    .toBeGreaterThan(8);
});

test('a screen of the system is shown live, held still, and stopped', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await show(teacher, 'A screen, window or tab');
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBeTruthy();
  await surfaceShown(wren);
  await bar(teacher, 'Hold the picture still');
  await expect(teacher.getByRole('button', { name: 'Let the picture go on' })).toBeVisible();
  await teacher.keyboard.press('p');
  await draw(teacher, wave(200, 300));
  await expectMarks(wren, 1);
  await bar(teacher, 'Let the picture go on');
  await expectMarks(teacher, 0);
  await bar(teacher, 'Stop showing');
  await expect.poll(async () => (await stageState(wren)).screen).toBeNull();
});

test('a page that is loaded anew while showing loses nothing: the last picture, its marks, and the view itself', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await show(teacher, 'A screen to practise with');
  await bar(teacher, 'Scroll down');
  await expect.poll(() => offsetOf(wren)).toBe(-240);
  await teacher.keyboard.press('p');
  await draw(teacher, wave(300, 530, 200));
  await expectMarks(wren, 1);
  const [seen, seenByTeacher] = [await seenAt(wren, 280, 490), await seenAt(teacher, 280, 490)];
  const page = (await stageState(wren)).screen!.page;
  await bar(teacher, 'Scroll up');
  await expect.poll(() => offsetOf(wren)).toBe(0);
  // Kept on the teacher's device every few seconds.
  await expect
    .poll(() =>
      teacher.evaluate(async () => {
        const databases = await indexedDB.databases();
        return databases.some(({ name }) => name === 'doodla-screen');
      }),
    )
    .toBe(true);
  await teacher.reload();
  for (const each of [teacher, wren]) await expect(each.getByText('this is the last picture')).toBeVisible();
  // The class still sees it, with what was written where it was written.
  await expect.poll(async () => similarity(seen, await seenAt(wren, 280, 490))).toBeGreaterThan(0.75);
  await expectMarks(teacher, 1);
  await expect
    .poll(async () => similarity(seenByTeacher, await seenAt(teacher, 280, 490)))
    .toBeGreaterThan(0.7);
  await teacher.getByRole('button', { name: 'Show again' }).click();
  // The practice screen begins at its top; the view is known again by its pictures.
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBe(page);
  for (const each of [teacher, wren]) {
    await expect.poll(() => offsetOf(each)).toBe(0);
    await expectMarks(each, 1);
  }
  await bar(teacher, 'Scroll down');
  await expect.poll(() => offsetOf(wren)).toBe(-240);
  await expect.poll(async () => similarity(seen, await seenAt(wren, 280, 490))).toBeGreaterThan(0.75);
});

test('a student whom the teacher lets shows their screen, and everybody writes on it', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const rowan = await joinAs(browser, server.url, code, 'Rowan');
  await expect(wren.getByRole('button', { name: 'Show', exact: true })).toBeHidden();
  await forStudent(teacher, 'Wren', 'May show their screen');
  await show(wren, 'A screen to practise with');
  for (const page of [teacher, rowan]) {
    await expect(page.getByRole('group', { name: 'Shown screen' })).toContainText('Shown by Wren');
    await expect.poll(() => offsetOf(page)).toBe(0);
  }
  await rowan.keyboard.press('p');
  await draw(rowan, wave(300, 330, 200));
  for (const page of [teacher, wren]) await expectMarks(page, 1);
  await teacher.getByRole('button', { name: 'Stop showing' }).click();
  await expect(wren.getByRole('button', { name: 'Show', exact: true })).toBeEnabled();
  await expectMarks(teacher, 1);
});
