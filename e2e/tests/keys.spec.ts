import type { Page } from '@playwright/test';
import { expectReachable } from '../support/controls';
import { bringIn, expect, startWriting, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
});

/** The name of what has the focus; empty where nothing has it. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const { activeElement: active } = document;
    return !active || active === document.body
      ? ''
      : (active.getAttribute('aria-label') ?? active.textContent ?? '').trim();
  });

/** Goes to a button as the Tab key does. */
async function goTo(page: Page, name: string | RegExp): Promise<void> {
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name, exact: typeof name === 'string' }).focus();
}

test('Tab goes through everything and on, whatever is in hand', async ({ teacher }) => {
  await draw(teacher, wave(100, 200));
  await draw(teacher, wave(100, 300));
  await teacher.keyboard.press('v');
  await teacher.mouse.click(2, 400);
  const stops: string[] = [];
  for (let i = 0; i < 80 && !stops.slice(1).includes(stops[0]!); i++) {
    await teacher.keyboard.press('Tab');
    stops.push(await focused(teacher));
  }
  for (const name of ['Back to your lessons', 'Start class', 'Pen', 'Undo', 'Next page'])
    expect(stops.filter((stop) => stop === name || stop === 'Undo')).toContain(
      name === 'Undo' ? 'Undo' : name,
    );
  // In the order of the screen: the bars above, the tools, the bar below.
  const order = ['Back to your lessons', 'Start class', 'Pen', 'Next page'].map((name) =>
    stops.indexOf(name),
  );
  const begin = order[0]!;
  const after = order.map((place) => (place - begin + stops.length) % stops.length);
  expect(after).toEqual([...after].sort((a, b) => a - b));
  // Things on the page are gone through by other keys.
  await teacher.keyboard.press('.');
  const first = await teacher.getByRole('toolbar', { name: 'Selected marks' }).boundingBox();
  await teacher.keyboard.press('.');
  await expect
    .poll(() => teacher.getByRole('toolbar', { name: 'Selected marks' }).boundingBox())
    .not.toEqual(first);
});

test('the focus comes back from every dialog and menu, from folding and from deleting', async ({
  teacher,
}) => {
  await startWriting(teacher);
  for (const [opener, opened] of [
    [/^Join code/, 'dialog'],
    [/^Students/, 'dialog'],
    ['Bring in', 'menu'],
    ['Show', 'menu'],
    [/^Devices/, 'dialog'],
    ['Hand out', 'dialog'],
    ['End class', 'dialog'],
    ['Grab a picture', 'dialog'],
    ['Keys and size of letters', 'dialog'],
    [/^Colour and options/, 'dialog'],
    ['Focus', 'dialog'],
    ['Wipe', 'menu'],
  ] as const) {
    await goTo(teacher, opener);
    const name = await focused(teacher);
    await teacher.keyboard.press('Enter');
    await expect(teacher.getByRole(opened).first()).toBeVisible();
    await teacher.keyboard.press('Escape');
    await expect(teacher.getByRole(opened)).toHaveCount(0);
    await expect.poll(() => focused(teacher), { message: String(opener) }).toBe(name);
  }
  await goTo(teacher, 'Fold the tools away');
  await teacher.keyboard.press('Enter');
  await expect.poll(() => focused(teacher)).toMatch(/^Show the tools/);
  await teacher.keyboard.press('Enter');
  await expect.poll(() => focused(teacher)).toBe('Fold the tools away');

  await draw(teacher, wave(100, 200));
  await teacher.keyboard.press('Escape');
  await teacher.keyboard.press('.');
  await goTo(teacher, /^Delete/);
  await teacher.keyboard.press('Enter');
  await expectMarks(teacher, 0);
  await expect.poll(() => focused(teacher)).toMatch(/^The page/);
});

test('keys of the page leave the controls alone that one has gone to', async ({ teacher }) => {
  const { page } = await stageState(teacher);
  await goTo(teacher, 'Larger');
  await teacher.keyboard.press('ArrowRight');
  await teacher.keyboard.press('ArrowDown');
  await teacher.keyboard.press('Enter');
  expect((await stageState(teacher)).page).toBe(page);
  await teacher.getByTestId('stage').focus();
  await teacher.keyboard.press('ArrowRight');
  await expect.poll(async () => (await stageState(teacher)).page).not.toBe(page);

  await goTo(teacher, 'Show all pages');
  await teacher.keyboard.press('Enter');
  await goTo(teacher, /^Page 3/);
  await teacher.keyboard.press('Enter');
  await expect(teacher.getByLabel('Page 3 of 3')).toBeVisible();

  await teacher.keyboard.press('?');
  const keys = teacher.getByRole('dialog', { name: 'Keys and letters' });
  await keys.getByLabel('Keys of a single letter or sign do something').uncheck();
  await teacher.keyboard.press('Escape');
  await teacher.keyboard.press('h');
  await expect(teacher.getByRole('button', { name: 'Pen', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('what is selected is moved, sized and turned by taps alone, and its corners by keys', async ({
  teacher,
}) => {
  await teacher.keyboard.press('s');
  await draw(teacher, [
    [100, 200],
    [300, 300],
  ]);
  await teacher.keyboard.press('.');
  const bounds = async () => (await stageState(teacher)).marks[0]!.bounds;
  const before = await bounds();
  await teacher.getByRole('button', { name: 'Move, size and turn by taps' }).click();
  const pad = teacher.getByRole('dialog', { name: 'Move, size and turn' });
  await pad.getByRole('button', { name: 'Right', exact: true }).click();
  await pad.getByRole('button', { name: 'Larger' }).click();
  await expect.poll(async () => (await bounds()).width).toBeGreaterThan(before.width * 1.05);
  const { x, width } = await bounds();
  expect(x + width / 2).toBeCloseTo(before.x + before.width / 2 + 8, 0);
  await pad.getByRole('button', { name: 'Turn right' }).click();
  await expect.poll(async () => (await bounds()).height).toBeGreaterThan(before.height * 1.2);
  await teacher.keyboard.press('Escape');
  for (let i = 0; i < 3; i++) await teacher.keyboard.press('Control+z');
  await expect.poll(bounds).toEqual(before);
  await teacher.keyboard.press('.');
  await teacher.getByRole('button', { name: 'Corner 1', exact: true }).focus();
  await teacher.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await bounds()).x).toBeCloseTo(before.x - 8, 0);
});

test('a part of the page is chosen by keys to be grabbed', async ({ teacher }) => {
  await teacher.keyboard.press('g');
  const part = teacher.getByRole('application', { name: /^Part of the picture/ });
  await part.focus();
  for (let i = 0; i < 6; i++) await teacher.keyboard.press('Shift+ArrowLeft');
  await expect(part).toHaveAccessibleName(/70 % wide and 100 % high/);
  await expectReachable(teacher);
});

test('who hears the page is read its words, with the marks where they lie', async ({ teacher }) => {
  const reading = teacher.getByRole('region', { name: 'What the page says' });
  await expect(reading.getByRole('heading', { level: 2 })).toHaveText('Page 1 of 3');
  await expect(reading).toContainText('Bridges, sheet 1');
  // Under the heading, whose letters are 28 points high at 760 of 841.89.
  const [left, below] = [60 * (96 / 72), (841.89 - 754) * (96 / 72)];
  await draw(teacher, [
    [left, below],
    [left + 100, below],
    [left + 260, below],
  ]);
  await expect(reading).toContainText(/sheet 1.*Underlined: Bridges, sheet 1, by /s);
  await teacher.keyboard.press('ArrowRight');
  await expect(reading).toContainText('Bridges, sheet 2');
  await expect(reading).not.toContainText('Underlined');
  await expect(teacher.getByTestId('change')).toHaveText('Page 2 of 3');
});
