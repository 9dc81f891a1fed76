import type { Page } from '@playwright/test';
import { expectReachable } from '../support/controls';
import { bringIn, expect, startWriting, surfaceShown, test } from '../support/fixtures';
import { cutTexts, speakIn, untranslated, visitorIn } from '../support/language';
import { plainPdf } from '../support/pdfs';
import { expectMarks, draw, wave } from '../support/stage';

/** What people and files are called, what stands on the pages, and what is the same in every language. */
const DATA = [
  'Doodla',
  'bridges',
  'Ada Fenn',
  'Wren',
  'Bridges, sheet',
  '1-3, 7',
  'https://',
  'http://',
  'localhost',
  // The key that goes to the notices.
  'alt+T',
];

/** Nothing is left in another language, and nothing is cut. */
async function expectTranslated(page: Page, data: readonly string[] = DATA): Promise<void> {
  await expect.poll(() => untranslated(page, data), { timeout: 20_000 }).toEqual([]);
  expect(await cutTexts(page)).toEqual([]);
}

test('a language that is longer, written with other letters and from right to left has everything, and nothing is cut', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startWriting(teacher);
  const data = [...DATA, '/join', code, code.slice(0, 3), code.slice(3)];
  const lesson = teacher.url();
  await speakIn(teacher, 'qps');
  await teacher.goto('/');
  await expect(teacher.locator('html')).toHaveAttribute('dir', 'rtl');
  await teacher.getByRole('heading', { level: 1 }).waitFor();
  await expectTranslated(teacher, data);
  await expectReachable(teacher);
  await teacher.goto(lesson);
  await surfaceShown(teacher);
  await expectTranslated(teacher, data);
  await expectReachable(teacher);
  // Every menu and sheet that a bar opens.
  const openers = teacher.locator('[aria-haspopup]');
  for (let i = 0; i < (await openers.count()); i++) {
    if (!(await openers.nth(i).isEnabled())) continue;
    await openers.nth(i).click();
    await teacher.locator('[role=menu], [role=dialog]').first().waitFor();
    await expectTranslated(teacher, data);
    await teacher.keyboard.press('Escape');
    await expect(teacher.locator('[role=menu], [role=dialog]')).toHaveCount(0);
  }
  // Every dialog that a button of the class's bar opens; the pens' switch opens none.
  const bar = teacher.locator('[data-bar=class] button:not([aria-haspopup])');
  for (let i = 0; i < (await bar.count()); i++) {
    const before = await bar.nth(i).getAttribute('title');
    if (before !== null) continue;
    await bar.nth(i).click();
    await teacher.getByRole('dialog').waitFor();
    await expectTranslated(teacher, data);
    await expectReachable(teacher);
    await teacher.keyboard.press('Escape');
    await expect(teacher.getByRole('dialog')).toHaveCount(0);
  }

  const wren = await visitorIn(browser, server.url, 'qps', { width: 390, height: 844 });
  await wren.goto(`/join/${code}`);
  await expectTranslated(wren, data);
  await wren.locator('input[name=name]').fill('Wren');
  await wren.locator('button[type=submit]').click();
  await surfaceShown(wren);
  await expectTranslated(wren, data);
  await expectReachable(wren);
  await wren.setViewportSize({ width: 320, height: 640 });
  await wren.getByRole('toolbar').getByRole('button').last().click();
  await wren.getByRole('dialog').waitFor();
  await expectTranslated(wren, data);
  await wren.close();
});

test('a student whose browser speaks German joins, writes and is told in German; the teacher goes on in English', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startWriting(teacher);
  const context = await browser.newContext({ baseURL: server.url, locale: 'de-AT' });
  const wren = await context.newPage();
  await wren.goto('/join/FFFFFF');
  await expect(wren.locator('html')).toHaveAttribute('lang', 'de');
  await expect(wren.getByRole('heading', { name: 'Komm in deine Klasse' })).toBeVisible();
  await wren.getByLabel('Dein Name').fill('Wren');
  await wren.getByRole('button', { name: 'Hinein' }).click();
  await expect(wren.getByText('Zu diesem Code gibt es keine Klasse.')).toBeVisible();
  await wren.getByLabel('Code der Klasse').fill(code);
  await wren.getByRole('button', { name: 'Hinein' }).click();
  await surfaceShown(wren);
  await expect(wren.getByText('Stifte gehoben')).toBeVisible();
  await draw(wren, wave(100, 300));
  await expectMarks(teacher, 1);
  await expect(teacher.getByRole('button', { name: 'Students: 1' })).toBeVisible();

  await wren.keyboard.press('?');
  await wren.getByLabel('Sprache').selectOption('English');
  await surfaceShown(wren);
  await expect(wren.getByText('Pens up')).toBeVisible();
  await expectMarks(wren, 1);
  await context.close();
});
