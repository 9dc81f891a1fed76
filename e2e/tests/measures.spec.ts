import type { Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { option } from '../support/options';
import { plainPdf } from '../support/pdfs';
import { at, draw, stageState } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

const panel = (page: Page) => page.getByRole('region', { name: 'Measures' });

async function type(page: Page, label: string, value: string): Promise<void> {
  await panel(page).getByLabel(label, { exact: true }).fill(value);
  await page.keyboard.press('Enter');
}

/** Words on the page, as they are handed out. */
async function wordsOn(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Hand out' }).click();
  const { name, bytes } = await saveAs(page, 'Drawings (SVG)');
  await page.getByRole('button', { name: 'Close' }).click();
  const svg = name.endsWith('.zip') ? Object.values(unzipSync(bytes))[0]! : bytes;
  return [...strFromU8(svg).matchAll(/<text[^>]*>([^<]*)/g)].map(([, text]) => text!).join(' ');
}

test('a triangle shows its angles and lengths, obeys what is typed, and measures in the scale of a map', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('s');
  await option(teacher, 'Triangle');
  await draw(teacher, [
    [200, 200],
    [500, 400],
  ]);
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 350, 400)));
  await teacher.getByRole('button', { name: 'Measures' }).click();
  for (const name of ['Angles', 'Lengths', 'Perimeter', 'Area'])
    await panel(teacher).getByRole('switch', { name }).click();
  await expect(panel(teacher).getByText('Angles add up to 180°')).toBeVisible();
  await expect(panel(teacher).getByText('isosceles')).toBeVisible();

  // From B to C the base; ∠B is typed, A and B stay.
  const before = (await stageState(wren)).marks[0]!.bounds;
  await type(teacher, '∠B', '90');
  await expect(panel(teacher).getByText('right-angled')).toBeVisible();
  await expect.poll(async () => (await stageState(wren)).marks[0]!.bounds).not.toEqual(before);
  await type(teacher, 'AB', '5');
  await expect(panel(teacher).getByLabel('AB', { exact: true })).toHaveValue('5.0');
  await type(teacher, '∠A', '200');
  await expect(panel(teacher).getByRole('alert')).toHaveText(/There is no such figure/);
  await type(teacher, '∠A', '2o');
  await expect(panel(teacher).getByRole('alert')).toBeVisible();
  await panel(teacher).getByRole('button', { name: 'Close' }).click();
  const words = await wordsOn(teacher);
  expect(words).toContain('5.0 cm');
  expect(words).toMatch(/A = [\d.]+ cm²/);

  // A stretch of a map is known: all is measured in its scale.
  await teacher.keyboard.press('l');
  await draw(teacher, [
    [150, 700],
    [450, 700],
  ]);
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 300, 700)));
  await teacher.getByRole('button', { name: 'Measures' }).click();
  await panel(teacher).getByRole('switch', { name: 'Lengths' }).click();
  await type(teacher, 'Length', '12');
  await expect(panel(teacher).getByLabel('AB', { exact: true })).toHaveValue('12.0');
  expect(await wordsOn(teacher)).toContain('12.0 km');
  expect(await wordsOn(teacher)).not.toContain('cm');
});
