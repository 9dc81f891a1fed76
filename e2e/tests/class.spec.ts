import type { Page } from '@playwright/test';
import jsQR from 'jsqr';
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
import { OutsideReader, plainPdf } from '../support/pdfs';
import { draw, drawAndRest, expectMarks, stageState, typeAt, wave } from '../support/stage';
import { makeHandout } from '../support/handout';

test(
  'a teacher and two students write at once, the server dies in the middle, and nothing is lost',
  { tag: '@plain' },
  async ({ browser, server, teacher }) => {
    await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
    await draw(teacher, wave(80, 500));
    await expectMarks(teacher, 1);

    const code = await startClass(teacher);
    await penState(teacher, true);
    const wren = await joinAs(browser, server.url, code, 'Wren');
    const tove = await joinAs(browser, server.url, code, 'Tove', { width: 390, height: 844 });
    await expect(teacher.getByRole('button', { name: 'Students: 2' })).toBeVisible();

    // All three pens are down at the same time.
    await Promise.all([
      drawAndRest(teacher, wave(100, 200)),
      drawAndRest(wren, wave(100, 400)),
      drawAndRest(tove, wave(100, 600)),
    ]);
    for (const page of [teacher, wren, tove])
      await expect.poll(() => wetColours(page)).toBeGreaterThanOrEqual(3);
    await Promise.all([teacher.mouse.up(), wren.mouse.up(), tove.mouse.up()]);
    for (const page of [teacher, wren, tove]) await expectMarks(page, 4);
    const { marks } = await stageState(teacher);
    expect(new Set(marks.slice(1).map(({ author }) => author)).size).toBe(3);
    expect(new Set(marks.slice(1).map(({ colour }) => colour)).size).toBe(3);

    // What is drawn while the server is dead waits, and joins in when it is back.
    await server.kill();
    await expect(wren.getByText('No connection.')).toBeVisible();
    await draw(wren, wave(300, 400));
    await draw(teacher, wave(300, 200));
    await expect.poll(async () => (await stageState(wren)).waiting).toBe(1);
    await server.run();
    for (const page of [teacher, wren, tove]) await expectMarks(page, 6);
    await typeAt(teacher, 100, 800, 'Typed after the restart');
    for (const page of [teacher, wren, tove]) await expectMarks(page, 7);

    // Students turn with the teacher; the next page is clean, and going back shows everything.
    await teacher.keyboard.press('PageDown');
    for (const page of [teacher, wren, tove]) await expectMarks(page, 0);
    await teacher.keyboard.press('ArrowLeft');
    for (const page of [teacher, wren, tove]) await expectMarks(page, 7);

    // A reload comes back to the same place, on both sides.
    await wren.reload();
    await surfaceShown(wren);
    await expectMarks(wren, 7);
    await teacher.reload();
    await surfaceShown(teacher);
    await expectMarks(teacher, 7);

    const handout = new OutsideReader(await makeHandout(teacher));
    handout.check();
    expect(handout.text(1)).toContain('Bridges, sheet 1');
    expect(handout.text(1)).toContain('Typed after the restart');
    const inked = handout.picture(1, 1123);
    for (const [x, y] of [
      [160, 500],
      [160, 200],
      [160, 400],
      [160, 600],
      [360, 400],
      [360, 200],
    ] as const) {
      expect(darkNear(inked, x, y), `ink at ${x}, ${y}`).toBe(true);
    }
    expect(darkNear(inked, 600, 150)).toBe(false);
  },
);

/** How many colours of ink are being drawn on this screen right now. */
function wetColours(page: Page): Promise<number> {
  return page.locator('canvas[data-layer=wet]').evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    const seen = new Map<string, number>();
    for (let i = 0; i < data.length; i += 4) {
      const colour = [...data.subarray(i, i + 3)].join();
      if (data[i + 3] === 255) seen.set(colour, (seen.get(colour) ?? 0) + 1);
    }
    return [...seen.values()].filter((count) => count > 10).length;
  });
}

/** Whether anything is drawn within 20 pixels above or below a place. */
function darkNear(picture: PNG, x: number, y: number): boolean {
  for (let row = y - 20; row <= y + 20; row++) {
    const at = (row * picture.width + x) * 4;
    if (Math.min(...picture.data.subarray(at, at + 3)) < 170) return true;
  }
  return false;
}

test('pens down stops students at once, says so, and pens up lets them write again', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await expect(wren.getByText('Pens down')).toBeVisible();
  await expect(wren.getByRole('button', { name: 'Pen', exact: true })).toBeDisabled();
  await draw(wren, wave(100, 300));
  await expectMarks(wren, 0);
  await penState(teacher, true);
  await expect(wren.getByText('Pens up')).toBeVisible();
  await draw(wren, wave(100, 300));
  await expectMarks(teacher, 1);

  // A stroke that is on its way when the pens go down is taken back with a sentence.
  await drawAndRest(wren, wave(100, 500));
  await penState(teacher, false);
  await expect(wren.getByText('Pens down')).toBeVisible();
  await wren.mouse.up();
  await expect(wren.getByText('your teacher has stopped writing')).toBeVisible();
  await expectMarks(wren, 1);
});

test('each undoes only what is their own, and the eraser of a student leaves the marks of others', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(teacher, wave(100, 200));
  await expectMarks(wren, 1);
  await draw(wren, wave(100, 400));
  await expectMarks(teacher, 2);
  await teacher.keyboard.press('Control+z');
  await expectMarks(wren, 1);
  await teacher.keyboard.press('Control+y');
  await expectMarks(wren, 2);

  await wren.keyboard.press('e');
  await draw(wren, [
    [160, 150],
    [160, 450],
  ]);
  await expectMarks(teacher, 1);
  await wren.getByRole('button', { name: 'Undo' }).click();
  await expectMarks(teacher, 2);
  await wren.reload();
  await surfaceShown(wren);
  await wren.keyboard.press('Control+z');
  await expectMarks(teacher, 1);

  await teacher.keyboard.press('e');
  await draw(teacher, [
    [160, 150],
    [160, 250],
  ]);
  await expectMarks(wren, 0);
});

test('the QR shows the join link, and the end of the class ends the writing', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await teacher.getByRole('button', { name: 'Start class' }).click();
  const qr = teacher.getByRole('img', { name: /QR code/ });
  const source = await qr.getAttribute('src');
  const png = PNG.sync.read(Buffer.from(source!.split(',')[1]!, 'base64'));
  const link = jsQR(new Uint8ClampedArray(png.data), png.width, png.height)?.data;
  const code = (await teacher.getByTestId('join-code').innerText()).replace(/\s/g, '');
  expect(link).toBe(`${server.url}/join/${code}`);
  await teacher.getByRole('button', { name: 'Close' }).click();
  await penState(teacher, true);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(wren, wave(100, 400));
  await expectMarks(teacher, 1);

  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  await expect(wren.getByText('This class has ended')).toBeVisible();
  await wren.getByRole('button', { name: 'Next page' }).click();
  await expect(wren.getByText('Page 2', { exact: true })).toBeVisible();
  await wren.getByRole('button', { name: 'Previous page' }).click();
  await surfaceShown(teacher);
  await expectMarks(teacher, 0);

  await teacher.getByRole('button', { name: /Classes/ }).click();
  await teacher.getByRole('button', { name: 'Look' }).click();
  await surfaceShown(teacher);
  await expectMarks(teacher, 1);
});

test('a student comes back to their own place by browser back, and from a closed tab', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await expect(wren.getByText('Pens up').first()).toBeVisible();
  await draw(wren, wave(80, 120));
  await expectMarks(teacher, 1);
  await wren.goBack();
  await expect(wren.getByLabel('Your name')).toBeVisible();
  await wren.getByLabel('Class code').fill(code);
  await wren.getByLabel('Your name').fill('Wren');
  await wren.getByRole('button', { name: 'Go in' }).click();
  await surfaceShown(wren);
  await expectMarks(wren, 1);
  const again = await wren.context().newPage();
  await wren.close();
  await again.goto(`/join/${code}`);
  await expect(again.getByLabel('Your name')).toHaveValue('Wren');
  await again.getByRole('button', { name: 'Go in' }).click();
  await surfaceShown(again);
  await expectMarks(again, 1);
  await expect(teacher.getByRole('button', { name: 'Students: 1' })).toBeVisible();
});

test('wrong codes are told in a sentence, and who has the name of somebody here comes in by the teacher’s nod', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startClass(teacher);
  await joinAs(browser, server.url, code, 'Wren');
  const page = await (await browser.newContext({ baseURL: server.url })).newPage();
  await page.goto('/join');
  await page.getByLabel('Class code').fill('CCCCCC');
  await page.getByLabel('Your name').fill('Tove');
  await page.getByRole('button', { name: 'Go in' }).click();
  await expect(page.getByRole('alert')).toContainText('no class with this code');
  await page.getByLabel('Class code').fill(code);
  await page.getByLabel('Your name').fill('wren');
  await page.getByRole('button', { name: 'Go in' }).click();
  await expect(page.getByText('Somebody called wren is in this class.')).toBeVisible();
  await teacher.getByText('Is it Wren?').waitFor();
  await teacher.getByRole('button', { name: 'Let in' }).click();
  await page.waitForURL(/\/class\//);
  await expect(teacher.getByText('Is it Wren?')).toBeHidden();
  await page.goto('/class/00000000-0000-4000-8000-000000000000');
  await expect(page.getByText('You are not in this class')).toBeVisible();
});
