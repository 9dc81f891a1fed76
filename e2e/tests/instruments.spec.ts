import type { Locator, Page } from '@playwright/test';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { setRules } from '../support/roster';
import { at, draw, expectMarks, markCount, stageState } from '../support/stage';

type Place = [number, number];

/** Bounds of ink are so much larger than its points: 1.25 times the pen on each side; page units. */
const PEN = 10;

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

/** Lays an instrument on the page, or puts it away. */
async function take(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
}

/** Where an instrument lies and how it is turned, as the window shows it. */
function lies(page: Page, kind: string): Promise<string | null> {
  return page.locator(`[data-instrument=${kind}]`).getAttribute('transform');
}

/** The place on the page of a point of an instrument's own plane. */
async function placeOf(page: Page, kind: string, right: number, down: number): Promise<Place> {
  const [x, y, turn] = (await lies(page, kind))!.match(/-?\d+(?:\.\d+)?(?:e-?\d+)?/g)!.map(Number) as [
    number,
    number,
    number,
  ];
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return [x + right * cos - down * sin, y + right * sin + down * cos];
}

async function middleOf(grip: Locator): Promise<Place> {
  const box = (await grip.boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
}

/** Drags something by so many page units, through places on the way. */
async function dragBy(page: Page, grip: Locator, ...ways: Place[]): Promise<void> {
  const { scale } = await stageState(page);
  const [x, y] = await middleOf(grip);
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (const [dx, dy] of ways) await page.mouse.move(x + dx * scale, y + dy * scale, { steps: 3 });
  await page.mouse.up();
}

/** What is typed into a field of an instrument's panel. */
async function type(page: Page, field: string, value: string): Promise<void> {
  const box = page.getByRole('textbox', { name: field, exact: true });
  await box.fill(value);
  await box.press('Enter');
}

const opens = (page: Page) => page.getByRole('button', { name: /What can be set$/ });

test('along a ruler a shaking hand draws straight, and the class sees it lie and turn', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await take(teacher, 'Ruler');
  await expect.poll(() => lies(wren, 'ruler')).toBe(await lies(teacher, 'ruler'));
  // Nobody else can take hold of it.
  await expect(opens(wren)).toHaveCount(0);

  const [left, top] = await placeOf(teacher, 'ruler', 40, 0);
  await draw(teacher, [
    [left, top - 4],
    [left + 60, top + 5],
    [left + 130, top - 6],
    [left + 200, top + 3],
  ]);
  await expectMarks(teacher, 1);
  const [line] = (await stageState(teacher)).marks;
  expect(line!.bounds.height - PEN).toBeLessThan(0.4);
  expect(Math.abs(line!.bounds.y + line!.bounds.height / 2 - top)).toBeLessThan(0.2);
  expect(line!.bounds.width).toBeGreaterThan(195 + PEN);
  await expectMarks(wren, 1);

  // Carried with one hand, turned by its handle, by keys and by a number; from mark to mark.
  const [bx, by] = await at(teacher, ...(await placeOf(teacher, 'ruler', 60, 50)));
  await teacher.mouse.move(bx, by);
  await teacher.mouse.down();
  await teacher.mouse.move(bx + 30, by + 90, { steps: 4 });
  await teacher.mouse.up();
  await expect.poll(() => lies(wren, 'ruler')).toBe(await lies(teacher, 'ruler'));
  expect((await placeOf(teacher, 'ruler', 40, 0))[1]).toBeGreaterThan(top + 60);
  await opens(teacher).click();
  await type(teacher, 'Angle', '30');
  await expect(opens(teacher)).toHaveText('30°');
  await opens(teacher).press('Shift+ArrowLeft');
  await expect(opens(teacher)).toHaveText('31°');
  await type(teacher, 'Angle', '0');
  await teacher.getByRole('switch', { name: 'Lines from mark to mark' }).click();
  const [from, edge] = await placeOf(teacher, 'ruler', 39, 0);
  await draw(teacher, [
    [from, edge + 2],
    [from + 151, edge + 2],
  ]);
  await expectMarks(teacher, 2);
  const [, stepped] = (await stageState(teacher)).marks;
  // From 10 mm to 50 mm.
  expect(Math.abs(stepped!.bounds.width - PEN - (40 * 96) / 25.4)).toBeLessThan(0.4);
  await type(teacher, 'Length', '1');
  await expect(teacher.getByRole('alert')).toBeVisible();
  await teacher.getByRole('button', { name: 'Put away' }).click();
  await expect(wren.locator('[data-instrument]')).toHaveCount(0);
});

test('compasses stepped round their own circle draw the flower, as it is computed', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await take(teacher, 'Compasses');
  const draws = teacher.getByRole('button', { name: 'Draw by turning the pencil' });
  const carries = teacher.getByRole('button', { name: 'Carry it to another place' });
  const circle = async () => {
    const [cx, cy] = await at(teacher, ...(await placeOf(teacher, 'compasses', 0, 0)));
    const [x, y] = await middleOf(draws);
    const [reach, begin] = [Math.hypot(x - cx, y - cy), Math.atan2(y - cy, x - cx)];
    await teacher.mouse.move(x, y);
    await teacher.mouse.down();
    for (let n = 1; n <= 24; n++) {
      const angle = begin + (2 * Math.PI * n) / 24;
      const shaking = reach + 4 * Math.sin(n * 2.1);
      await teacher.mouse.move(cx + shaking * Math.cos(angle), cy + shaking * Math.sin(angle));
    }
    await teacher.mouse.up();
  };
  await opens(teacher).click();
  await type(teacher, 'Radius', '2');
  await teacher.getByRole('button', { name: 'Close', exact: true }).click();
  const radius = (20 * 96) / 25.4;
  const [x, y] = await placeOf(teacher, 'compasses', 0, 0);
  await circle();
  await expectMarks(teacher, 1);
  // The point goes to where the first circle meets the level line, then from crossing to crossing; the hand is 3 units off.
  for (let step = 0; step < 6; step++) {
    const [atX, atY] = await placeOf(teacher, 'compasses', 0, 0);
    const angle = (step * Math.PI) / 3;
    const to: Place = [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
    const off: Place = step === 0 ? [3, 0] : [2, -2];
    await dragBy(teacher, carries, [to[0] - atX + off[0], to[1] - atY + off[1]]);
    await circle();
    await expectMarks(teacher, step + 2);
  }
  const centres = (await stageState(wren)).marks
    .map(({ bounds }): Place => [bounds.x + bounds.width / 2, bounds.y + bounds.height / 2])
    .slice(1);
  await expect.poll(() => markCount(wren)).toBe(7);
  for (const [step, [cx, cy]] of centres.entries()) {
    const angle = (step * Math.PI) / 3;
    expect(Math.hypot(cx - x - radius * Math.cos(angle), cy - y - radius * Math.sin(angle))).toBeLessThan(
      0.5,
    );
  }
});

test('a protractor reads an angle that is drawn, and draws one of a given size', async ({ teacher }) => {
  await teacher.keyboard.press('l');
  await draw(teacher, [
    [200, 500],
    [300, 500],
    [400, 500],
  ]);
  await draw(teacher, [
    [201, 499],
    [300, 400],
    [350, 300],
  ]);
  await expectMarks(teacher, 2);
  await take(teacher, 'Protractor');
  const [mx, my] = await placeOf(teacher, 'protractor', 0, 0);
  const [bx, by] = await at(teacher, ...(await placeOf(teacher, 'protractor', -60, -30)));
  const { scale } = await stageState(teacher);
  await teacher.mouse.move(bx, by);
  await teacher.mouse.down();
  await teacher.mouse.move(bx + (203 - mx) * scale, by + (497 - my) * scale, { steps: 4 });
  await teacher.mouse.up();
  // It lies on the corner, its base line on the level edge: atan(200 / 150).
  await expect.poll(() => lies(teacher, 'protractor')).toBe('translate(200 500) rotate(0)');
  await expect(teacher.locator('[data-instrument=protractor]')).toContainText('53.1°');
  await opens(teacher).click();
  await type(teacher, 'Arm', '200');
  await expect(teacher.getByRole('alert')).toBeVisible();
  await type(teacher, 'Arm', '70');
  await teacher.getByRole('button', { name: 'Draw this angle' }).click();
  await expectMarks(teacher, 3);
  await expect(teacher.locator('[data-instrument=protractor]')).toContainText('70.0°');
});

test('students have instruments of their own when they may, and dividers step a length off', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await expect(wren.getByRole('button', { name: 'Measure', exact: true })).toBeDisabled();
  await setRules(teacher, ['Have rulers and compasses of their own']);
  await take(wren, 'Dividers');
  await opens(wren).click();
  await type(wren, 'Opening', '1.5');
  await wren.getByRole('button', { name: 'Close', exact: true }).click();
  for (let n = 1; n <= 4; n++) {
    await wren.getByRole('button', { name: 'Step on' }).click();
    await expectMarks(wren, n);
  }
  const dots = (await stageState(teacher)).marks.map(({ bounds }) => bounds.x + bounds.width / 2);
  await expect.poll(() => markCount(teacher)).toBe(4);
  for (let n = 1; n < dots.length; n++) expect(dots[n]! - dots[n - 1]!).toBeCloseTo((15 * 96) / 25.4, 1);
  // It is Wren's own, and lies where it did after the page is loaded again.
  await expect(teacher.locator('[data-instrument]')).toHaveCount(0);
  const before = await lies(wren, 'dividers');
  await wren.reload();
  await expect.poll(() => lies(wren, 'dividers')).toBe(before);
  await setRules(teacher, ['Have rulers and compasses of their own']);
  await expect(wren.locator('[data-instrument]')).toHaveCount(0);
});

test('two fingers turn a set square, and a pen draws along it', async ({ teacher }) => {
  await take(teacher, 'Set square 45°');
  const cdp = await teacher.context().newCDPSession(teacher);
  const finger = async (id: number, right: number, down: number) => {
    const [x, y] = await at(teacher, ...(await placeOf(teacher, 'square45', right, down)));
    return { id, x, y };
  };
  const [a, b] = [await finger(1, 60, -30), await finger(2, 200, -30)];
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [a] });
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [a, b] });
  // The second finger goes a quarter round the first one.
  const quarter = Math.hypot(b.x - a.x, b.y - a.y);
  for (let n = 1; n <= 6; n++) {
    const angle = (n * Math.PI) / 12;
    const to = { id: 2, x: a.x + quarter * Math.cos(angle), y: a.y + quarter * Math.sin(angle) };
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [a, to] });
  }
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expect(opens(teacher)).toHaveText('270°');

  const pen = async (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', right: number, down: number) => {
    const [x, y] = await at(teacher, ...(await placeOf(teacher, 'square45', right, down)));
    await cdp.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', buttons: 1, clickCount: 1, pointerType: 'pen', force: 0.4 }); // prettier-ignore
  };
  await pen('mousePressed', 40, 3);
  await pen('mouseMoved', 120, -5);
  await pen('mouseMoved', 200, 6);
  await pen('mouseReleased', 200, 6);
  await expectMarks(teacher, 1);
  const [line] = (await stageState(teacher)).marks;
  expect(line!.bounds.width - PEN).toBeLessThan(0.4);
  expect(Math.abs(line!.bounds.height - PEN - 160)).toBeLessThan(1);
});
