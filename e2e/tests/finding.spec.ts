import type { Page } from '@playwright/test';
import { bringIn, expect, startClass, surfaceShown, test } from '../support/fixtures';
import { chooseForLesson } from '../support/lessonMenu';
import { plainPdf } from '../support/pdfs';
import { expectMarks, stageState, typeAt } from '../support/stage';

const card = (page: Page, title: string) =>
  page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: title, exact: true }) });
const place = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Which lessons' }).getByRole('button', { name }).click();

async function threeLessons(page: Page): Promise<void> {
  for (const name of ['beams', 'arches', 'cables']) {
    await bringIn(page, { name: `${name}.pdf`, bytes: await plainPdf(1) });
    await page.getByRole('link', { name: 'Back to your lessons' }).click();
  }
  await expect(page.getByRole('heading', { level: 2 })).toHaveText(['cables', 'arches', 'beams']);
}

test('lessons lie in folders, have stars and tags, are sorted, copied, put away and brought back', async ({
  teacher,
}) => {
  const titles = teacher.getByRole('main').getByRole('listitem').getByRole('heading', { level: 2 });
  await threeLessons(teacher);
  await teacher.getByLabel('Order').selectOption('By title');
  await expect(titles).toHaveText(['arches', 'beams', 'cables']);

  await chooseForLesson(teacher, 'arches', 'Put in a folder');
  await teacher.getByLabel('In a new folder there (name)').fill('Year 8');
  await teacher.getByRole('button', { name: 'Put it there' }).click();
  await place(teacher, 'Folders');
  await expect(titles).toHaveText(['beams', 'cables']);
  await teacher.getByRole('button', { name: 'Year 8' }).click();
  await expect(titles).toHaveText(['arches']);
  await teacher.getByRole('button', { name: 'New folder' }).click();
  await teacher.getByLabel('Name of the folder').fill('Loads');
  await teacher.getByRole('button', { name: 'Keep this name' }).click();
  await chooseForLesson(teacher, 'arches', 'Put in a folder');
  await teacher.getByRole('radio', { name: 'Year 8 / Loads' }).click();
  await teacher.getByRole('button', { name: 'Put it there' }).click();
  await expect(titles).toHaveCount(0);
  await teacher.getByRole('button', { name: 'Loads' }).click();
  await expect(titles).toHaveText(['arches']);
  // The address holds the place, so going back in the browser does too.
  await teacher.goBack();
  await expect(titles).toHaveCount(0);
  await teacher.getByRole('button', { name: 'Take this folder away' }).click();
  await expect(teacher.getByRole('button', { name: 'Loads' })).toBeVisible();

  await place(teacher, 'Last used');
  await teacher.getByRole('button', { name: 'Favourite: beams' }).click();
  await chooseForLesson(teacher, 'cables', 'Tags');
  await teacher.getByLabel('Tags', { exact: true }).fill('hanging, Year 8');
  await teacher.getByRole('button', { name: 'Keep these tags' }).click();
  await teacher.getByRole('button', { name: 'hanging', exact: true }).click();
  await expect(titles).toHaveText(['cables']);
  await teacher.getByRole('button', { name: 'hanging', exact: true }).click();
  await place(teacher, 'Favourites');
  await expect(titles).toHaveText(['beams']);

  await chooseForLesson(teacher, 'beams', 'Put in the archive');
  await expect(teacher.getByText('No favourites yet.')).toBeVisible();
  await place(teacher, 'Archive');
  await chooseForLesson(teacher, 'beams', 'Take out of the archive');
  await place(teacher, 'Last used');
  await chooseForLesson(teacher, 'beams', 'Make a copy');
  await expect(card(teacher, 'beams (copy)')).toBeVisible();
  await chooseForLesson(teacher, 'beams', 'Delete');
  await expect(card(teacher, 'beams')).toHaveCount(0);
  await place(teacher, 'Trash');
  await teacher.getByRole('button', { name: 'Bring back beams' }).click();
  await expect(teacher.getByText('The trash is empty.')).toBeVisible();
  await place(teacher, 'Last used');
  await expect(card(teacher, 'beams')).toBeVisible();
});

test('words are found where they stand, on pages of lessons and classes, and a past class is one tap away', async ({
  teacher,
}) => {
  await bringIn(teacher, { name: 'spans.pdf', bytes: await plainPdf(3) });
  await teacher.keyboard.press('PageDown');
  await typeAt(teacher, 100, 300, 'The keystone locks the arch');
  await expectMarks(teacher, 1);
  await startClass(teacher);
  await teacher.keyboard.press('PageDown');
  const drawn = teacher.waitForRequest((request) => /\/sittings\/.*\/cover$/.test(request.url()));
  await typeAt(teacher, 100, 500, 'Voussoirs push sideways');
  await expectMarks(teacher, 1);
  // What the class looks like on the start page is drawn while nobody writes.
  expect((await (await drawn).response())!.status()).toBe(204);
  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByLabel('Class', { exact: true }).fill('8 Heron');
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  await teacher.goto('/');

  const search = teacher.getByRole('searchbox', { name: 'Search' });
  await search.fill('sheet 3');
  const pages = teacher.getByRole('region', { name: 'Pages' });
  await expect(pages.getByRole('link')).toHaveText([/Page 3 of spans.*Bridges, sheet 3/]);
  await search.fill('keyst');
  await pages.getByRole('link', { name: /Page 2 of spans/ }).click();
  await surfaceShown(teacher);
  await expect(teacher.locator('[data-found]')).toHaveCount(1);
  const { x, y, scale } = await stageState(teacher);
  const box = (await teacher.locator('[data-found]').boundingBox())!;
  expect(Math.abs(box.x + 3 - (x + 100 * scale))).toBeLessThan(6);
  expect(box.y).toBeGreaterThan(y + 250 * scale);
  await teacher.getByRole('button', { name: 'Found: keyst. Hide' }).click();
  await expect(teacher.locator('[data-found]')).toHaveCount(0);

  // Going back comes back to what was searched for.
  await teacher.goBack();
  await expect(search).toHaveValue('keyst');
  await search.fill('VOUSSOIR');
  await pages.getByRole('link', { name: /Page 3 of .*8 Heron/ }).click();
  await surfaceShown(teacher);
  await expect(teacher.getByLabel('Page 3 of 3')).toBeVisible();
  await expect(teacher.locator('[data-found]')).toHaveCount(1);

  await teacher.goto('/');
  await search.fill('heron');
  await expect(teacher.getByRole('region', { name: 'Classes' }).getByRole('link')).toHaveText([/8 Heron/]);
  await search.fill('nothing of the kind');
  await expect(teacher.getByText('0 found')).toBeVisible();
  await search.fill('');
  await teacher
    .getByRole('region', { name: 'Last classes' })
    .getByRole('link', { name: /8 Heron/ })
    .click();
  await surfaceShown(teacher);
  await expect(teacher.getByText('Class ended')).toBeVisible();
});
