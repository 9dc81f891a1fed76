import type { Page } from '@playwright/test';
import { bringIn, expect, joinAs, startClass, test } from '../support/fixtures';
import { filmHere } from '../support/films';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

/** All colours, one after the other. */
const COLOURS = Array.from({ length: 50 }, (_, i) => `hsl(${i * 12} 70% 50%)`);

const playing = (page: Page) =>
  page.evaluate(() => {
    const video = document.querySelector('video')!;
    return { paused: video.paused, time: video.currentTime };
  });

test('a video is played in step for all, held by writing, and what is written keeps its frame', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const bytes = await filmHere(teacher, 5, COLOURS);
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A sound or video file' }).click();
  const chooser = teacher.getByLabel('Choose a recording');
  await chooser.setInputFiles({ name: 'notes.mp4', mimeType: 'video/mp4', buffer: Buffer.from('no film') });
  await expect(teacher.getByRole('alert')).toContainText('cannot play this file');
  await chooser.setInputFiles({ name: 'crossing.webm', mimeType: 'video/webm', buffer: bytes });
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await teacher.getByRole('slider', { name: 'Place in the recording' }).fill('0.5');
  for (const page of [teacher, wren])
    await expect.poll(async () => (await playing(page)).time).toBeCloseTo(0.5, 1);
  // The film is as wide as its page, also on a phone.
  await wren.setViewportSize({ width: 390, height: 844 });
  for (const page of [teacher, wren])
    await expect
      .poll(async () => {
        const { width, scale, x } = await stageState(page);
        const box = (await page.locator('video').boundingBox())!;
        return [Math.round(box.x - x), Math.round(box.width - width * scale)];
      })
      .toEqual([0, 0]);
  expect((await stageState(wren)).width * (await stageState(wren)).scale).toBeGreaterThan(300);
  await teacher.getByRole('button', { name: 'Play the recording' }).click();
  await expect.poll(async () => (await playing(wren)).paused).toBe(false);
  await teacher.keyboard.press('p');
  await draw(teacher, wave(200, 200));
  for (const page of [teacher, wren]) await expect.poll(async () => (await playing(page)).paused).toBe(true);
  await expect
    .poll(async () => Math.abs((await playing(teacher)).time - (await playing(wren)).time))
    .toBeLessThan(0.1);
  await expectMarks(wren, 1);
  await teacher.getByRole('button', { name: 'Play the recording' }).click();
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();
  await expectMarks(wren, 0);
  await teacher.keyboard.press('PageDown');
  await expectMarks(wren, 1);
});
