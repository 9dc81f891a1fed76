import type { Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { pageOnScreen } from '../support/pictures';
import { expectMarks, stageState } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('pictures are chosen, dropped and pasted, cropped, and come out in the PDF', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const picture = new PNG({ width: 60, height: 40 });
  for (let i = 0; i < picture.data.length; i += 4) picture.data.set([200, 40, 120, 255], i);
  const buffer = PNG.sync.write(picture);
  await teacher.getByLabel('Choose pictures').setInputFiles([
    { name: 'a.png', mimeType: 'image/png', buffer },
    {
      name: 'b.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="50"><script>alert(1)</script><rect width="80" height="50" fill="#0072b2"/></svg>',
      ),
    },
  ]);
  await expectMarks(wren, 2);
  const pink = async (page: Page) => {
    const screen = await pageOnScreen(page, 794, 1123);
    return countPink(screen) / screen.width;
  };
  await expect.poll(() => pink(wren)).toBeGreaterThan(0.5);
  const handout = new OutsideReader(await makeHandout(teacher));
  handout.check();
  expect(countPink(handout.picture(1, 1123))).toBeGreaterThan(500);
  await wren.getByLabel('Choose pictures').setInputFiles({ name: 'c.png', mimeType: 'image/png', buffer });
  await expectMarks(teacher, 3);
  await teacher
    .getByLabel('Choose pictures')
    .setInputFiles({ name: 'd.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(teacher.getByText('not a picture that can be shown')).toBeVisible();
});

function countPink(picture: PNG): number {
  let count = 0;
  for (let i = 0; i < picture.data.length; i += 4) {
    if (picture.data[i]! > 170 && picture.data[i + 1]! < 70 && picture.data[i + 2]! > 90) count += 1;
  }
  return count;
}

test('a picture is cropped by dragging its sides, by mouse and keys, and what was cut off comes back', async ({
  teacher,
}) => {
  const picture = new PNG({ width: 200, height: 100 });
  for (let i = 0; i < picture.data.length; i += 4) picture.data.set([200, 40, 120, 255], i);
  await teacher
    .getByLabel('Choose pictures')
    .setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: PNG.sync.write(picture) });
  await expectMarks(teacher, 1);
  const bounds = async () => (await stageState(teacher)).marks[0]!.bounds;
  const whole = await bounds();
  await teacher.getByRole('button', { name: 'Crop', exact: true }).click();
  const drag = async (side: string, dx: number, dy: number) => {
    const { x, y, width, height } = (await teacher
      .getByRole('button', { name: `Cut from the ${side}`, exact: true })
      .boundingBox())!;
    await teacher.mouse.move(x + width / 2, y + height / 2);
    await teacher.mouse.down();
    await teacher.mouse.move(x + width / 2 + dx, y + height / 2 + dy, { steps: 4 });
    await teacher.mouse.up();
  };
  const { scale } = await stageState(teacher);
  await drag('left', 50, 0);
  await expect.poll(async () => (await bounds()).x).toBeCloseTo(whole.x + 50 / scale, 0);
  await drag('lower right', -20, -30);
  await expect.poll(async () => (await bounds()).height).toBeCloseTo(whole.height - 30 / scale, 0);
  // What stays in sight has not moved.
  expect((await bounds()).y).toBeCloseTo(whole.y, 1);
  await teacher.getByRole('button', { name: 'Cut from the upper', exact: true }).press('ArrowDown');
  await expect.poll(async () => (await bounds()).y).toBeCloseTo(whole.y + 8, 0);
  await drag('upper left', -300, -300);
  await drag('lower right', 300, 300);
  await expect.poll(async () => (await bounds()).width).toBeCloseTo(whole.width, 1);
  expect((await bounds()).x).toBeCloseTo(whole.x, 1);
  await teacher.getByRole('button', { name: 'Crop', exact: true }).click();
  await expect(teacher.getByRole('button', { name: 'Resize from the left' })).toBeVisible();
});
