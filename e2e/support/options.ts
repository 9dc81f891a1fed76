import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';

/** Chooses something in the options of the tool in hand, and closes them. */
export async function option(
  page: Page,
  name: string | RegExp,
  role: 'radio' | 'button' | 'switch' = 'radio',
): Promise<void> {
  await page.getByRole('button', { name: /^Colour and options/ }).click();
  await page.getByRole(role, { name, exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
}
