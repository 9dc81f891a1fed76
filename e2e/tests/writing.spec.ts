import type { Locator, Page } from '@playwright/test';
import { seeded } from '../../core/test/hand/random.mjs';
import { writtenLetters } from '../../core/test/hand/writing.mjs';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { expectMarks, stageState } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

/** Writes a line by hand, in a face that nothing was learned from; places in the window, CSS pixels. */
async function write(
  page: Page,
  text: string,
  from: { x: number; y: number },
  size: number,
): Promise<number> {
  const letters = writtenLetters(text, { face: 'HersheySans1', size, random: seeded(9), ...from });
  const strokes = letters.flatMap((letter) => letter.strokes);
  for (const points of strokes) {
    await page.mouse.move(points[0]!, points[1]!);
    await page.mouse.down();
    for (let i = 12; i + 1 < points.length; i += 12) await page.mouse.move(points[i]!, points[i + 1]!);
    await page.mouse.move(points.at(-4)!, points.at(-3)!);
    await page.mouse.up();
  }
  return strokes.length;
}

/** Where a line fits on something, a little from its left edge. */
async function placeIn(page: Locator, left: number, down: number): Promise<{ x: number; y: number }> {
  const box = (await page.boundingBox())!;
  return { x: box.x + left, y: box.y + box.height * down };
}

const typed = async (page: Page) =>
  (await stageState(page)).marks.flatMap(({ kind, text }) => (kind === 'text' ? [text] : []));

test('handwriting becomes typed text for all, another reading of a word is taken, and one undo gives the ink back', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('p');
  const { x, y, scale } = await stageState(teacher);
  const strokes = await write(teacher, 'the river', { x: x + 40 * scale, y: y + 200 * scale }, 90 * scale);
  await expectMarks(teacher, strokes);
  await teacher.getByRole('button', { name: /^Colour and options/ }).click();
  await teacher.getByRole('button', { name: 'Type out what I just wrote' }).click();
  await expect.poll(() => typed(teacher)).toEqual(['the river']);
  await teacher.keyboard.press('Escape');
  await expect.poll(() => typed(wren)).toEqual(['the river']);

  await teacher.getByRole('button', { name: 'river: what else it can be' }).click();
  const second = teacher.getByRole('menuitem').nth(1);
  const other = (await second.textContent())!;
  expect(other).not.toBe('river');
  await second.click();
  await expect.poll(() => typed(teacher)).toEqual([`the ${other}`]);
  await teacher.getByRole('button', { name: 'As written' }).click();
  await expectMarks(teacher, strokes);
  expect(await typed(teacher)).toEqual([]);

  // The same for what is selected, and undone by the key.
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Turn into typed text' }).click();
  await expect.poll(() => typed(teacher)).toEqual(['the river']);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, strokes);
});

test('a hand is taught by copying lines, kept for the teacher alone and forgotten when they say so', async ({
  teacher,
}) => {
  await teacher.getByRole('button', { name: /^Colour and options/ }).click();
  await teacher.getByRole('button', { name: 'Teach my hand' }).click();
  const dialog = teacher.getByRole('dialog', { name: 'Teach my hand' });
  const field = dialog.getByRole('img', { name: /^Write here/ });
  await expect(dialog.getByRole('button', { name: 'Forget my hand' })).toBeHidden();
  await write(teacher, 'no', await placeIn(field, 20, 0.68), 60);
  await dialog.getByRole('button', { name: 'Next line' }).click();
  await expect(dialog.getByRole('alert')).toBeVisible();
  for (let line = 1; line <= 5; line++) {
    await dialog.getByText(`Line ${line} of 5`).waitFor();
    if (line === 1) await dialog.getByRole('button', { name: 'Write it again' }).click();
    const text = (await dialog.getByTestId('to-copy').textContent())!;
    await write(teacher, text, await placeIn(field, 16, 0.68), 52);
    await dialog.getByRole('button', { name: line < 5 ? 'Next line' : 'Keep my hand' }).click();
  }
  await expect(dialog).toBeHidden();
  const kept = await teacher.request.get('/api/preferences/hand');
  const { value } = (await kept.json()) as { value: { samples: { character: string }[] } };
  const letters = new Set(value.samples.map(({ character }) => character));
  for (const letter of 'abcdefghijklmnopqrstuvwxyzABCXYZ0123456789') expect(letters).toContain(letter);

  await teacher.getByRole('button', { name: 'Teach my hand' }).click();
  await dialog.getByRole('button', { name: 'Forget my hand' }).click();
  await expect(dialog).toBeHidden();
  const gone = await teacher.request.get('/api/preferences/hand');
  expect(await gone.json()).toEqual({ value: { samples: [] } });
});
