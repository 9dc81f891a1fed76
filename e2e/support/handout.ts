import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';

/** A file that was saved, by the name that the browser would give it. */
export interface Saved {
  name: string;
  bytes: Uint8Array;
}

/** Makes the PDF of the open lesson or class by the interface. */
export async function makeHandout(page: Page): Promise<Uint8Array> {
  await page.getByRole('button', { name: 'Hand out' }).click();
  return saveHandout(page);
}

/** Makes the PDF as the open dialog is set, and saves it. */
export async function saveHandout(page: Page): Promise<Uint8Array> {
  const { bytes } = await saveAs(page, 'PDF');
  await page.getByRole('button', { name: 'Close' }).click();
  return bytes;
}

/** Makes a handout of a format as the open dialog is set otherwise, and saves it; the dialog can be used again. */
export async function saveAs(page: Page, format: string): Promise<Saved> {
  await page.getByLabel('Hand out as').selectOption({ label: format });
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Make the/ })
    .click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Save/ }).click();
  const saved = await download;
  const bytes = await readFile(await saved.path());
  await page.getByRole('button', { name: 'Hand out something else' }).click();
  return { name: saved.suggestedFilename(), bytes };
}
