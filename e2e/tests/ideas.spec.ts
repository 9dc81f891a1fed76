import type { Locator, Page } from '@playwright/test';
import { bringIn, expect, joinAs, startClass, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { expectMarks } from '../support/stage';

const PHONE = { width: 390, height: 844 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

const note = (page: Page, words: string): Locator =>
  page.getByRole('button', { name: new RegExp(`^Idea of .*: ${words}$`) });

/** Where a note is once it has come to rest. */
async function middleOf(of: Locator): Promise<{ x: number; y: number }> {
  const box = (await of.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

async function drag(page: Page, from: Locator, to: Locator): Promise<void> {
  const [a, b] = [await middleOf(from), await middleOf(to)];
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move(b.x - 10, b.y, { steps: 4 });
  await page.mouse.move(b.x, b.y);
  await page.mouse.up();
}

async function add(page: Page, words: string): Promise<void> {
  await page.getByLabel('Your idea').fill(words);
  await page.getByLabel('Your idea').press('Enter');
  await expect(page.getByLabel('Your idea')).toHaveValue('');
}

/** Whether notes lie beside each other, as the browser shows them. */
async function expectApart(page: Page): Promise<void> {
  await expect(async () => {
    const notes = await page.getByRole('button', { name: /^Idea of/ }).all();
    const boxes = await Promise.all(notes.map(async (one) => (await one.boundingBox())!));
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        expect(
          a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height,
        ).toBe(false);
  }).toPass();
}

async function setHow(teacher: Page, names: readonly (string | RegExp)[]): Promise<void> {
  await teacher.getByRole('button', { name: /How ideas are collected|votes? each/ }).click();
  for (const name of names)
    await teacher
      .getByRole('menuitemcheckbox', { name })
      .or(teacher.getByRole('menuitemradio', { name }))
      .click();
  await teacher.keyboard.press('Escape');
}

test('ideas are collected by all, put together, voted on, sorted, and become a page', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  await teacher.getByRole('button', { name: 'Ask the class' }).click();
  await teacher.getByLabel('Question (or say it aloud)').fill('What makes a bridge strong?');
  await teacher.getByRole('radio', { name: 'Ideas on notes' }).click();
  await teacher.getByRole('dialog').getByRole('button', { name: 'Ask', exact: true }).click();

  await Promise.all([add(wren, 'Triangles'), add(tove, 'Good steel')]);
  await Promise.all([add(wren, 'Thick ropes'), add(tove, 'No wind'), add(teacher, 'A deep footing')]);
  for (const page of [teacher, wren, tove]) {
    await expect(page.getByRole('button', { name: /^Idea of/ })).toHaveCount(5);
    await expectApart(page);
  }

  // Students only where they are let; until then a note stays where it is.
  await drag(wren, note(wren, 'Triangles'), note(wren, 'Good steel'));
  await expect(wren.getByRole('dialog')).toBeHidden();
  await setHow(teacher, ['Students may put notes together']);
  await expect(async () => {
    await drag(wren, note(wren, 'Good steel'), note(wren, 'Thick ropes'));
    await expect(wren.getByRole('dialog', { name: 'Title of the group' })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await wren.getByRole('textbox', { name: 'Title of the group' }).fill('What it is made of');
  await wren.getByRole('button', { name: 'Keep' }).click();
  await expect(teacher.getByRole('button', { name: 'Change the title “What it is made of”' })).toBeVisible();
  // By keys and menus, too.
  await note(teacher, 'A deep footing').press('Enter');
  await teacher.getByRole('menuitem', { name: 'Put into “What it is made of”' }).click();
  await expectApart(teacher);
  const [x, title] = await Promise.all([
    middleOf(note(teacher, 'A deep footing')),
    teacher.getByRole('button', { name: /^Change the title/ }).boundingBox(),
  ]);
  expect(x.y).toBeGreaterThan(title!.y);

  await setHow(teacher, ['1 vote each']);
  await tove.getByRole('button', { name: 'Vote for: Triangles' }).click();
  await expect(tove.getByText('0 votes left')).toBeVisible();
  await wren.getByRole('button', { name: 'Vote for: No wind' }).click();
  await expect(teacher.getByTitle('1 vote', { exact: true })).toHaveCount(2);
  await expect(wren.getByTitle('1 vote', { exact: true })).toHaveCount(0);
  await tove.getByRole('button', { name: 'Vote for: No wind' }).click();
  await expect(tove.getByText('You have given all your votes.')).toBeVisible();
  await tove.getByRole('button', { name: 'Take your vote back from: Triangles' }).click();
  await tove.getByRole('button', { name: 'Vote for: No wind' }).click();
  await expect(teacher.getByTitle('2 votes')).toHaveCount(1);
  await setHow(teacher, ['Most votes first', 'Everybody sees the votes']);
  await expect
    .poll(async () => (await middleOf(note(tove, 'No wind'))).x < (await middleOf(note(tove, 'Triangles'))).x)
    .toBe(true);

  await teacher.getByRole('button', { name: 'Make a page of it' }).click();
  // Five notes, the question, the title, and the votes of one note.
  await expectMarks(teacher, 8);
  await expect(teacher.getByRole('group', { name: 'Ideas' })).toBeHidden();
  await expectMarks(tove, 8);
});

test('one’s own note can be changed and taken away, another’s cannot, and a reload keeps all', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren', PHONE);
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  await teacher.getByRole('button', { name: 'Ask the class' }).click();
  await teacher.getByRole('radio', { name: 'Ideas on notes' }).click();
  await teacher.getByRole('dialog').getByRole('button', { name: 'Ask', exact: true }).click();
  await add(wren, 'Trianlges');
  await note(tove, 'Trianlges').click();
  await expect(tove.getByRole('menu')).toContainText('Trianlges');
  await expect(tove.getByRole('menuitem')).toHaveCount(0);
  await tove.keyboard.press('Escape');
  await note(wren, 'Trianlges').click();
  await wren.getByRole('menuitem', { name: 'Change the words' }).click();
  await wren.getByLabel('What the note says').fill('Triangles');
  await wren.getByRole('button', { name: 'Keep' }).click();
  await expect(note(tove, 'Triangles')).toBeVisible();
  await wren.reload();
  await expect(note(wren, 'Triangles')).toBeVisible();
  await note(wren, 'Triangles').click();
  await wren.getByRole('menuitem', { name: 'Take the note away' }).click();
  await expect(note(teacher, 'Triangles')).toBeHidden();
  await setHow(teacher, ['Everybody may add notes']);
  await expect(wren.getByLabel('Your idea')).toBeHidden();
  await teacher.getByRole('button', { name: 'Stop collecting; the notes stay' }).click();
  await expect(teacher.getByRole('group', { name: 'Ideas' })).toBeHidden();
});
