import type { Page } from '@playwright/test';

/** Chooses something that can be done with a lesson on the start page. */
export async function chooseForLesson(page: Page, title: string, item: string): Promise<void> {
  await page.getByRole('button', { name: `What to do with ${title}`, exact: true }).click();
  await page.getByRole('menuitem', { name: item, exact: true }).click();
}

/** Opens a lesson on the start page. */
export async function openLesson(page: Page, title: string): Promise<void> {
  const heading = page.getByRole('heading', { name: title, exact: true });
  await page.getByRole('main').getByRole('link').filter({ has: heading }).click();
}
