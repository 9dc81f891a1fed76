import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';

/** Makes the PDF of the open lesson or class by the interface. */
export async function makeHandout(page: Page): Promise<Uint8Array> {
  await page.getByRole('button', { name: 'Hand out' }).click();
  return saveHandout(page);
}

/** Makes the PDF as the open dialog is set, and saves it. */
export async function saveHandout(page: Page): Promise<Uint8Array> {
  await page.getByRole('button', { name: 'Make the PDF' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Save/ }).click();
  const bytes = await readFile(await (await download).path());
  await page.getByRole('button', { name: 'Close' }).click();
  return bytes;
}
