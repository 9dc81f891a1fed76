import type { Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, startClass, test } from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { similarity } from '../support/pictures';
import { at, expectMarks, stageState } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

const box = (page: Page) => page.getByLabel('Text on the page');
const letters = (page: Page) => page.getByRole('toolbar', { name: 'Chosen letters' });

async function beginAt(page: Page, x: number, y: number): Promise<void> {
  await page.keyboard.press('t');
  await page.mouse.click(...(await at(page, x, y)));
  await box(page).waitFor();
}

/** Chooses the first word of the text. */
async function chooseFirstWord(page: Page): Promise<void> {
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Control+Shift+ArrowRight');
}

test('single words are bold, larger and coloured: in the box, on the page, for students and in the PDF', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await beginAt(teacher, 80, 380);
  await teacher.keyboard.type('Keystone carries the load of the arch');
  await teacher.keyboard.press('Enter');
  await teacher.keyboard.press('Enter');
  await teacher.keyboard.type('down both sides');
  const bold = letters(teacher).getByRole('button', { name: 'Bold' });
  // The box learns a little later than the browser what is chosen by keys.
  await expect(async () => {
    await chooseFirstWord(teacher);
    await teacher.keyboard.press('Control+b');
    await expect(bold).toHaveAttribute('aria-pressed', 'true', { timeout: 5000 });
  }).toPass();
  for (let i = 0; i < 3; i++) await letters(teacher).getByRole('button', { name: 'Larger letters' }).click();
  await letters(teacher).getByRole('button', { name: 'Colour of these letters' }).click();
  await teacher.getByRole('radio', { name: 'Vermilion' }).click();
  await teacher.keyboard.press('Escape');
  await expect(box(teacher)).toBeFocused();
  await expect(async () => {
    await teacher.keyboard.press('Control+End');
    await expect(bold).toHaveAttribute('aria-pressed', 'false', { timeout: 5000 });
  }).toPass();
  // The browser lays text out by CSS, the page by ours: both have every letter in the same place.
  const area = (await box(teacher).boundingBox())!;
  const shot = async () => PNG.sync.read(await teacher.screenshot({ clip: area }));
  await teacher.evaluate(() => document.fonts.ready);
  const typed = await shot();
  await teacher.keyboard.press('Escape');
  await expect(box(teacher)).toBeHidden();
  await expectMarks(teacher, 1);
  // At this scale one line's foot falls between two pixels, which the browser rounds and the page does not: 0.966. All
  // of it a pixel off is 0.88 down and 0.84 across.
  await expect.poll(async () => similarity(typed, await shot())).toBeGreaterThan(0.96);
  await expectMarks(wren, 1);
  const [mark] = (await stageState(teacher)).marks;
  const [same] = (await stageState(wren)).marks;
  await expect.poll(async () => (await stageState(wren)).marks[0]!.bounds).toEqual(mark!.bounds);
  expect(same!.text).toBe('Keystone carries the load of the arch\n\ndown both sides');
  const handout = new OutsideReader(await makeHandout(teacher));
  handout.check();
  expect(handout.text(1).replaceAll(/\s+/g, ' ')).toContain(
    'Keystone carries the load of the arch down both',
  );
  const [large, small] = [handout.boxOf(1, 'Keystone'), handout.boxOf(1, 'carries')];
  expect((large.bottom - large.y) / (small.bottom - small.y)).toBeCloseTo(1.25 ** 3, 1);
  // One step takes the whole text away; what it is given as a whole, all its letters take on.
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 100, 420)));
  const high = mark!.bounds.height;
  await teacher.getByRole('button', { name: 'Colour and look' }).click();
  await teacher.getByRole('button', { name: 'Bold' }).click();
  await teacher.getByRole('button', { name: 'Bold' }).click();
  await teacher.keyboard.press('Escape');
  await expect.poll(async () => (await stageState(teacher)).marks[0]!.bounds.height).toBeCloseTo(high, 0);
  await teacher.keyboard.press('Control+z');
  await teacher.keyboard.press('Control+z');
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 0);
});

test('text from elsewhere keeps its lines and what is bold in it; too much is refused, and nothing is lost', async ({
  teacher,
}) => {
  await beginAt(teacher, 80, 380);
  await teacher.keyboard.type('Before ');
  const paste = (type: string, data: string) =>
    box(teacher).evaluate(
      (target, [kind, text]) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData(kind!, text!);
        target.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      },
      [type, data],
    );
  await paste(
    'text/html',
    '<p>an <b>arch</b><script>alert(1)</script></p><ul><li style="color:red">and a pier</li></ul>',
  );
  await expect(box(teacher).locator('p')).toHaveText(['Before an arch', 'and a pier']);
  await paste('text/plain', '\n\nafter');
  await expect(box(teacher).locator('p')).toHaveText(['Before an arch', 'and a pier', '', 'after']);
  await teacher.keyboard.press('Control+Home');
  for (let i = 0; i < 11; i++) await teacher.keyboard.press('ArrowRight');
  await expect(letters(teacher).getByRole('button', { name: 'Bold' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await paste('text/plain', 'x'.repeat(10_001));
  await expect(teacher.getByText('A text holds 10,000 letters at most.')).toBeVisible();
  await expect(box(teacher).locator('p').first()).toHaveText('Before an arch');
  await teacher.keyboard.press('Control+z');
  await expect(box(teacher).locator('p')).toHaveText(['Before an arch', 'and a pier']);
  await teacher.keyboard.press('Escape');
  const texts = async () => (await stageState(teacher)).marks.map(({ text }) => text);
  await expect.poll(texts).toEqual(['Before an arch\nand a pier']);
});
