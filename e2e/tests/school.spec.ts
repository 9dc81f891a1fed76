import { bringIn, expect, surfaceShown, test } from '../support/fixtures';
import { chooseForLesson, openLesson } from '../support/lessonMenu';
import { plainPdf } from '../support/pdfs';
import { expectMarks, typeAt } from '../support/stage';

test('a colleague comes by an invitation, gets a copy of a lesson, and leaves it to the school', async ({
  browser,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  await typeAt(teacher, 100, 700, 'Arches push outwards');
  await expectMarks(teacher, 1);
  await teacher.goto('/');
  await teacher.getByRole('link', { name: 'The school' }).click();
  const name = `Bea ${Date.now()}`;
  await teacher.getByLabel('Name', { exact: true }).fill(name);
  await teacher.getByLabel('E-mail address').fill(`${Date.now()}@school.example`);
  await teacher.getByRole('button', { name: 'Make an invitation' }).click();
  const url = await teacher.getByLabel('Link', { exact: true }).inputValue();

  const bea = await (await browser.newContext()).newPage();
  await bea.goto(url);
  await expect(bea.getByLabel('Your name')).toHaveValue(name);
  await bea.getByLabel('Password').fill('chalk-and-board');
  await bea.getByRole('button', { name: 'Start using Doodla' }).click();
  await expect(bea.getByRole('heading', { name: 'Your lessons' })).toBeVisible();
  await expect(bea.getByRole('link', { name: 'The school' })).toHaveCount(0);

  await teacher.goto('/');
  await chooseForLesson(teacher, 'bridges', 'Give a copy to a colleague');
  await teacher.getByLabel(name).check();
  await teacher.getByRole('button', { name: 'Give the copy' }).click();
  await expect(teacher.getByText(`${name} has a copy of “bridges” now.`)).toBeVisible();
  await bea.reload();
  await openLesson(bea, 'bridges');
  await surfaceShown(bea);
  await expectMarks(bea, 1);

  // The lesson itself, on which both work.
  await chooseForLesson(teacher, 'bridges', 'Work on it together');
  await teacher.getByLabel(name).check();
  await teacher.getByRole('button', { name: 'Let them work on it' }).click();
  await expect(teacher.getByRole('dialog')).toBeHidden();
  await openLesson(teacher, 'bridges');
  await surfaceShown(teacher);
  await bea.goto(new URL('/', url).href);
  await bea.getByRole('link', { name: /with Ada Fenn/ }).click();
  await surfaceShown(bea);
  await expect(bea.getByRole('button', { name: 'Start class' })).toHaveCount(0);
  await typeAt(bea, 100, 300, 'Trusses are light');
  await expectMarks(teacher, 2);
  await typeAt(teacher, 100, 500, 'Beams are easy');
  await expectMarks(bea, 3);
  await bea.goto(new URL('/', url).href);
  await teacher.goto('/');

  await teacher.goto('/school');
  await teacher.getByLabel('Name of the school').fill('Quillmere Community School');
  await teacher.getByRole('button', { name: 'Keep this name' }).click();
  await expect(teacher.getByRole('heading', { name: 'Quillmere Community School' })).toBeVisible();
  const row = teacher.getByRole('listitem').filter({ hasText: name });
  await row.getByRole('button', { name: 'Leaves the school' }).click();
  await row.getByRole('button', { name: 'Take out of the school' }).click();
  await expect(row).toHaveCount(0);
  await bea.goto(new URL('/', url).href);
  await expect(bea.getByRole('button', { name: 'Sign in' })).toBeVisible();
});
