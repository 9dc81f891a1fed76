import type { CDPSession, Page } from '@playwright/test';
import { bringIn, expect, joinAs, startClass, startWriting, test, surfaceShown } from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { option } from '../support/options';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { pageOnScreen, similarity } from '../support/pictures';
import { at, draw, drawAndRest, expectMarks, stageState, typeAt, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

const kinds = async (page: Page) => (await stageState(page)).marks.map(({ kind }) => kind);

test('everything that can be put on a page is on the students’ screens and in the PDF alike', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [80, 120],
    [220, 200],
  ]);
  await option(teacher, 'Ellipse');
  await draw(teacher, [
    [260, 120],
    [380, 200],
  ]);
  await option(teacher, 'Star');
  await option(teacher, 'Both');
  await draw(teacher, [
    [420, 120],
    [520, 210],
  ]);
  await teacher.keyboard.press('l');
  await draw(teacher, [
    [220, 160],
    [262, 160],
  ]);
  await option(teacher, 'Curve');
  await draw(teacher, [
    [90, 250],
    [300, 260],
  ]);
  await teacher.keyboard.press('m');
  for (const [i, name] of ['Tick', 'Heart', 'Smile', 'Counting number'].entries()) {
    await option(teacher, name);
    await teacher.mouse.click(...(await at(teacher, 400 + i * 60, 270)));
  }
  await teacher.mouse.click(...(await at(teacher, 640, 270)));
  await teacher.keyboard.press('n');
  await teacher.mouse.click(...(await at(teacher, 640, 130)));
  await teacher.keyboard.type('Think first');
  await teacher.keyboard.press('Escape');
  for (const [i, nature] of ['Pen', 'Pencil', 'Marker', 'Chalk'].entries()) {
    await teacher.keyboard.press('p');
    await option(teacher, nature);
    await draw(teacher, wave(100, 680 + i * 40));
  }
  await teacher.keyboard.press('t');
  await option(teacher, 'Serif');
  await option(teacher, 'Bold', 'button');
  await typeAt(teacher, 300, 700, 'Bold words');

  const count = 3 + 2 + 5 + 1 + 4 + 1;
  for (const page of [teacher, wren]) await expectMarks(page, count);
  const numbers = (await stageState(teacher)).marks.filter(({ kind }) => kind === 'stamp');
  expect(numbers).toHaveLength(5);
  const handout = new OutsideReader(await makeHandout(teacher));
  handout.check();
  expect(handout.text(1)).toContain('Think first');
  expect(handout.text(1)).toContain('Bold words');
  const screen = await pageOnScreen(teacher, 794, 1123);
  expect(similarity(screen, handout.picture(1, screen.height))).toBeGreaterThan(0.9);
  await expect
    .poll(async () => {
      const seen = await pageOnScreen(wren, 794, 1123);
      return similarity(seen, handout.picture(1, seen.height));
    })
    .toBeGreaterThan(0.9);
});

test('what is selected can be moved, resized, turned, copied, ordered, grouped, locked and deleted', async ({
  teacher,
}) => {
  await teacher.keyboard.press('s');
  await option(teacher, 'Both');
  await draw(teacher, [
    [100, 400],
    [200, 460],
  ]);
  await draw(teacher, [
    [300, 400],
    [400, 460],
  ]);
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 150, 430)));
  const bar = teacher.getByRole('toolbar', { name: 'Selected marks' });
  await expect(bar).toBeVisible();
  const darkAt = async (x: number, y: number) => {
    const picture = await pageOnScreen(teacher, 794, 1123);
    const { scale } = await stageState(teacher);
    const i = (Math.round(y * scale) * picture.width + Math.round(x * scale)) * 4;
    return picture.data[i]! < 220;
  };
  expect(await darkAt(150, 430)).toBe(true);
  await draw(teacher, [
    [150, 430],
    [150, 530],
  ]);
  await expect.poll(() => darkAt(150, 430)).toBe(false);
  await expect.poll(() => darkAt(150, 530)).toBe(true);
  await teacher.keyboard.press('Control+z');
  await expect.poll(() => darkAt(150, 430)).toBe(true);

  await teacher.mouse.click(...(await at(teacher, 150, 430)));
  await teacher.getByRole('button', { name: 'Resize from the lower right' }).hover();
  await teacher.mouse.down();
  await teacher.mouse.move(...(await at(teacher, 300, 520)), { steps: 5 });
  await teacher.mouse.up();
  await expect.poll(() => darkAt(260, 490)).toBe(true);

  await bar.getByRole('button', { name: 'Duplicate' }).click();
  await expectMarks(teacher, 3);
  await teacher.keyboard.press('Control+a');
  await bar.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Group', exact: true }).click();
  await teacher.keyboard.press('Escape');
  await teacher.mouse.click(...(await at(teacher, 350, 430)));
  await teacher.keyboard.press('Delete');
  await expectMarks(teacher, 0);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 3);
  await teacher.keyboard.press('Control+a');
  await bar.getByRole('button', { name: 'Lock' }).click();
  await teacher.keyboard.press('Delete');
  await expectMarks(teacher, 3);
  await bar.getByRole('button', { name: 'Unlock' }).click();
  await teacher.keyboard.press('Control+c');
  await teacher.keyboard.press('PageDown');
  await teacher.evaluate(() =>
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: new DataTransfer() })),
  );
  await expectMarks(teacher, 3);
});

test('a lasso selects what it goes round; keys step, nudge and cut', async ({ teacher }) => {
  for (const y of [400, 500, 600]) await draw(teacher, wave(100, y));
  await teacher.keyboard.press('v');
  await draw(teacher, [
    [80, 370],
    [260, 370],
    [260, 540],
    [80, 540],
    [80, 372],
  ]);
  await teacher.keyboard.press('Delete');
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 3);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('.');
  await expect(teacher.getByRole('toolbar', { name: 'Selected marks' })).toBeVisible();
  await teacher.keyboard.press('Shift+ArrowRight');
  await teacher.keyboard.press('Control+x');
  await expectMarks(teacher, 2);
});

test('corners of a shape can be moved, added and taken away', async ({ teacher }) => {
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [100, 400],
    [300, 500],
  ]);
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 100, 450)));
  await teacher.getByRole('button', { name: 'Corner 3' }).hover();
  await teacher.mouse.down();
  await teacher.mouse.move(...(await at(teacher, 380, 580)), { steps: 4 });
  await teacher.mouse.up();
  await expect.poll(() => kinds(teacher)).toEqual(['path']);
  await teacher.getByRole('button', { name: 'Add a corner after 1' }).hover();
  await teacher.mouse.down();
  await teacher.mouse.move(...(await at(teacher, 200, 340)), { steps: 4 });
  await teacher.mouse.up();
  await expect(teacher.getByRole('button', { name: /^Corner \d$/ })).toHaveCount(5);
  await teacher.getByRole('button', { name: 'Corner 2' }).dblclick();
  await expect(teacher.getByRole('button', { name: /^Corner \d$/ })).toHaveCount(4);
});

test('an arrow that begins just beside a shape is shown to stick, and moves along with it', async ({
  teacher,
}) => {
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [300, 300],
    [400, 360],
  ]);
  await teacher.keyboard.press('l');
  await option(teacher, 'Arrow');
  await draw(teacher, [
    [406, 330],
    [560, 480],
  ]);
  await expectMarks(teacher, 2);
  const line = async () => (await stageState(teacher)).marks.find(({ kind }) => kind === 'path')!.bounds;
  // Drawn from the edge, not from where the hand was.
  const before = await line();
  expect(Math.abs(before.x - 400)).toBeLessThan(4);
  await teacher.keyboard.press('v');
  await draw(teacher, [
    [350, 300],
    [350, 400],
  ]);
  await expect.poll(async () => (await line()).y - before.y).toBeGreaterThan(60);
});

test('a polygon is clicked corner by corner', async ({ teacher }) => {
  await teacher.keyboard.press('l');
  await option(teacher, 'Free polygon by clicking');
  for (const [x, y] of [
    [100, 400],
    [300, 420],
    [240, 560],
  ] as const)
    await teacher.mouse.click(...(await at(teacher, x, y)));
  await teacher.keyboard.press('Enter');
  await expectMarks(teacher, 1);
});

test('the rubber takes only what it touches, and wiping is selective; both come back', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(teacher, [
    [100, 400],
    [400, 400],
  ]);
  await teacher.keyboard.press('e');
  await option(teacher, 'Only what it touches');
  await draw(teacher, [
    [250, 350],
    [250, 450],
  ]);
  for (const page of [teacher, wren]) await expectMarks(page, 2);
  await teacher.keyboard.press('Control+z');
  for (const page of [teacher, wren]) await expectMarks(page, 1);
  await typeAt(teacher, 100, 500, 'Typed');
  await draw(wren, wave(100, 600));
  for (const page of [teacher, wren]) await expectMarks(page, 3);
  const wipe = async (name: string | RegExp) => {
    await teacher.getByRole('button', { name: 'Wipe' }).click();
    await teacher.getByRole('menuitem', { name }).click();
  };
  await wipe('Ink only');
  for (const page of [teacher, wren]) await expect.poll(() => kinds(page)).toEqual(['text']);
  await teacher.keyboard.press('Control+z');
  await expectMarks(wren, 3);
  await wipe('Only what Wren made');
  await expectMarks(wren, 2);
  await teacher.keyboard.press('Control+z');
  await wipe('Typed and placed things only');
  await expect.poll(() => kinds(wren)).toEqual(['stroke', 'stroke']);
  await wipe('Everything on this page');
  await expectMarks(wren, 0);
});

test('marks are copied and pasted without keys, and their bar and menus stay in the window', async ({
  teacher,
}) => {
  await teacher.setViewportSize({ width: 900, height: 560 });
  await surfaceShown(teacher);
  await draw(teacher, wave(620, 250));
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('Control+a');
  const inside = async (locator: ReturnType<typeof teacher.getByRole>) => {
    const { x, y, width, height } = (await locator.boundingBox())!;
    expect(Math.min(x, y, 900 - x - width, 560 - y - height)).toBeGreaterThanOrEqual(0);
  };
  await inside(teacher.getByRole('toolbar', { name: 'Selected marks' }));
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await inside(teacher.getByRole('menu'));
  await teacher.getByRole('menuitem', { name: 'Copy', exact: true }).click();
  await teacher.getByRole('button', { name: 'Colour and options of the select' }).click();
  await teacher.getByRole('button', { name: 'Paste', exact: true }).click();
  await expectMarks(teacher, 2);
});

test('two hands write at the same time, each with a stroke of its own', async ({ teacher }) => {
  const cdp = await teacher.context().newCDPSession(teacher);
  const touch = (
    session: CDPSession,
    type: 'touchStart' | 'touchMove' | 'touchEnd',
    touchPoints: { x: number; y: number; id: number }[],
  ) => session.send('Input.dispatchTouchEvent', { type, touchPoints });
  await touch(cdp, 'touchStart', [{ x: 480, y: 300, id: 1 }]);
  for (let i = 1; i <= 6; i++) await touch(cdp, 'touchMove', [{ x: 480 + i * 8, y: 300, id: 1 }]);
  // The second hand comes late enough not to be taken for enlarging.
  await expect
    .poll(() => teacher.evaluate(() => performance.now()))
    .toBeGreaterThan((await teacher.evaluate(() => performance.now())) + 300);
  await touch(cdp, 'touchStart', [
    { x: 528, y: 300, id: 1 },
    { x: 640, y: 420, id: 2 },
  ]);
  for (let i = 1; i <= 6; i++)
    await touch(cdp, 'touchMove', [
      { x: 528 + i * 8, y: 300 + i, id: 1 },
      { x: 640 + i * 8, y: 420, id: 2 },
    ]);
  await touch(cdp, 'touchEnd', []);
  await expectMarks(teacher, 2);
});

test('a held key straightens to steps of 15°, and so does resting at the end', async ({ teacher }) => {
  await teacher.keyboard.down('Shift');
  await drawAndRest(teacher, [
    [100, 400],
    [180, 430],
    [300, 405],
  ]);
  await teacher.mouse.up();
  await teacher.keyboard.up('Shift');
  await expectMarks(teacher, 1);
  const level = await pageOnScreen(teacher, 794, 1123);
  const { scale } = await stageState(teacher);
  const dark = (x: number, y: number) =>
    level.data[(Math.round(y * scale) * level.width + Math.round(x * scale)) * 4]! < 128;
  expect(dark(200, 400)).toBe(true);
  expect(dark(180, 430)).toBe(false);
});

test('colour is poured into a closed shape, and not where the area is open', async ({ teacher }) => {
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [100, 400],
    [260, 520],
  ]);
  await teacher.keyboard.press('c');
  await teacher.mouse.click(...(await at(teacher, 180, 460)));
  const looks = async () => (await stageState(teacher)).marks.map(({ fill, colour }) => fill ?? colour);
  await expect.poll(looks).toEqual(['#56b4e9']);

  // Between a line of one's own and the shape's edge, a part; poured anew, it changes its colour.
  await teacher.keyboard.press('p');
  await draw(teacher, [
    [180, 395],
    [180, 525],
  ]);
  await teacher.keyboard.press('c');
  await option(teacher, 'Yellow');
  await teacher.mouse.click(...(await at(teacher, 130, 460)));
  await expect.poll(() => kinds(teacher)).toEqual(['shape', 'fill', 'stroke']);
  await option(teacher, 'Bluish green');
  await teacher.mouse.click(...(await at(teacher, 130, 460)));
  await expect.poll(looks).toEqual(['#56b4e9', '#009e73', '#000000']);

  await teacher.mouse.click(...(await at(teacher, 700, 1000)));
  await expect(teacher.getByText('nothing was poured')).toBeVisible();
  await expectMarks(teacher, 3);
  await teacher.keyboard.press('Control+z');
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 2);
});

test('keys can be changed, conflicts are told, and the list tells what is missing', async ({ teacher }) => {
  await typeAt(teacher, 100, 400, 'Readable');
  await teacher.keyboard.press('?');
  const keys = teacher.getByRole('dialog', { name: 'Keys' });
  await keys.getByRole('button', { name: /^Highlighter/ }).click();
  await teacher.keyboard.press('p');
  await expect(keys.getByRole('alert')).toContainText('already the key for “Pen”');
  await keys.getByRole('button', { name: /^Highlighter/ }).click();
  await teacher.keyboard.press('q');
  await teacher.keyboard.press('Escape');
  await teacher.reload();
  await teacher.locator('[data-testid=stage][data-shown=true]').waitFor();
  await teacher.keyboard.press('q');
  await expect(teacher.getByRole('button', { name: 'Highlighter', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await teacher.keyboard.press('t');
  await option(teacher, 'Yellow');
  await typeAt(teacher, 100, 600, 'Faint');
  await teacher.keyboard.press('k');
  const list = teacher.getByRole('complementary', { name: 'What is on this page' });
  await expect(list.getByRole('button', { name: /^Text:/ })).toHaveText([/Readable/, /Faint.*hard to read/]);
  await list.getByRole('button', { name: /Faint/ }).click();
  await teacher.keyboard.press('Delete');
  await expectMarks(teacher, 1);
});

test('what was drawn stays when the pointer is taken away in the middle, and is let go elsewhere', async ({
  teacher,
}) => {
  await teacher.keyboard.press('p');
  for (const [i, point] of wave(200, 300).entries()) {
    await teacher.mouse.move(...(await at(teacher, ...point)));
    if (i === 0) await teacher.mouse.down();
  }
  await teacher.getByTestId('stage').evaluate((stage) => stage.releasePointerCapture(1));
  await teacher.getByRole('toolbar', { name: 'Tools' }).hover();
  await expectMarks(teacher, 1);
  await teacher.mouse.up();
  await expectMarks(teacher, 1);
});
