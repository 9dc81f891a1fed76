import { bringIn, expect, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, typeAt, wave } from '../support/stage';

test('a link shows pages to whoever has it and its password, until it is taken back', async ({
  browser,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await draw(teacher, wave(80, 500, 300));
  await typeAt(teacher, 100, 700, 'Arches push outwards');
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const dialog = teacher.getByRole('dialog');
  await dialog.getByLabel('Hand out as').selectOption({ label: 'A link that shows the pages' });
  await dialog.getByLabel('Password').fill('river');
  await dialog.getByRole('button', { name: 'Make the link' }).click();
  const url = await dialog.getByLabel('Link', { exact: true }).inputValue();

  const guest = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage();
  await guest.goto(url);
  await guest.getByLabel('Password').fill('lake');
  await guest.getByRole('button', { name: 'Show the pages' }).click();
  await expect(guest.getByRole('alert')).toContainText('That is not the password.');
  await guest.getByLabel('Password').fill('river');
  await guest.getByRole('button', { name: 'Show the pages' }).click();
  const shown = guest.frameLocator('iframe');
  await expect(shown.getByText('Arches push outwards')).toBeVisible();
  await expect(shown.locator('section')).toHaveCount(2);
  const download = guest.waitForEvent('download');
  await guest.getByRole('button', { name: 'Save the pages' }).click();
  expect((await download).suggestedFilename()).toBe('bridges.html');

  await dialog.getByRole('button', { name: 'Hand out something else' }).click();
  await dialog.getByLabel('Hand out as').selectOption({ label: 'A link that shows the pages' });
  await dialog.getByRole('button', { name: 'Take back' }).click();
  await expect(dialog.getByRole('button', { name: 'Take back' })).toHaveCount(0);
  await guest.reload();
  await expect(guest.getByText('This link does not show anything any more.')).toBeVisible();
});
