import type { Locator, Page } from '@playwright/test';
import { bringIn, expect, joinAs, startClass, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { hand } from '../support/roster';
import { draw, expectMarks, stageState, wave } from '../support/stage';

const PHONE = { width: 390, height: 844 };

/** Pixels of a miniature that are neither paper nor nearly so. */
function inkOn(card: Locator): Promise<number> {
  return card.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let count = 0;
    for (let i = 0; i < data.length; i += 4)
      if (Math.min(data[i]!, data[i + 1]!, data[i + 2]!) < 120) count += 1;
    return count;
  });
}

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('each student has a copy of their own; the teacher sees all, writes into one and shows one to the class', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  await draw(teacher, wave(80, 80));
  await hand(teacher, 'Own copies');
  await expect(wren.getByText('This is your own copy of the page')).toBeVisible();
  await expect(tove.getByText('This is your own copy of the page')).toBeVisible();
  await draw(wren, wave(80, 200));
  await draw(tove, wave(80, 320));
  await draw(tove, wave(80, 420));
  await expectMarks(wren, 2);
  await expectMarks(tove, 3);
  await expectMarks(teacher, 1);

  await hand(teacher, 'See all copies');
  const wall = teacher.getByRole('dialog', { name: 'All copies' });
  const card = (name: string) => wall.getByRole('listitem').filter({ hasText: name });
  await expect(card('Wren')).toContainText('1 mark');
  await expect(card('Tove')).toContainText('2 marks');
  // The wall keeps up with what is written.
  await draw(wren, wave(80, 500));
  await expect(card('Wren')).toContainText('2 marks');
  const before = await inkOn(card('Wren'));
  await draw(wren, wave(80, 560));
  await expect.poll(() => inkOn(card('Wren'))).toBeGreaterThan(before);
  const toves = await inkOn(card('Tove'));

  await teacher.getByRole('button', { name: 'Open the copy of Wren' }).click();
  await expect(teacher.getByText('You are in the copy of Wren')).toBeVisible();
  await expectMarks(teacher, 4);
  await draw(teacher, wave(300, 200));
  await expectMarks(wren, 5);
  await expectMarks(tove, 3);
  // What is on the copy that is open is on no other.
  await hand(teacher, 'See all copies');
  await expect.poll(() => inkOn(card('Tove'))).toBeLessThan(await inkOn(card('Wren')));
  expect(await inkOn(card('Tove'))).toBe(toves);
  await wall.getByRole('button', { name: 'Close' }).click();
  await teacher.getByRole('button', { name: 'Back to the common page' }).click();
  await expectMarks(teacher, 1);

  await hand(teacher, 'See all copies');
  await wall.getByRole('button', { name: 'Keep 2 as pages' }).click();
  await expect(
    teacher.getByText('2 copies are pages of this class now, after the common page.'),
  ).toBeVisible();
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expectMarks(teacher, 5);
  await teacher.getByRole('button', { name: 'Previous page' }).click();
  await expect(wren.getByText('Page 1', { exact: true })).toBeVisible();

  await hand(teacher, 'See all copies');
  for (const name of ['Wren', 'Tove'])
    await wall.getByRole('checkbox', { name: `Choose ${name} to compare` }).check();
  await wall.getByRole('button', { name: 'Side by side (2)' }).click();
  const beside = wall.getByRole('listitem', { name: 'Tove' });
  const toveBefore = await inkOn(beside);
  await draw(tove, wave(80, 600));
  await expect.poll(() => inkOn(beside)).toBeGreaterThan(toveBefore);
  await tove.getByRole('button', { name: 'Undo' }).click();
  await expectMarks(tove, 3);
  await wall.getByRole('button', { name: 'Back to all copies' }).click();
  await card('Tove').getByRole('button', { name: 'Without name' }).click();
  for (const page of [teacher, wren, tove]) {
    await expect(page.getByText("A classmate's copy is shown")).toBeVisible();
    await expectMarks(page, 3);
  }
  await draw(wren, wave(300, 500));
  await expectMarks(wren, 3);
  await teacher.getByRole('button', { name: 'Back to the common page' }).click();
  await expectMarks(wren, 5);

  await hand(teacher, 'All write');
  for (const page of [teacher, wren, tove]) await expectMarks(page, 1);
  await draw(wren, wave(80, 700));
  for (const page of [teacher, wren, tove]) await expectMarks(page, 2);
  await hand(teacher, 'Own copies');
  await expectMarks(wren, 6);
});

test('tables share a page: made by chance, changed by hand, each sees its own', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const students: Record<string, Page> = {};
  for (const name of ['Wren', 'Odo', 'Tove', 'Nash'])
    students[name] = await joinAs(browser, server.url, code, name);
  const [wren, odo, tove, nash] = Object.values(students) as [Page, Page, Page, Page];
  await hand(teacher, 'Tables');
  const dialog = teacher.getByRole('dialog', { name: 'Tables' });
  await dialog.getByLabel('Students at a table').fill('2');
  await dialog.getByRole('button', { name: 'In their order' }).click();
  await expect(dialog.getByLabel('Table of Odo')).toHaveValue('1');
  await expect(dialog.getByLabel('Table of Nash')).toHaveValue('2');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await draw(wren, wave(80, 200));
  await draw(nash, wave(80, 300));
  await draw(nash, wave(80, 400));
  for (const page of [wren, odo]) await expectMarks(page, 1);
  for (const page of [tove, nash]) await expectMarks(page, 2);

  await hand(teacher, 'Make tables …');
  await dialog.getByRole('button', { name: 'Table 1, pens up: put them down' }).click();
  await expect(wren.getByText('Pens down')).toBeVisible();
  await expect(tove.getByText('Pens up')).toBeVisible();
  await dialog.getByRole('button', { name: 'Table 1, pens down: let them write' }).click();
  await expect(wren.getByText('Pens up')).toBeVisible();
  await dialog.getByLabel('Table of Odo').selectOption('Table 2');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expectMarks(odo, 2);
  await hand(teacher, 'See all copies');
  const wall = teacher.getByRole('dialog', { name: 'All copies' });
  await expect(wall.getByRole('listitem').filter({ hasText: 'Table 2' })).toContainText('Odo');
  await wall.getByRole('button', { name: 'Close' }).click();
  // A name is dragged to another table.
  await hand(teacher, 'Make tables …');
  const seats = (name: string) => dialog.getByRole('region', { name });
  await seats('Table 2').getByText('Odo').hover();
  await teacher.mouse.down();
  const target = (await seats('Table 1').boundingBox())!;
  await teacher.mouse.move(target.x + 60, target.y + 40, { steps: 5 });
  await teacher.mouse.up();
  await expect(seats('Table 1')).toContainText('Odo');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expectMarks(odo, 1);

  // The page is cut into a field for each of a table: one's own fills the window, the others' is there too.
  const whole = (await stageState(wren)).scale;
  await hand(teacher, 'Tables, a field for each');
  await expect(wren.getByText('Your field')).toBeVisible();
  await expect(wren.getByText("Odo's field").or(wren.getByText('Odo’s field'))).toBeAttached();
  await expect.poll(async () => (await stageState(wren)).scale).toBeGreaterThan(whole);
  await expectMarks(odo, 1);
  await wren.getByRole('button', { name: 'Fit the page' }).click();
  await expect.poll(async () => (await stageState(wren)).scale).toBeCloseTo(whole, 2);
  await wren.getByRole('button', { name: 'To your field' }).click();
  await expect.poll(async () => (await stageState(wren)).scale).toBeGreaterThan(whole);
  await hand(teacher, 'All look');
  for (const page of [wren, tove]) await expect(page.getByText('Pens down')).toBeVisible();
});

test('two students share a screen: a copy, a pen and a colour each, undo of their own, kept as pages', async ({
  teacher,
}) => {
  await startClass(teacher);
  await draw(teacher, wave(80, 80));
  await hand(teacher, 'Two at this screen');
  const seats = teacher.getByRole('dialog', { name: 'Students at this screen' });
  const seat = (number: number) => seats.getByRole('region', { name: `Student ${number} at the screen` });
  /** A line through the middle of somebody's part of the screen, so far down. */
  const strike = async (number: number, down: number) => {
    await expect(seat(number).locator('[data-shown=true]')).toBeVisible();
    const box = (await seat(number).boundingBox())!;
    const [x, y] = [box.x + box.width / 2 - 60, box.y + box.height * down];
    await teacher.mouse.move(x, y);
    await teacher.mouse.down();
    await teacher.mouse.move(x + 120, y + 10, { steps: 6 });
    await teacher.mouse.up();
  };
  const undo = (number: number) => seat(number).getByRole('button', { name: 'Undo' });
  await expect(undo(1)).toBeDisabled();
  await strike(1, 0.3);
  await strike(1, 0.5);
  await expect(undo(2)).toBeDisabled();
  await strike(2, 0.4);
  await expect(undo(2)).toBeEnabled();
  await undo(1).click();
  await expect(undo(1)).toBeEnabled();
  await seats.getByRole('button', { name: 'Back to one page' }).click();
  await expectMarks(teacher, 1);
  await hand(teacher, 'Two at this screen');
  // What was done before stays; only what is done now can be undone here.
  await expect(undo(1)).toBeDisabled();
  await strike(2, 0.6);
  await expect(undo(2)).toBeEnabled();
  await seats.getByRole('button', { name: 'Keep them as pages' }).click();
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expectMarks(teacher, 3);
});

test('two hands write on their own halves of a screen at the same time', async ({ teacher }) => {
  await startClass(teacher);
  await hand(teacher, 'Two at this screen');
  const seats = teacher.getByRole('dialog', { name: 'Students at this screen' });
  const middles: { x: number; y: number; id: number }[] = [];
  for (const number of [1, 2]) {
    const seat = seats.getByRole('region', { name: `Student ${number} at the screen` });
    await expect(seat.locator('[data-shown=true]')).toBeVisible();
    const box = (await seat.boundingBox())!;
    middles.push({ x: box.x + box.width / 2 - 50, y: box.y + box.height / 2, id: number });
  }
  const [left, right] = middles as [(typeof middles)[0], (typeof middles)[0]];
  const cdp = await teacher.context().newCDPSession(teacher);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: typeof middles) =>
    cdp.send('Input.dispatchTouchEvent', { type, touchPoints });
  await touch('touchStart', [left]);
  await touch('touchStart', [left, right]);
  for (let i = 1; i <= 8; i += 1)
    await touch(
      'touchMove',
      [left, right].map(({ x, y, id }) => ({ x: x + 12 * i, y: y + 4 * i, id })),
    );
  await touch('touchEnd', []);
  for (const number of [1, 2])
    await expect(
      seats
        .getByRole('region', { name: `Student ${number} at the screen` })
        .getByRole('button', { name: 'Undo' }),
    ).toBeEnabled();
  await seats.getByRole('button', { name: 'Keep them as pages' }).click();
  for (let page = 0; page < 2; page += 1) {
    await teacher.getByRole('button', { name: 'Next page' }).click();
    await expectMarks(teacher, 1);
    const [mark] = (await stageState(teacher)).marks;
    expect(mark!.bounds.width).toBeGreaterThan(60);
  }
});
