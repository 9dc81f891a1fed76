import type { Page } from '@playwright/test';
import { expect } from './fixtures';
import type { NamedFile } from './fixtures';

export interface ExerciseForm {
  kind: string;
  list?: string;
  level?: string;
  pictures?: NamedFile[];
}

/** Opens the sheet that makes an exercise of a list, and fills it in. */
export async function openExercise(page: Page, { kind, list, level, pictures = [] }: ExerciseForm) {
  await page.getByRole('button', { name: 'Bring in' }).click();
  await page.getByRole('menuitem', { name: 'An exercise from a list' }).click();
  const sheet = page.getByRole('dialog', { name: 'An exercise from a list' });
  await sheet.getByLabel('Kind of exercise').selectOption(kind);
  if (pictures.length > 0) {
    const files = pictures.map(({ name, bytes }) => ({
      name,
      mimeType: 'image/png',
      buffer: Buffer.from(bytes),
    }));
    await sheet.locator('input[type=file][multiple]').setInputFiles(files);
    await expect(sheet.getByLabel('List', { exact: true })).not.toHaveValue('');
  }
  if (list !== undefined) await sheet.getByLabel('List', { exact: true }).fill(list);
  if (level !== undefined) await sheet.getByLabel('How hard').selectOption(level);
  return sheet;
}

/** Makes an exercise on a new page, which is shown. */
export async function makeExercise(page: Page, form: ExerciseForm): Promise<void> {
  const sheet = await openExercise(page, form);
  const { list } = form;
  if (list !== undefined) await expect(sheet.getByText('This is an example')).toBeHidden();
  await expect(sheet.getByRole('img', { name: 'What the class gets' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Put it on a new page' }).click();
  await expect(sheet).toBeHidden();
}
