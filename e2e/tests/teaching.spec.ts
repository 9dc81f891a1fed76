import type { CDPSession, Page } from '@playwright/test';
import { bringIn, expect, joinAs, startClass, surfaceShown, test } from '../support/fixtures';
import { openLesson } from '../support/lessonMenu';
import { plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';
import { forStudent } from '../support/roster';

const PAGES = 4;

const on = (page: Page, n: number) => expect(page.getByLabel(`Page ${n} of ${PAGES}`)).toBeVisible();

async function covered(page: Page): Promise<number> {
  const { scene, marks } = await stageState(page);
  return marks.filter(({ kind, id }) => kind === 'patch' && !scene?.uncovered.includes(id)).length;
}

/** One finger across the middle of the window. */
async function swipe(cdp: CDPSession, from: number, to: number): Promise<void> {
  const touch = (type: string, x?: number) =>
    cdp.send('Input.dispatchTouchEvent', {
      type: type as 'touchStart',
      touchPoints: x === undefined ? [] : [{ x, y: 420, id: 1 }],
    });
  await touch('touchStart', from);
  for (let i = 1; i <= 4; i++) await touch('touchMove', from + ((to - from) * i) / 4);
  await touch('touchEnd');
}

test('one lesson is taught to two classes; each keeps its own marks, dropped ones can be brought back', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(PAGES) });
  // Prepared: an answer under a patch on the second page.
  await teacher.keyboard.press('PageDown');
  await teacher.keyboard.press('p');
  await draw(teacher, wave(200, 300));
  await teacher.keyboard.press('6');
  await draw(teacher, [
    [150, 250],
    [420, 350],
  ]);
  await expectMarks(teacher, 2);
  await teacher.keyboard.press('PageUp');

  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  // Presenting: nothing but the page, the tools and a slim turner; a clicker's keys work with the pen in hand.
  await teacher.keyboard.press('u');
  await expect(teacher.getByRole('button', { name: 'End class' })).toBeHidden();
  // The page is as large as the window, and the tools wait as one button.
  const tools = teacher.getByRole('toolbar', { name: 'Tools' });
  const waiting = teacher.getByRole('button', { name: /^Show the tools/ });
  await expect(waiting).toBeVisible();
  await expect(tools).toBeHidden();
  // A page of ISO 216 is higher than the window is wide.
  const share = async () => {
    const { scale, width } = await stageState(teacher);
    return (scale * width * Math.SQRT2) / (await teacher.getByTestId('stage').boundingBox())!.height;
  };
  await expect.poll(share).toBeCloseTo(1, 2);
  await waiting.click();
  await expect(tools).toBeVisible();
  await teacher.keyboard.press('p');
  await draw(teacher, wave(100, 120));
  await teacher.keyboard.press('PageDown');
  await on(teacher, 2);
  await expectMarks(wren, 2);
  expect(await covered(wren)).toBe(1);
  await teacher.mouse.click(...(await at(teacher, 280, 300)));
  await expect.poll(() => covered(wren)).toBe(0);
  await expectMarks(teacher, 2);
  // The tools go away and come back by a touch of the edge.
  await teacher.keyboard.press('y');
  await expect(tools).toBeHidden();
  await teacher.getByRole('button', { name: 'Bring the tools back (left edge)' }).click();
  await expect(tools).toBeVisible();
  // A finger turns the page while it is used.
  await teacher.keyboard.press('w');
  const cdp = await teacher.context().newCDPSession(teacher);
  await swipe(cdp, 900, 500);
  await on(teacher, 3);
  await expect.poll(async () => (await stageState(wren)).marks.length).toBe(0);
  await teacher.keyboard.press('w');
  await draw(teacher, wave(100, 120));
  await draw(teacher, wave(100, 240));
  // A pen has been seen: from now on it writes, and fingers turn the page at the same time.
  const pen = (type: 'mousePressed' | 'mouseReleased', x: number) =>
    cdp.send('Input.dispatchMouseEvent', {
      type,
      x,
      y: 500,
      button: 'left',
      clickCount: 1,
      pointerType: 'pen',
      force: 0.5,
    });
  await pen('mousePressed', 600);
  await pen('mouseReleased', 600);
  await expectMarks(teacher, 3);
  // Touches just after the pen are taken for the hand that holds it.
  await expect(async () => {
    await swipe(cdp, 500, 900);
    await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible({ timeout: 2000 });
  }).toPass();
  await teacher.getByRole('button', { name: 'Stop presenting' }).click();

  // Led by spotlight and glass, on the student's screen too, and closed by one key.
  await teacher.keyboard.press('a');
  const light = wren.getByTestId('spotlight').locator('path');
  await expect(light).toBeVisible();
  const before = await light.getAttribute('d');
  const grip = (await teacher.getByRole('button', { name: 'Move the spotlight' }).boundingBox())!;
  await teacher.mouse.move(grip.x + 22, grip.y + 22);
  await teacher.mouse.down();
  await teacher.mouse.move(grip.x + 122, grip.y - 28, { steps: 4 });
  await teacher.mouse.up();
  await expect.poll(() => light.getAttribute('d')).not.toBe(before);
  await teacher.keyboard.press('Escape');
  await expect(light).toBeHidden();
  await teacher.keyboard.press('o');
  await expect(wren.getByTestId('magnifier')).toBeVisible();
  await teacher.getByRole('button', { name: 'The class sees this' }).click();
  await expect(wren.getByTestId('magnifier')).toBeHidden();
  await expect(teacher.getByTestId('magnifier')).toBeVisible();
  await teacher.getByRole('button', { name: 'Close', exact: true }).click();

  // Three minutes in two taps; the clock is driven.
  await teacher.getByRole('button', { name: 'Focus', exact: true }).click();
  await teacher.getByRole('button', { name: '3 min: start the countdown' }).click();
  await expect(wren.getByRole('timer')).toHaveText(/^(3:00|2:5\d)$/);
  const started = Date.now();
  for (const page of [teacher, wren]) await page.clock.setFixedTime(started + 178_500);
  for (const page of [teacher, wren]) await expect(page.getByRole('timer')).toHaveText(/^0:0[12]$/);
  for (const page of [teacher, wren]) await page.clock.setFixedTime(started + 181_000);
  for (const page of [teacher, wren]) await expect(page.getByText('Time is up')).toBeVisible();
  await teacher.getByRole('button', { name: 'Take the time away' }).click();
  await expect(wren.getByRole('timer')).toBeHidden();

  // The first class is kept, under a name that is filled in.
  await teacher.getByRole('button', { name: 'End class' }).click();
  await expect(teacher.getByLabel('Title or theme')).toHaveValue('bridges');
  await expect(teacher.getByLabel('Date and time')).toHaveValue(/^\d+ \w+ \d{4}, \d\d:\d\d$/);
  await expect(teacher.getByText('4 marks on 2 pages')).toBeVisible();
  await teacher.getByLabel('Class', { exact: true }).fill('Form 8, first');
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  await expect(wren.getByText('This class has ended')).toBeVisible();

  // The second finds the lesson as it was prepared.
  const second = await teacher.context().newPage();
  await teacher.close();
  await second.goto('/');
  await openLesson(second, 'bridges');
  await surfaceShown(second);
  await startClass(second);
  await expectMarks(second, 0);
  await second.keyboard.press('PageDown');
  await expect.poll(() => covered(second)).toBe(1);
  await second.keyboard.press('p');
  await draw(second, wave(100, 500));
  await expectMarks(second, 3);

  // Neither a closed tab nor a power cut lose anything of it.
  const third = await second.context().newPage();
  await second.close();
  await server.kill();
  await server.run();
  await third.goto('/');
  await third.getByRole('link', { name: /is still open/ }).click();
  await on(third, 2);
  await surfaceShown(third);
  await expectMarks(third, 3);
  await server.kill();
  await draw(third, wave(100, 600));
  await expect(third.getByText(/No connection/)).toBeVisible();
  await server.run();
  await expectMarks(third, 4);
  await third.getByRole('button', { name: 'End class' }).click();
  await expect(third.getByText('2 marks on 1 page')).toBeVisible();
  // The group that was taught last is filled in.
  await expect(third.getByLabel('Class', { exact: true })).toHaveValue('Form 8, first');
  await third.getByLabel('Class', { exact: true }).fill('Form 8, second');
  await third.getByRole('button', { name: 'Drop and end' }).click();
  await third.waitForURL(/\/lesson\//);

  // Dropped, brought back, compared.
  await third.getByRole('button', { name: 'Classes (2)' }).click();
  await third.getByRole('button', { name: 'Bring back' }).click();
  await expect(third.getByRole('button', { name: 'Bring back' })).toBeHidden();
  for (const button of await third.getByRole('button', { name: 'Compare', exact: true }).all())
    await button.click();
  await third.getByRole('button', { name: 'Compare the two' }).click();
  await expect(third.getByRole('region', { name: /^Form 8, first, bridges/ })).toBeVisible();
  await expect(third.getByTestId('stage')).toHaveCount(2);
  await third.getByRole('link', { name: 'Back to the lesson' }).click();
  await surfaceShown(third);
  await third.getByRole('button', { name: 'Classes (2)' }).click();
  const kept = third.getByRole('listitem').filter({ hasText: 'Form 8, first' });
  await kept.getByRole('button', { name: 'Look' }).click();
  await surfaceShown(third);
  for (const [n, marks] of [
    [1, 1],
    [2, 2],
    [3, 3],
    [4, 0],
  ] as const) {
    await third.getByRole('button', { name: 'Show all pages' }).click();
    await third
      .getByRole('navigation', { name: 'Pages' })
      .getByRole('button', { name: `Page ${n}`, exact: true })
      .click();
    await third.getByRole('button', { name: 'Show all pages' }).click();
    await expectMarks(third, marks);
  }
});

test('a small window over other programs turns pages and sets pens and time', async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await startClass(teacher);
  const opened = teacher.context().waitForEvent('page');
  await teacher.getByRole('button', { name: 'A small window over other programs' }).click();
  const helper = await opened;
  await helper.getByRole('button', { name: 'Next page', exact: true }).click();
  await expect(teacher.getByLabel('Page 2 of 2')).toBeVisible();
  await helper.getByRole('button', { name: 'Pens down: let them write' }).click();
  await expect(teacher.getByRole('button', { name: /^Pens up/ })).toBeVisible();
  await helper.getByRole('button', { name: 'Grab a picture onto the next page' }).click();
  await expect(teacher.getByLabel('Page 3 of 3')).toBeVisible();
  await helper.getByRole('button', { name: /^Three minutes/ }).click();
  await expect(teacher.getByRole('timer')).toBeVisible();
});

test('marks of a class are kept in the lesson, and that can be undone', async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await startClass(teacher);
  await teacher.keyboard.press('p');
  await draw(teacher, wave(100, 120));
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Keep this in the lesson' }).click();
  await expect(teacher.getByText('Every class that is started on this lesson sees this now.')).toBeVisible();
  await expectMarks(teacher, 1);

  // Going back asks, and leads back into the same class.
  const { pathname } = new URL(teacher.url());
  await teacher.goBack();
  await teacher.getByRole('button', { name: 'Stay' }).click();
  expect(new URL(teacher.url()).pathname).toBe(pathname);
  await teacher.getByRole('link', { name: 'Back to the lesson' }).click();
  await teacher.getByRole('button', { name: 'Leave it going on' }).click();
  await expect(teacher.getByText('Preparing')).toBeVisible();
  await surfaceShown(teacher);
  await expectMarks(teacher, 1);
  await teacher.getByRole('button', { name: 'Go on with class' }).click();
  await expect(teacher.getByText('In class', { exact: true })).toBeVisible();
  expect(new URL(teacher.url()).pathname).toBe(pathname);
});

test('a page is uncovered line by line and from its sides, and a region fills the screen with one step back', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('b');
  const sheet = wren.getByTestId('cover');
  await expect(sheet).toBeVisible();
  const whole = (await sheet.boundingBox())!;
  await teacher.getByRole('button', { name: 'Next line' }).click();
  await expect.poll(async () => (await sheet.boundingBox())!.y).toBeGreaterThan(whole.y + 20);
  // The heading is free now, the drawing under it is not: its frame begins at about a third of the page.
  const { y } = (await sheet.boundingBox())!;
  expect(y).toBeLessThan(whole.y + whole.height * 0.33);
  const right = (await teacher.getByRole('button', { name: 'Draw back from the right' }).boundingBox())!;
  await teacher.mouse.move(right.x + 22, right.y + 22);
  await teacher.mouse.down();
  await teacher.mouse.move(right.x - 78, right.y + 22, { steps: 3 });
  await teacher.mouse.up();
  await expect.poll(async () => (await sheet.boundingBox())!.width).toBeLessThan(whole.width - 80);
  await teacher.getByRole('button', { name: 'Draw back from the left' }).focus();
  await teacher.keyboard.press('ArrowRight');
  await expect.poll(async () => (await sheet.boundingBox())!.x).toBeGreaterThan(whole.x + 5);
  await teacher.keyboard.press('Escape');
  await expect(sheet).toBeHidden();

  const usual = (await stageState(wren)).scale;
  await teacher.keyboard.press('z');
  await draw(teacher, [
    [100, 300],
    [300, 420],
  ]);
  await expect.poll(async () => (await stageState(wren)).scale).toBeGreaterThan(usual * 2);
  await teacher.getByRole('button', { name: 'Back to the page' }).click();
  await expect.poll(async () => (await stageState(wren)).scale).toBeCloseTo(usual, 3);
});

test('pointing leaves nothing behind; students point and write wisps only when let', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('d');
  await teacher.mouse.move(...(await at(teacher, 200, 300)));
  await expect.poll(async () => (await stageState(wren)).pointing[0]?.x).toBeCloseTo(200, 0);
  expect((await stageState(wren)).pointing[0]!.y).toBeCloseTo(300, 0);
  await teacher.keyboard.press('i');
  await draw(teacher, wave(100, 500));
  await expect.poll(async () => (await stageState(wren)).wet).toBe(1);
  await expect.poll(async () => (await stageState(wren)).wet).toBe(0);
  await expectMarks(teacher, 0);

  await expect(wren.getByRole('button', { name: 'Point', exact: true })).toBeDisabled();
  await forStudent(teacher, 'Wren', 'May point');
  await expect(wren.getByRole('button', { name: 'Point', exact: true })).toBeEnabled();
  await wren.keyboard.press('d');
  await wren.mouse.move(...(await at(wren, 320, 240)));
  await expect
    .poll(async () => (await stageState(teacher)).pointing.map(({ x }) => Math.round(x)))
    .toContain(320);
  await wren.keyboard.press('p');
  await draw(wren, wave(100, 100));
  await expectMarks(wren, 0);
});
