import type { Locator, Page } from '@playwright/test';

export const shelf = (page: Page) => page.getByRole('region', { name: 'Shelf' });

/** Opens the shelf, or a part of it. */
export async function openShelf(page: Page, part?: string): Promise<Locator> {
  if (!(await shelf(page).isVisible()))
    await page.getByRole('button', { name: 'Shelf', exact: true }).click();
  // The page makes room for it.
  await shelf(page).waitFor();
  if (part !== undefined) await shelf(page).getByRole('tab', { name: part }).click();
  return shelf(page);
}
