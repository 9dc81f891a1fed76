import type { Page } from '@playwright/test';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { forStudent, hand } from '../support/roster';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';

const DAY_MS = 86_400_000;

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

/** That each mark is there once, for everybody the same ones. */
async function expectSame(pages: readonly Page[], count: number): Promise<void> {
  for (const page of pages) await expectMarks(page, count);
  const idsOf = async (page: Page) => (await stageState(page)).marks.map(({ id }) => id).sort();
  const [first, ...others] = await Promise.all(pages.map(idsOf));
  expect(new Set(first).size).toBe(count);
  for (const ids of others) expect(ids).toEqual(first);
}

test('a student with the class open in two tabs is one student, and writes in both', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const twin = await wren.context().newPage();
  await twin.goto(wren.url());
  await surfaceShown(twin);
  await expect(twin.getByText('Pens up').first()).toBeVisible();
  await Promise.all([draw(wren, wave(60, 100)), draw(twin, wave(60, 200))]);
  await expectSame([wren, twin, teacher], 2);
  await wren.context().setOffline(true);
  await draw(wren, wave(60, 300));
  await draw(twin, wave(60, 400));
  await wren.context().setOffline(false);
  await expectSame([wren, twin, teacher], 4);
  await twin.getByRole('button', { name: 'Undo' }).click();
  await expectSame([wren, twin, teacher], 3);
  await expect(teacher.getByRole('button', { name: /^Students: 1/ })).toBeVisible();
});

test('a device that was asleep wakes up to what was written meanwhile, and goes on', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(wren, wave(60, 100));
  const devtools = await wren.context().newCDPSession(wren);
  await wren.context().setOffline(true);
  await devtools.send('Page.setWebLifecycleState', { state: 'frozen' });
  await draw(teacher, wave(60, 200));
  await draw(teacher, wave(60, 300));
  await expectMarks(teacher, 3);
  await devtools.send('Page.setWebLifecycleState', { state: 'active' });
  await wren.context().setOffline(false);
  await expectSame([wren, teacher], 3);
  await draw(wren, wave(60, 400));
  await expectSame([wren, teacher], 4);
});

test('a clock that is wrong by a day changes nothing', async ({ browser, server, teacher }) => {
  const code = await startWriting(teacher);
  const context = await browser.newContext({ baseURL: server.url });
  await context.addInitScript((ahead) => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + ahead;
  }, DAY_MS);
  const wren = await context.newPage();
  await wren.goto(`/join/${code}`);
  await wren.getByLabel('Your name').fill('Wren');
  await wren.getByRole('button', { name: 'Go in' }).click();
  await surfaceShown(wren);
  await draw(wren, wave(60, 100));
  await draw(teacher, wave(60, 200));
  await context.setOffline(true);
  await draw(wren, wave(60, 300));
  await context.setOffline(false);
  await expectSame([wren, teacher], 3);
  await wren.reload();
  await surfaceShown(wren);
  await wren.getByRole('button', { name: 'Undo' }).click();
  await expectSame([wren, teacher], 2);
  await hand(teacher, 'Own copies');
  await expect(wren.getByText('This is your own copy of the page')).toBeVisible();
  await draw(wren, wave(60, 400));
  await hand(teacher, 'See all copies');
  const card = teacher.getByRole('dialog', { name: 'All copies' }).getByRole('listitem');
  await expect(card.getByText('1 mark', { exact: true })).toBeVisible();
});

test('a teacher in two browsers leads one class', async ({ browser, server, teacher }) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const context = await browser.newContext({
    baseURL: server.url,
    storageState: await teacher.context().storageState(),
  });
  const second = await context.newPage();
  await second.goto(teacher.url());
  await surfaceShown(second);
  await Promise.all([draw(teacher, wave(60, 100)), draw(second, wave(60, 200)), draw(wren, wave(60, 300))]);
  await expectSame([teacher, second, wren], 3);
  await second.getByRole('button', { name: /^Pens up/ }).click();
  await expect(teacher.getByRole('button', { name: /^Pens down/ })).toBeVisible();
  await expect(wren.getByText('Pens down')).toBeVisible();
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expect(second.getByText('2 / 2')).toBeVisible();
  await expect(wren.getByText('Page 2', { exact: true })).toBeVisible();
  await second.getByRole('button', { name: 'Previous page' }).click();
  await expect(teacher.getByText('1 / 2')).toBeVisible();
  await expectSame([teacher, second, wren], 3);
});

test('the server stops in the middle of a stroke, and the stroke is there once', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(wren, wave(60, 100));
  await expectSame([wren, teacher], 1);
  const [x, y] = await at(wren, 60, 200);
  await wren.mouse.move(x, y);
  await wren.mouse.down();
  await wren.mouse.move(x + 60, y + 10, { steps: 5 });
  await server.kill();
  await wren.mouse.move(x + 120, y, { steps: 5 });
  await wren.mouse.up();
  await server.run();
  await expectSame([wren, teacher], 2);
});

test('a student who is taken out while offline is told so, and the class has no more of them than was sent', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove');
  await draw(wren, wave(60, 100));
  await expectSame([wren, tove, teacher], 1);
  await wren.context().setOffline(true);
  await draw(wren, wave(60, 200));
  await forStudent(teacher, 'Wren', 'Take Wren out of the class');
  await wren.context().setOffline(false);
  await expect(wren.getByText('Your teacher has taken you out')).toBeVisible();
  await draw(tove, wave(60, 300));
  await expectSame([tove, teacher], 2);
});
