import type { Page } from '@playwright/test';

/** Chooses something that can be done with the n-th page. */
export async function pageMenu(page: Page, n: number, item: string): Promise<void> {
  const strip = page.getByRole('navigation', { name: 'Pages' });
  if (!(await strip.isVisible())) await page.getByRole('button', { name: 'Show all pages' }).click();
  await page.getByRole('button', { name: `What to do with page ${n}`, exact: true }).click();
  await page.getByRole('menuitem', { name: item, exact: true }).click();
}
