import { PDFDocument } from '@cantoo/pdf-lib';
import type { Page } from '@playwright/test';
import { expectReachable } from '../support/controls';
import { SIZES } from '../support/sizes';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';

/** Those and a tablet's half, and 1280 × 800 and 1280 × 1024 at 200 and 400 % (WCAG 2.2, 1.4.10). */
const ALL_SIZES = [...SIZES, [700, 900], [640, 400], [320, 256]] as const;

/** The part of the window that a page of ISO 216 (sides 1 to √2) takes, in its larger direction. */
async function pageShare(page: Page): Promise<number> {
  const { width, scale } = await stageState(page);
  const window = page.viewportSize()!;
  return Math.max((width * scale) / window.width, (width * scale * Math.SQRT2) / window.height);
}

test('everything that is shown can be reached on every size of screen, by a student and by the teacher', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  for (const [width, height] of ALL_SIZES) {
    for (const page of [wren, teacher]) {
      await page.setViewportSize({ width, height });
      await expect.poll(() => page.getByRole('toolbar', { name: 'Tools' }).count()).toBe(1);
      await expectReachable(page);
    }
  }
  await teacher.goto('/');
  await teacher.getByRole('heading', { name: 'Your lessons' }).waitFor();
  for (const [width, height] of ALL_SIZES) {
    await teacher.setViewportSize({ width, height });
    await expectReachable(teacher);
  }
});

test.describe('on a phone', () => {
  for (const [width, height] of [
    [320, 640],
    [390, 844],
    [844, 390],
  ] as const) {
    test(`of ${width} × ${height} all that a student may do is one tap away`, async ({
      browser,
      server,
      teacher,
    }) => {
      await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
      const code = await startWriting(teacher);
      const wren = await joinAs(browser, server.url, code, 'Wren', { width, height });
      await surfaceShown(wren);
      await expect.poll(() => pageShare(wren)).toBeGreaterThan(0.6);
      for (const tool of ['Pen', 'Highlighter', 'Eraser', 'Text'])
        await expect(wren.getByRole('button', { name: tool, exact: true })).toBeVisible();
      for (const opener of [/^Colour and options/, 'More tools', 'The page']) {
        await wren.getByRole('button', { name: opener }).click();
        await expect(wren.getByRole('dialog')).toBeVisible();
        await expectReachable(wren);
        await wren.keyboard.press('Escape');
        await expect(wren.getByRole('dialog')).toBeHidden();
      }
      await wren.getByRole('button', { name: 'More tools' }).click();
      await wren.getByRole('dialog').getByRole('button', { name: 'Line', exact: true }).click();
      await expect(wren.getByRole('dialog')).toBeHidden();
      await draw(wren, [
        [80, 120],
        [220, 200],
      ]);
      await expectMarks(teacher, 1);
      await wren.getByRole('button', { name: 'Undo', exact: true }).click();
      await expectMarks(teacher, 0);
    });
  }

  test('options go at the first stroke, which counts, and letters are typed at a size that can be read', async ({
    browser,
    server,
    teacher,
  }) => {
    await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
    const code = await startWriting(teacher);
    const wren = await joinAs(browser, server.url, code, 'Wren', { width: 390, height: 844 });
    await surfaceShown(wren);
    await wren.getByRole('button', { name: /^Colour and options/ }).click();
    await expect(wren.getByRole('dialog')).toBeVisible();
    await draw(wren, wave(100, 100));
    await expect(wren.getByRole('dialog')).toBeHidden();
    await expectMarks(teacher, 1);

    const { scale } = await stageState(wren);
    await wren.getByRole('button', { name: 'Text', exact: true }).click();
    await wren.mouse.click(...(await at(wren, 200, 300)));
    const box = wren.getByLabel('Text on the page');
    await expect(box).toBeFocused();
    const seen = () =>
      box.evaluate((element) => {
        const line = element.querySelector('p')!;
        const { height } = line.getBoundingClientRect();
        return (height / line.offsetHeight) * parseFloat(getComputedStyle(line).fontSize);
      });
    await expect.poll(seen).toBeGreaterThanOrEqual(15.9);
    await wren.keyboard.type('Pier');
    await expect(box).toHaveText('Pier');
    await wren.keyboard.press('Escape');
    await expectMarks(teacher, 2);
    await expect.poll(async () => (await stageState(wren)).scale).toBeCloseTo(scale, 3);
  });

  test('a wide page says once that it is larger on a phone that lies', async ({
    browser,
    server,
    teacher,
  }) => {
    const slides = await PDFDocument.create();
    slides.addPage([960, 540]);
    await bringIn(teacher, { name: 'slides.pdf', bytes: await slides.save() });
    const code = await startWriting(teacher);
    const touch = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
    const wren = await (await browser.newContext({ baseURL: server.url, ...touch })).newPage();
    await wren.goto(`/join/${code}`);
    await wren.getByLabel('Your name').fill('Wren');
    await wren.getByRole('button', { name: 'Go in' }).tap();
    const tip = wren.getByText('Turn your phone sideways');
    await expect(tip).toBeVisible();
    await wren.setViewportSize({ width: 844, height: 390 });
    await expect(tip).toBeHidden();
    await wren.setViewportSize({ width: 390, height: 844 });
    await wren.getByRole('button', { name: 'Close this tip' }).tap();
    await wren.reload();
    await surfaceShown(wren);
    await expect(wren.getByRole('toolbar', { name: 'Tools' })).toBeVisible();
    await expect(tip).toBeHidden();
  });
});
