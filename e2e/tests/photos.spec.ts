import type { Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { findings } from '../support/axe';
import type { Film } from '../support/films';
import { probedFilm } from '../support/films';
import { bringIn, expect, joinAs, startClass, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';

/** What ffprobe says of the video that a page plays, and its address; not of the one that it played before. */
async function videoOn(page: Page, before = ''): Promise<Film & { address: string }> {
  const source = () => page.locator('video').evaluate((video: HTMLVideoElement) => video.currentSrc);
  await expect.poll(async () => ['', before].includes(await source())).toBe(false);
  const address = await source();
  const bytes = await page.evaluate(async (from) => {
    const response = await fetch(from);
    return [...new Uint8Array(await response.arrayBuffer())];
  }, address);
  const path = test.info().outputPath('video.mp4');
  writeFileSync(path, Buffer.from(bytes));
  return { ...probedFilm(path), address };
}
test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('a photo of a worksheet becomes a straight page', async ({ teacher }) => {
  const photo = new PNG({ width: 400, height: 300 });
  for (let y = 0; y < 300; y++) {
    for (let x = 0; x < 400; x++) {
      const sheet = x > 60 + y / 10 && x < 340 - y / 12 && y > 40 && y < 260;
      const line = sheet && y % 40 < 4;
      photo.data.set(
        line ? [50, 50, 60, 255] : sheet ? [190, 185, 170, 255] : [70, 50, 40, 255],
        (y * 400 + x) * 4,
      );
    }
  }
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A photo of a worksheet' }).click();
  await teacher
    .getByLabel('Choose a photo')
    .setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: PNG.sync.write(photo) });
  const corner = (name: string) => teacher.getByRole('button', { name: `${name} corner of the paper` });
  const box = (await teacher.locator('[role=dialog] canvas').boundingBox())!;
  const spots = {
    'Upper left': [64, 41],
    'Upper right': [336, 41],
    'Lower right': [318, 259],
    'Lower left': [86, 259],
  };
  for (const [name, [x, y]] of Object.entries(spots)) {
    await corner(name).hover();
    await teacher.mouse.down();
    await teacher.mouse.move(box.x + (x! / 400) * box.width, box.y + (y! / 300) * box.height, { steps: 4 });
    await teacher.mouse.up();
  }
  await corner('Upper left').focus();
  await teacher.keyboard.press('ArrowRight');
  await teacher.getByRole('button', { name: 'Make a page of it' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await surfaceShown(teacher);
  const seen = async (x: number, y: number) => {
    const [px, py] = await at(teacher, x, y);
    const shot = PNG.sync.read(await teacher.screenshot());
    const i = (Math.round(py) * shot.width + Math.round(px)) * 4;
    return shot.data[i]!;
  };
  // Near its corners there is only white paper; the table is gone.
  for (const [x, y] of [
    [30, 60],
    [900, 60],
    [30, 700],
    [900, 700],
  ] as const)
    await expect.poll(() => seen(x, y)).toBeGreaterThan(200);
});

test('a camera is shown, and a region of it is grabbed onto a page', async ({ browser, server, teacher }) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'The camera' }).click();
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBeTruthy();
  await teacher.getByRole('button', { name: 'Stop showing' }).click();
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A camera to practise with' }).click();
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBeTruthy();
  await teacher.getByRole('button', { name: 'Turn the picture' }).click();
  await expect
    .poll(() =>
      wren.evaluate(
        () =>
          (window as unknown as { doodla: { screen: { canvas: HTMLCanvasElement } } }).doodla.screen.canvas
            .height,
      ),
    )
    .toBe(1280);
  await teacher.getByRole('button', { name: 'Closer' }).click();
  await expect(teacher.getByRole('button', { name: 'Farther' })).toBeEnabled();
  await teacher.getByRole('button', { name: 'A picture again and again' }).click();
  await teacher
    .getByRole('group', { name: 'Each onto a page' })
    .getByRole('menuitem', { name: 'Every 5 minutes' })
    .click();
  await expect(teacher.getByLabel(/^Page \d of 5$/)).toBeVisible();
  await teacher.getByRole('button', { name: 'Stop taking pictures' }).click();
  await teacher.keyboard.press('g');
  const picture = teacher.getByRole('img', { name: 'What is grabbed' });
  const box = (await picture.boundingBox())!;
  await teacher.mouse.move(box.x + box.width * 0.25, box.y + box.height * 0.25);
  await teacher.mouse.down();
  await teacher.mouse.move(box.x + box.width * 0.75, box.y + box.height * 0.75, { steps: 3 });
  await teacher.mouse.up();
  await teacher.getByRole('button', { name: 'Onto a new page' }).click();
  await expect(picture).toBeHidden();
  await surfaceShown(teacher);
  await teacher.keyboard.press('g');
  await teacher.getByRole('button', { name: 'Onto this page' }).click();
  await expect(picture).toBeHidden();
  await expectMarks(wren, 1);
  expect((await stageState(wren)).marks[0]!.kind).toBe('picture');
  await teacher.keyboard.press('g');
  const download = teacher.waitForEvent('download');
  await teacher.getByRole('button', { name: 'Save' }).click();
  expect((await download).suggestedFilename()).toMatch(/^grab-.*\.png$/);
});

test('what a camera shows is recorded as a video page, and so are pictures that are taken again and again', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A camera to practise with' }).click();
  const bar = teacher.getByRole('group', { name: 'Shown screen' });
  await bar.getByRole('button', { name: 'Record a video' }).click();
  await teacher.getByRole('menuitem', { name: 'Without sound' }).click();
  await expect(bar.getByRole('timer')).toHaveText('0:02 of 10 minutes');
  await bar.getByRole('button', { name: 'Stop the video' }).click();
  const show = teacher.getByRole('button', { name: 'Show it' });
  await show.click();
  const film = await videoOn(teacher);
  expect(film.duration).toBeGreaterThan(1.8);
  expect(film.duration).toBeLessThan(20);

  await bar.getByRole('button', { name: 'Back to it' }).click();
  await expect(bar.getByRole('button', { name: 'Back to it' })).toBeHidden();
  await bar.getByRole('button', { name: 'A picture again and again' }).click();
  await teacher
    .getByRole('group', { name: 'All into a video' })
    .getByRole('menuitem', { name: 'Every 5 seconds' })
    .click();
  await expect(bar.getByRole('button', { name: 'Stop taking pictures' })).toBeVisible();
  // What was taken is kept also where the camera is not shown any more.
  await bar.getByRole('button', { name: 'Stop showing' }).click();
  await show.click();
  const lapse = await videoOn(teacher, film.address);
  expect(Math.round(lapse.duration * 10)).toBeGreaterThanOrEqual(1);
  expect(lapse.duration).toBeLessThan(1);
  for (const { streams, size } of [film, lapse]) {
    expect(streams).toEqual({ video: 'h264' });
    expect(size).toEqual([1280, 720]);
  }
  // It is the class's page too.
  await expect(wren.locator('video')).toBeAttached();
});

test('a video of a camera with what is said survives its window', async ({ teacher }) => {
  await startClass(teacher);
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A camera to practise with' }).click();
  const bar = teacher.getByRole('group', { name: 'Shown screen' });
  await bar.getByRole('button', { name: 'Record a video' }).click();
  await teacher.getByRole('menuitem', { name: 'With what the microphone hears' }).click();
  await expect(bar.getByRole('timer')).toHaveText('0:04 of 10 minutes');
  const address = teacher.url();
  await teacher.goto('about:blank');
  await teacher.goto(address);
  const left = teacher.getByRole('region', { name: 'A video was broken off' });
  await expect(left).toContainText(/was broken off after 0:0[34]/);
  expect(await findings(teacher)).toEqual([]);
  const [download] = await Promise.all([
    teacher.waitForEvent('download'),
    left.getByRole('button', { name: 'Save the file' }).click(),
  ]);
  await expect(left).toBeHidden();
  const film = probedFilm(await download.path());
  expect(film.streams).toEqual({ video: 'vp9', audio: 'opus' });
  expect(film.duration).toBeGreaterThan(2.5);
  expect(film.duration).toBeLessThan(8);
  await teacher.reload();
  await surfaceShown(teacher);
  await expect(left).toBeHidden();

  // And one that is stopped by hand is on its page, with its sound.
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A camera to practise with' }).click();
  await bar.getByRole('button', { name: 'Record a video' }).click();
  await teacher.getByRole('menuitem', { name: 'With what the microphone hears' }).click();
  await expect(bar.getByRole('timer')).toHaveText('0:02 of 10 minutes');
  await bar.getByRole('button', { name: 'Stop the video' }).click();
  await teacher.getByRole('button', { name: 'Show it' }).click();
  expect((await videoOn(teacher)).streams).toEqual({ video: 'vp9', audio: 'opus' });
});

test('a picture as phones take it, HEIC, is put on the page in its own colours', async ({ teacher }) => {
  // Made by libheif's heif-enc from a picture whose left half is red and whose right half is blue.
  await teacher.getByLabel('Choose pictures').setInputFiles('support/files/two-colours.heic');
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('p');
  const { bounds } = (await stageState(teacher)).marks[0]!;
  const shot = PNG.sync.read(await teacher.screenshot());
  for (const [part, colour] of [
    [0.25, [208, 32, 32]],
    [0.75, [32, 64, 208]],
  ] as const) {
    const [x, y] = await at(teacher, bounds.x + bounds.width * part, bounds.y + bounds.height / 2);
    const i = (Math.round(y) * shot.width + Math.round(x)) * 4;
    colour.forEach((value, k) => expect(Math.abs(shot.data[i + k]! - value)).toBeLessThan(24));
  }
});

test('a picture of a hundred megapixels is refused before it is decoded, and nothing is lost', async ({
  teacher,
}) => {
  await teacher.keyboard.press('p');
  await draw(teacher, wave(100, 200));
  // Signature and IHDR of a PNG that claims 12,000 × 9,000 pixels (W3C PNG §5.2, §11.2.1).
  const head = Buffer.from('89504e470d0a1a0a0000000d4948445200002ee0000023280806000000', 'hex');
  await teacher.getByLabel('Choose pictures').setInputFiles({
    name: 'huge.png',
    mimeType: 'image/png',
    buffer: Buffer.concat([head, Buffer.alloc(64)]),
  });
  await expect(teacher.getByText('This picture is too large to be shown')).toBeVisible();
  await expectMarks(teacher, 1);
});
