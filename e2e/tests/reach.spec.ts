import type { Locator } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, typeAt } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

const options = /^Colour and options/;

test('everything can be drawn and placed by keyboard alone', async ({ teacher }) => {
  await teacher.keyboard.press('p');
  await teacher.keyboard.press('j');
  await expect(teacher.getByTestId('key-pointer')).toBeVisible();
  await teacher.keyboard.press('Space');
  for (let i = 0; i < 10; i++) await teacher.keyboard.press('ArrowRight');
  for (let i = 0; i < 5; i++) await teacher.keyboard.press('ArrowDown');
  await teacher.keyboard.press('Space');
  await expectMarks(teacher, 1);
  const [stroke] = (await stageState(teacher)).marks;
  const { scale } = await stageState(teacher);
  expect(stroke!.bounds.width * scale).toBeGreaterThan(100);
  expect(stroke!.bounds.height * scale).toBeGreaterThan(50);
  await teacher.keyboard.press('m');
  for (let i = 0; i < 6; i++) await teacher.keyboard.press('ArrowUp');
  await teacher.keyboard.press('Space');
  await teacher.keyboard.press('Space');
  await expectMarks(teacher, 2);
  await teacher.keyboard.press('Escape');
  await expect(teacher.getByTestId('key-pointer')).toBeHidden();
});

test('marks are resized and turned by keyboard', async ({ teacher }) => {
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [200, 300],
    [360, 420],
  ]);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  const before = (await stageState(teacher)).marks[0]!.bounds;
  await teacher.getByRole('button', { name: 'Resize from the right' }).focus();
  for (let i = 0; i < 5; i++) await teacher.keyboard.press('ArrowRight');
  const wider = (await stageState(teacher)).marks[0]!.bounds;
  expect(wider.width).toBeCloseTo(before.width + 40, 0);
  expect(wider.height).toBeCloseTo(before.height, 3);
  await teacher.getByRole('button', { name: 'Turn', exact: true }).focus();
  for (let i = 0; i < 6; i++) await teacher.keyboard.press('Shift+ArrowRight');
  const turned = (await stageState(teacher)).marks[0]!.bounds;
  expect(turned.width).toBeCloseTo(wider.height, 0);
});

test('repeats as often as asked for, in a row and in a ring', async ({ teacher }) => {
  await teacher.keyboard.press('m');
  await teacher.mouse.click(...(await at(teacher, 100, 200)));
  await teacher.keyboard.press('Control+a');
  const repeat = async (count: string) => {
    await teacher.getByRole('button', { name: 'More for these marks' }).click();
    await teacher.getByRole('menuitem', { name: /^Repeat/ }).click();
    await teacher.getByLabel('How many in all').fill(count);
  };
  await repeat('1');
  await expect(teacher.getByRole('button', { name: 'In a row' })).toBeDisabled();
  await expect(teacher.getByRole('alert')).toContainText('from 2 to 60');
  await teacher.getByLabel('How many in all').fill('5');
  await teacher.getByRole('button', { name: 'In a row' }).click();
  await expectMarks(teacher, 5);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('Control+a');
  await repeat('6');
  await teacher.getByRole('button', { name: 'In a ring' }).click();
  await expectMarks(teacher, 6);
});

test('a selection is copied as a picture for other programs', async ({ teacher }) => {
  await teacher.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [200, 300],
    [360, 420],
  ]);
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Copy as a picture' }).click();
  await expect
    .poll(() =>
      teacher.evaluate(async () => {
        const [item] = await navigator.clipboard.read().catch(() => []);
        if (!item?.types.includes('image/png')) return 0;
        return (await createImageBitmap(await item.getType('image/png'))).width;
      }),
    )
    .toBeGreaterThan(320);
});

test('keys on the glass type into the text box', async ({ teacher }) => {
  await teacher.keyboard.press('t');
  await teacher.getByRole('button', { name: options }).click();
  await teacher.getByRole('switch', { name: 'Keyboard on the screen' }).click();
  await teacher.keyboard.press('Escape');
  await teacher.mouse.click(...(await at(teacher, 200, 200)));
  const keys = teacher.getByRole('group', { name: 'Keyboard' });
  for (const key of ['⇧ Capitals', 'B', 'e', 'a', 'n', 'm', '⌫ Delete'])
    await keys.getByRole('button', { name: key, exact: true }).click();
  await keys.getByRole('button', { name: 'Done' }).click();
  await expect.poll(async () => (await stageState(teacher)).marks.map(({ text }) => text)).toEqual(['Bean']);
  // What is typed low on the page is not under the keys, whether the page is fitted or enlarged.
  for (const enlarge of [false, true]) {
    if (enlarge) for (let i = 0; i < 3; i++) await teacher.keyboard.press('+');
    await teacher.mouse.click(600, 700);
    await expect(keys).toBeVisible();
    const bottomOf = async (what: Locator) => {
      const box = (await what.boundingBox())!;
      return box.y + box.height;
    };
    await expect
      .poll(async () => {
        const top = (await keys.boundingBox())!.y;
        return top - (await bottomOf(teacher.getByLabel('Text on the page')));
      })
      .toBeGreaterThan(5);
    await keys.getByRole('button', { name: 'Done' }).click();
  }
});

test('letters become larger on every screen of this device', async ({ teacher }) => {
  await teacher.keyboard.press('?');
  await teacher.getByRole('radio', { name: 'Largest letters' }).click();
  await teacher.reload();
  const size = await teacher.evaluate(() => getComputedStyle(document.documentElement).fontSize);
  expect(size).toBe('24px');
});

test('a teacher’s own picture becomes a stamp in every lesson', async ({ teacher }) => {
  const picture = new PNG({ width: 40, height: 40 });
  for (let i = 0; i < picture.data.length; i += 4) picture.data.set([200, 40, 120, 255], i);
  await teacher.keyboard.press('m');
  await teacher.getByRole('button', { name: options }).click();
  await teacher
    .getByLabel('Picture for a stamp')
    .setInputFiles({ name: 'well done.png', mimeType: 'image/png', buffer: PNG.sync.write(picture) });
  await expect(teacher.getByRole('radio', { name: 'Own stamp 1' })).toBeChecked();
  await teacher.keyboard.press('Escape');
  for (const x of [200, 400]) await teacher.mouse.click(...(await at(teacher, x, 300)));
  await expectMarks(teacher, 2);
  expect((await stageState(teacher)).marks.map(({ kind }) => kind)).toEqual(['picture', 'picture']);
});

test('a key that was changed is the teacher’s on another computer too', async ({
  browser,
  server,
  teacher,
}) => {
  await teacher.keyboard.press('?');
  await teacher.getByRole('button', { name: /^Pen P$/ }).click();
  const saved = teacher.waitForResponse((response) => response.url().endsWith('/preferences/shortcuts'));
  await teacher.keyboard.press('q');
  await saved;
  const cookies = await teacher.context().cookies();
  const other = await browser.newContext({ baseURL: server.url });
  await other.addCookies(cookies);
  const page = await other.newPage();
  await page.goto(teacher.url());
  await page.getByRole('toolbar', { name: 'Tools' }).waitFor();
  await page.keyboard.press('h');
  await expect
    .poll(async () => {
      await page.keyboard.press('q');
      return page.getByRole('button', { name: 'Pen', exact: true }).getAttribute('aria-pressed');
    })
    .toBe('true');
  await other.close();
});

test('a colour is picked from the page where the browser has no way of its own', async ({ teacher }) => {
  await teacher.addInitScript(() => Reflect.deleteProperty(window, 'EyeDropper'));
  await teacher.reload();
  await surfaceShown(teacher);
  await teacher.keyboard.press('p');
  await teacher.getByRole('button', { name: options }).click();
  await teacher.getByRole('radio', { name: 'Vermilion' }).click();
  await teacher.keyboard.press('Escape');
  await draw(teacher, [
    [300, 300],
    [300, 420],
  ]);
  await teacher.keyboard.press('t');
  await teacher.getByRole('button', { name: options }).click();
  await teacher.getByRole('button', { name: 'Any other colour' }).click();
  await teacher.getByRole('button', { name: 'Pick from the page' }).click();
  await teacher.mouse.click(...(await at(teacher, 300, 360)));
  await typeAt(teacher, 100, 200, 'Same colour');
  const { marks } = await stageState(teacher);
  expect(marks.find(({ text }) => text === 'Same colour')!.colour).toBe(
    marks.find(({ kind }) => kind === 'stroke')!.colour,
  );
});

test('buttons are 56 px on a display and 44 px at a desk, as one chooses', async ({ teacher }) => {
  const height = async () =>
    (await teacher.getByRole('button', { name: 'Eraser', exact: true }).boundingBox())!.height;
  expect(await height()).toBeGreaterThanOrEqual(44);
  await teacher.keyboard.press('?');
  await teacher.getByRole('radio', { name: 'Display' }).click();
  await teacher.keyboard.press('Escape');
  await expect.poll(height).toBeGreaterThanOrEqual(56);
  await teacher.reload();
  await surfaceShown(teacher);
  await expect.poll(height).toBeGreaterThanOrEqual(56);
});

test('two people at one display write at the same time, each with a pen of their own', async ({
  teacher,
}) => {
  await teacher.keyboard.press('p');
  await teacher.getByRole('button', { name: options }).click();
  await teacher.getByRole('switch', { name: /other half/ }).click();
  await teacher.keyboard.press('Escape');
  const half = teacher.getByRole('toolbar', { name: 'Pens of this half' });
  await half.getByRole('button', { name: /^Pen 3/ }).click();
  const client = await teacher.context().newCDPSession(teacher);
  const touch = (type: string, y: number) =>
    client.send('Input.dispatchTouchEvent', {
      type: type as 'touchStart',
      touchPoints:
        type === 'touchEnd'
          ? []
          : [
              { x: 450, y, id: 1 },
              { x: 850, y, id: 2 },
            ],
    });
  await client.send('Input.dispatchTouchEvent', {
    type: 'touchStart',
    touchPoints: [{ x: 450, y: 300, id: 1 }],
  });
  await touch('touchStart', 300);
  for (let y = 310; y < 420; y += 10) await touch('touchMove', y);
  await touch('touchEnd', 420);
  await expectMarks(teacher, 2);
  const colours = (await stageState(teacher)).marks.map(({ colour }) => colour);
  expect(new Set(colours)).toEqual(new Set(['#000000', '#d55e00']));
});

test('options that close late do not take the focus from what is done next', async ({ teacher }) => {
  await teacher.keyboard.press('t');
  await teacher.getByRole('button', { name: /^Colour and options/ }).click();
  await expect(teacher.getByRole('dialog')).toBeVisible();
  // In one go, as a busy machine hears of it: the panel has gone, but what it does a moment later has not been done.
  await teacher.getByTestId('stage').evaluate(async (stage) => {
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    for (let i = 0; i < 1000 && document.querySelector('[role=dialog]'); i++) await Promise.resolve();
    stage.focus();
  });
  await expect(teacher.getByRole('dialog')).toBeHidden();
  await teacher.evaluate(() => new Promise((done) => setTimeout(done, 0)));
  await expect(teacher.getByTestId('stage')).toBeFocused();
});
