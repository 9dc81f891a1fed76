import type { Page } from '@playwright/test';
import { bringIn, expect, joinAs, penState, startClass, surfaceShown, test } from '../support/fixtures';
import { hand } from '../support/roster';
import { plainPdf } from '../support/pdfs';
import { at, draw, stageState, typeAt } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'forest.pdf', bytes: await plainPdf(2) });
});

/** Puts a rectangle between two places on the page. */
async function rectangle(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  await page.keyboard.press('s');
  await draw(page, [from, [(from[0] + to[0]) / 2, to[1]], to]);
}

/** Opens the sheet that says what the mark at a place does in class. */
async function ruleOf(page: Page, x: number, y: number) {
  await page.keyboard.press('v');
  await page.mouse.click(...(await at(page, x, y)));
  await page.getByRole('button', { name: 'More for these marks' }).click();
  await page.getByRole('menuitem', { name: 'What it does in class' }).click();
  const sheet = page.getByRole('dialog', { name: 'What it does in class' });
  return {
    sheet,
    async keep(): Promise<void> {
      await sheet.getByRole('button', { name: 'Keep this' }).click();
      await expect(sheet).toBeHidden();
      await page.keyboard.press('Escape');
    },
  };
}

const thing = (page: Page, words: string) =>
  page.getByRole('button', { name: `To be moved: Text: ${words}` });

/** Where the middle of something is in the window. */
async function middle(page: Page, words: string): Promise<[number, number]> {
  const box = (await thing(page, words).boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
}

async function carry(page: Page, words: string, to: [number, number]): Promise<void> {
  await page.mouse.move(...(await middle(page, words)));
  await page.mouse.down();
  const end = await at(page, ...to);
  await page.mouse.move(end[0] - 8, end[1], { steps: 3 });
  await page.mouse.move(...end);
  await page.mouse.up();
}

/** The middle of a thing, as a place on the page. */
async function placed(page: Page, words: string): Promise<[number, number]> {
  const { x, y, scale } = await stageState(page);
  const [mx, my] = await middle(page, words);
  return [Math.round((mx - x) / scale), Math.round((my - y) / scale)];
}

test('a class sorts things into places, taps and fills in, by rules that were made in the sheet', async ({
  browser,
  teacher,
  server,
}) => {
  await rectangle(teacher, [40, 60], [240, 200]);
  await rectangle(teacher, [280, 60], [480, 200]);
  await rectangle(teacher, [300, 600], [400, 650]);
  for (const [x, y, words] of [
    [60, 300, 'cat'],
    [60, 350, 'oak'],
    [60, 430, 'Well done'],
    [60, 520, '…'],
  ] as const)
    await typeAt(teacher, x, y, words);

  for (const [x, words] of [
    [42, 'cat'],
    [282, 'oak'],
  ] as const) {
    const place = await ruleOf(teacher, x, 100);
    await place.sheet.getByLabel('Things belong here').check();
    await place.sheet
      .getByRole('group', { name: 'What belongs here?' })
      .getByRole('button', { name: words })
      .click();
    await place.keep();
  }
  const praise = await ruleOf(teacher, 80, 445);
  await praise.sheet.getByLabel('Not to be seen until').check();
  await praise.keep();
  const button = await ruleOf(teacher, 302, 620);
  await button.sheet.getByRole('button', { name: 'Add' }).click();
  await button.sheet.getByRole('button', { name: 'Keep this' }).click();
  await expect(button.sheet.getByRole('alert')).toContainText('Something is missing');
  await button.sheet
    .getByRole('group', { name: 'Which marks?' })
    .getByRole('button', { name: 'Well done' })
    .click();
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/a-sheet.png' });
  await button.keep();
  const gap = await ruleOf(teacher, 66, 530);
  await gap.sheet.getByLabel('The class fills it in').selectOption('With words');
  await gap.sheet.getByLabel('What is right, a line for each').fill('photosynthesis');
  await gap.keep();
  await expect(teacher.getByRole('img', { name: 'Can be moved by the class' })).toHaveCount(2);
  await expect(teacher.getByRole('img', { name: 'Not to be seen at first' })).toBeVisible();

  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/a-tags.png' });
  const code = await startClass(teacher);
  await penState(teacher, true);
  // With the tool to select in hand, a teacher arranges; with any other they answer like everybody.
  await teacher.keyboard.press('p');
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const nash = await joinAs(browser, server.url, code, 'Nash', { width: 390, height: 844 });
  await carry(wren, 'oak', [120, 120]);
  await expect(wren.getByRole('status').filter({ hasText: 'Does not belong there' })).toBeVisible();
  await carry(wren, 'oak', [400, 120]);
  await expect(wren.getByRole('status').filter({ hasText: 'Right' })).toBeVisible();
  // It lies in the middle of its place, for everybody.
  for (const page of [wren, nash, teacher])
    await expect.poll(() => placed(page, 'oak').then(([x]) => Math.abs(x - 380) < 4)).toBe(true);

  // By keys alone.
  await thing(nash, 'cat').focus();
  await nash.keyboard.press('Enter');
  for (let i = 0; i < 9; i++) await nash.keyboard.press('ArrowUp');
  for (let i = 0; i < 2; i++) await nash.keyboard.press('ArrowRight');
  await nash.keyboard.press('Enter');
  await expect(nash.getByRole('status').filter({ hasText: 'Right' })).toBeVisible();

  const words = async (page: Page) => (await stageState(page)).marks.map(({ text }) => text);
  expect(await words(teacher)).not.toContain('Well done');
  await nash.getByRole('button', { name: /^To be tapped/ }).click();
  for (const page of [nash, teacher]) await expect.poll(() => words(page)).toContain('Well done');
  await wren.getByLabel(/^To be filled in/).fill('breathing');
  await wren.getByLabel(/^To be filled in/).press('Enter');
  await expect(wren.getByRole('status').filter({ hasText: 'Not right yet' })).toBeVisible();
  // What is half typed when pens go down, or the page is loaded again, is still there.
  await wren.getByLabel(/^To be filled in/).fill('Fotosynthesis');
  await penState(teacher, false);
  await expect(wren.getByLabel(/^To be filled in/)).toBeHidden();
  await wren.reload();
  await surfaceShown(wren);
  await penState(teacher, true);
  await expect(wren.getByLabel(/^To be filled in/)).toHaveValue('Fotosynthesis');
  await wren.getByLabel(/^To be filled in/).press('Enter');
  await expect(wren.getByRole('status').filter({ hasText: /^Right/ })).toBeVisible();
  await expect(nash.getByLabel(/^To be filled in/)).toHaveValue('Fotosynthesis');
  if (process.env.LOOK) {
    await teacher.screenshot({ path: '/tmp/look/a-class.png' });
    await nash.screenshot({ path: '/tmp/look/a-phone.png' });
  }
});

test('where things belong is shown by example and tried; on copies of their own, students answer apart', async ({
  browser,
  teacher,
  server,
}) => {
  await rectangle(teacher, [40, 60], [240, 200]);
  await rectangle(teacher, [280, 60], [480, 200]);
  await typeAt(teacher, 60, 300, 'sun');
  await typeAt(teacher, 60, 360, 'moon');
  await typeAt(teacher, 60, 420, 'star');
  const place = await ruleOf(teacher, 42, 100);
  await place.sheet.getByLabel('Things belong here').check();
  await place.keep();
  for (const [y, how, pile] of [
    [312, 'Freely', false],
    [372, 'Within an area', false],
    [432, 'Freely', true],
  ] as const) {
    const rule = await ruleOf(teacher, 70, y);
    await rule.sheet.getByLabel('The class may move it').selectOption(how);
    if (how !== 'Freely') {
      await rule.sheet.getByRole('button', { name: 'Keep this' }).click();
      await expect(rule.sheet.getByRole('alert')).toContainText('Choose what it is moved in');
      await rule.sheet.getByRole('button', { name: 'Shape: rectangle' }).last().click();
    }
    if (pile) await rule.sheet.getByLabel('As a pile').check();
    await rule.keep();
  }

  await teacher.getByRole('button', { name: 'Show where things belong' }).click();
  await teacher.getByRole('button', { name: 'Take this as the solution' }).click();
  await expect(teacher.getByText('Nothing lies in a place yet.')).toBeVisible();
  await carry(teacher, 'sun', [140, 120]);
  await teacher.getByRole('button', { name: 'Take this as the solution' }).click();
  await teacher.getByRole('button', { name: 'Try it' }).click();
  await carry(teacher, 'moon', [140, 120]);
  // It does not leave its area.
  await expect.poll(() => placed(teacher, 'moon').then(([x]) => x)).toBeGreaterThan(270);
  await carry(teacher, 'sun', [100, 100]);
  await expect(teacher.getByRole('status').filter({ hasText: 'Right' })).toBeVisible();
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/a-try.png' });
  await teacher.getByRole('button', { name: 'Stop' }).click();

  const code = await startClass(teacher);
  await penState(teacher, true);
  await teacher.keyboard.press('p');
  await hand(teacher, 'Own copies');
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const nash = await joinAs(browser, server.url, code, 'Nash', { width: 390, height: 844 });
  const again = wren.getByRole('button', { name: 'Start again' });
  await expect(again).toBeDisabled();
  await carry(wren, 'sun', [140, 130]);
  await expect(wren.getByRole('status').filter({ hasText: 'Right' })).toBeVisible();
  await carry(wren, 'star', [300, 450]);
  await expect(thing(wren, 'star')).toHaveCount(2);
  await wren.getByRole('button', { name: /^Undo/ }).click();
  await expect(thing(wren, 'star')).toHaveCount(1);
  // What is answered is there again after a reload, and nobody else's.
  await wren.reload();
  await surfaceShown(wren);
  await expect.poll(() => placed(wren, 'sun').then(([, y]) => y)).toBeLessThan(200);
  for (const page of [nash, teacher])
    await expect.poll(() => placed(page, 'sun').then(([, y]) => y)).toBeGreaterThan(290);
  // On the wall each copy has the thing once: where that student has put it, or where it was.
  await hand(teacher, 'See all copies');
  // Around where it was at first, between the places and the other things.
  const drawn = (name: string) =>
    teacher
      .getByRole('button', { name: `Open the copy of ${name}` })
      .locator('canvas')
      .evaluate((canvas: HTMLCanvasElement) => {
        const scale = canvas.width / 793.7;
        const rect = [50, 288, 60, 26].map((side) => Math.round(side * scale)) as [
          number,
          number,
          number,
          number,
        ];
        return canvas
          .getContext('2d')!
          .getImageData(...rect)
          .data.some((value, i) => i % 4 === 0 && value < 150);
      });
  await expect.poll(() => drawn('Nash')).toBe(true);
  await expect.poll(() => drawn('Wren')).toBe(false);
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/a-wall.png' });
  await teacher.getByRole('button', { name: 'Keep 1 as a page' }).click();
  await teacher.keyboard.press('Escape');
  await again.click();
  await expect.poll(() => placed(wren, 'sun').then(([, y]) => y)).toBeGreaterThan(290);
  await expect(again).toBeDisabled();
});
