import type { CDPSession, Page } from '@playwright/test';
import { bringIn, expect, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, markCount, stageState, typeAt, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(4) });
});

test('pages turn by key, button, clicker and small picture, and come back after a reload', async ({
  teacher,
}) => {
  const on = (n: number) => expect(teacher.getByLabel(`Page ${n} of 4`)).toBeVisible();
  await on(1);
  await teacher.keyboard.press('PageDown');
  await on(2);
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await on(3);
  await teacher.keyboard.press('PageUp');
  await on(2);
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  await teacher
    .getByRole('navigation', { name: 'Pages' })
    .getByRole('button', { name: 'Page 4', exact: true })
    .click();
  await on(4);
  await teacher.keyboard.press('PageDown');
  await expect(teacher.getByText('This is the last page.')).toBeVisible();
  await on(4);
  await teacher.reload();
  await on(4);
});

test('page keys turn pages with any tool in hand, but not inside text', async ({ teacher }) => {
  await teacher.keyboard.press('t');
  await teacher.keyboard.press('PageDown');
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();
  await teacher.mouse.click(...(await at(teacher, 100, 300)));
  await teacher.getByLabel('Text on the page').fill('one line');
  await teacher.keyboard.press('PageDown');
  await teacher.keyboard.press('ArrowLeft');
  await teacher.keyboard.press('h');
  await expect(teacher.getByLabel('Text on the page')).toHaveText('one linhe');
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();
});

test('text that is being typed never swallows the next action: it is finished and kept', async ({
  teacher,
}) => {
  await teacher.keyboard.press('t');
  await teacher.mouse.click(...(await at(teacher, 100, 300)));
  await teacher.keyboard.type('First');
  await teacher.getByRole('button', { name: 'Pen', exact: true }).click();
  await expectMarks(teacher, 1);
  await draw(teacher, wave(100, 500));
  await expectMarks(teacher, 2);
  await teacher.keyboard.press('t');
  await teacher.mouse.click(...(await at(teacher, 120, 300)));
  await expect(teacher.getByLabel('Text on the page')).toHaveText('First');
  await teacher.keyboard.type(' and more');
  await teacher.keyboard.press('Escape');
  const { marks } = await stageState(teacher);
  expect(marks.map(({ text }) => text)).toContain('First and more');
  await typeAt(teacher, 100, 700, '   ');
  await expectMarks(teacher, 2);
});

test('the page is enlarged and moved by wheel and keys, and fits again', async ({ teacher }) => {
  const fitted = await stageState(teacher);
  await teacher.mouse.move(640, 300);
  await teacher.keyboard.down('Control');
  await teacher.mouse.wheel(0, -300);
  await teacher.keyboard.up('Control');
  await expect.poll(async () => (await stageState(teacher)).scale).toBeGreaterThan(fitted.scale * 1.5);
  const enlarged = await stageState(teacher);
  await teacher.mouse.wheel(0, 120);
  await expect.poll(async () => (await stageState(teacher)).y).toBeCloseTo(enlarged.y - 120, 0);
  await teacher.keyboard.press('1');
  await expect.poll(async () => (await stageState(teacher)).scale).toBeCloseTo(1092 / 794, 1);
  await teacher.keyboard.press('0');
  await expect.poll(async () => (await stageState(teacher)).scale).toBeCloseTo(fitted.scale, 5);
});

test('one switch says whether the pointer uses the page or writes on it', async ({ teacher }) => {
  await teacher.keyboard.press('1');
  await teacher.getByRole('button', { name: /^Use the page/ }).click();
  const before = await stageState(teacher);
  await draw(teacher, [
    [300, 300],
    [300, 200],
  ]);
  expect(await markCount(teacher)).toBe(0);
  expect((await stageState(teacher)).y).toBeLessThan(before.y - 50);
  await teacher.keyboard.press('w');
  await draw(teacher, wave(200, 400));
  await expectMarks(teacher, 1);
});

test('the tools move to the other side, fold into one button, and stay so', async ({ teacher }) => {
  const tools = teacher.getByRole('toolbar', { name: 'Tools' });
  expect((await tools.boundingBox())!.x).toBeLessThan(100);
  await teacher.keyboard.press('x');
  await expect.poll(async () => (await tools.boundingBox())!.x).toBeGreaterThan(1000);
  await teacher.keyboard.press('f');
  await expect(tools).toBeHidden();
  await teacher.reload();
  await teacher.getByRole('button', { name: /^Show the tools/ }).click();
  expect((await tools.boundingBox())!.x).toBeGreaterThan(1000);
});

test('the tools stay in the window at every larger size and wherever they are dropped', async ({
  teacher,
}) => {
  const tools = teacher.getByRole('toolbar', { name: 'Tools' });
  const grip = teacher.getByTitle('Drag to move the tools');
  // In smaller windows they are a strip that does not move.
  for (const [width, height, letters] of [
    [1366, 625, 'usual'],
    [820, 1180, 'usual'],
    [1280, 800, 'usual'],
    [1280, 800, 'largest'],
  ] as const) {
    await teacher.setViewportSize({ width, height });
    await teacher.evaluate((size) => localStorage.setItem('doodla.typeSize', size), letters);
    await teacher.reload();
    await surfaceShown(teacher);
    const isInside = async () => {
      const box = (await tools.boundingBox())!;
      return box.x >= 0 && box.y >= 0 && box.x + box.width <= width && box.y + box.height <= height;
    };
    await expect.poll(isInside).toBe(true);
    const at = (await grip.boundingBox())!;
    await teacher.mouse.move(at.x + at.width / 2, at.y + 6);
    await teacher.mouse.down();
    await teacher.mouse.move(width - 220, height - 10, { steps: 4 });
    await teacher.mouse.up();
    await expect.poll(isInside).toBe(true);
  }
});

test('colour and width of the pen are chosen beside the tools', async ({ teacher }) => {
  await teacher.getByRole('button', { name: /^Colour and options/ }).click();
  await teacher.getByRole('radio', { name: 'Vermilion' }).click();
  await teacher.getByRole('radio', { name: 'Marker' }).click();
  await teacher.keyboard.press('Escape');
  await draw(teacher, wave(100, 300));
  expect((await stageState(teacher)).marks[0]!.colour).toBe('#d55e00');
});

test.describe('other pointers', () => {
  const touch = async (cdp: CDPSession, type: string, points: { x: number; y: number; id: number }[]) => {
    await cdp.send('Input.dispatchTouchEvent', { type: type as 'touchStart', touchPoints: points });
  };

  test('two fingers enlarge and move, one finger writes', async ({ teacher }) => {
    const cdp = await teacher.context().newCDPSession(teacher);
    const before = await stageState(teacher);
    await touch(cdp, 'touchStart', [
      { x: 600, y: 400, id: 1 },
      { x: 640, y: 400, id: 2 },
    ]);
    for (let i = 1; i <= 8; i++)
      await touch(cdp, 'touchMove', [
        { x: 600 - i * 10, y: 400, id: 1 },
        { x: 640 + i * 10, y: 400, id: 2 },
      ]);
    await touch(cdp, 'touchEnd', []);
    await expect.poll(async () => (await stageState(teacher)).scale).toBeGreaterThan(before.scale * 2);
    expect(await markCount(teacher)).toBe(0);
    await touch(cdp, 'touchStart', [{ x: 600, y: 300, id: 1 }]);
    for (let i = 1; i <= 8; i++) await touch(cdp, 'touchMove', [{ x: 600 + i * 10, y: 300 + i, id: 1 }]);
    await touch(cdp, 'touchEnd', []);
    await expectMarks(teacher, 1);
  });

  test('a pen that presses harder draws wider', async ({ teacher }) => {
    const cdp = await teacher.context().newCDPSession(teacher);
    const inked = async (y: number, force: number) => {
      const pen = async (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', x: number) => {
        await cdp.send('Input.dispatchMouseEvent', {
          type,
          x,
          y,
          button: 'left',
          buttons: type === 'mouseReleased' ? 0 : 1,
          pointerType: 'pen',
          force,
          clickCount: 1,
        });
      };
      await pen('mousePressed', 550);
      for (let x = 555; x <= 700; x += 5) await pen('mouseMoved', x);
      await pen('mouseReleased', 700);
      return darkPixels(teacher, y);
    };
    const light = await inked(350, 0.15);
    const hard = await inked(420, 0.95);
    expect(hard).toBeGreaterThan(light * 1.3);
  });
});

/** Dark pixels in a band of the window round height `y`, away from the print. */
async function darkPixels(page: Page, y: number): Promise<number> {
  await surfaceShown(page);
  return page.locator('canvas[data-layer=dry]').evaluate((canvas: HTMLCanvasElement, middle) => {
    const { data } = canvas.getContext('2d')!.getImageData(540, middle - 18, 180, 30);
    let dark = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i]! < 128 && data[i + 3] === 255) dark += 1;
    return dark;
  }, y);
}
