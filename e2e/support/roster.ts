import type { Page } from '@playwright/test';

/** Opens the list of who is in the class. */
export async function openRoster(teacher: Page): Promise<void> {
  await teacher.getByRole('button', { name: /^Students: / }).click();
  await teacher.getByRole('dialog', { name: 'Students' }).waitFor();
}

/** Does something about one student, by the list's menu, and closes the list. */
export async function forStudent(teacher: Page, name: string, entry: string): Promise<void> {
  await openRoster(teacher);
  await teacher.getByRole('button', { name: `More for ${name}` }).click();
  await teacher
    .getByRole('menuitem', { name: entry })
    .or(teacher.getByRole('menuitemcheckbox', { name: entry }))
    .click();
  await closeRoster(teacher);
}

/** Chooses an entry of the menu that says how the class works on the shown page. */
export async function hand(teacher: Page, entry: string): Promise<void> {
  await teacher.getByRole('button', { name: /^How the class works/ }).click();
  await teacher
    .getByRole('menuitemradio', { name: entry, exact: true })
    .or(teacher.getByRole('menuitem', { name: entry, exact: true }))
    .click();
}

/** Says what all students may do, by switches and choices of the list, and closes it. */
export async function setRules(teacher: Page, names: readonly string[]): Promise<void> {
  await openRoster(teacher);
  const dialog = teacher.getByRole('dialog', { name: 'Students' });
  await dialog.getByText('What students may do').click();
  for (const name of names)
    await dialog
      .getByRole('switch', { name })
      .or(dialog.getByRole('radio', { name, exact: true }))
      .click();
  await closeRoster(teacher);
}

async function closeRoster(teacher: Page): Promise<void> {
  const dialog = teacher.getByRole('dialog', { name: 'Students' });
  await teacher.getByRole('menu').waitFor({ state: 'hidden' });
  if (await dialog.isVisible()) await teacher.keyboard.press('Escape');
  await dialog.waitFor({ state: 'hidden' });
}
