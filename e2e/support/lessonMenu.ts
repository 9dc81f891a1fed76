import type { Page } from '@playwright/test';

/** Chooses something that can be done with a lesson on the start page. */
export async function chooseForLesson(page: Page, title: string, item: string): Promise<void> {
  await page.getByRole('button', { name: `What to do with ${title}`, exact: true }).click();
  await page.getByRole('menuitem', { name: item, exact: true }).click();
}
