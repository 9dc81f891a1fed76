import type { Page } from '@playwright/test';
import { CuttableLine } from '../support/cuttableLine';
import {
  bringIn,
  expect,
  joinAs,
  penState,
  startClass,
  startWriting,
  surfaceShown,
  test,
} from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { at, draw, drawAndRest, expectMarks, markCount, stageState, wave } from '../support/stage';
import { forStudent, setRules } from '../support/roster';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
});

async function beginTyping(page: Page, x: number, y: number, text: string): Promise<void> {
  await page.keyboard.press('t');
  await page.mouse.click(...(await at(page, x, y)));
  await page.getByLabel('Text on the page').waitFor();
  await page.keyboard.type(text);
}

const notice = (page: Page) => page.getByRole('region', { name: 'Text that was not put on a page' });

test('what is being typed outlives page turns, pens down, a reload and the end of its page', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const line = await CuttableLine.to(server.port);
  const wren = await joinAs(browser, line.url, code, 'Wren');

  // The teacher turns the page: the text is finished on the page that it was begun on.
  await beginTyping(wren, 100, 200, 'The load runs into both banks');
  await teacher.keyboard.press('PageDown');
  await expect(wren.getByText('Page 2', { exact: true })).toBeVisible();
  await expectMarks(wren, 0);
  await teacher.keyboard.press('PageUp');
  await expectMarks(wren, 1);
  await expectMarks(teacher, 1);

  // Pens go down: it is kept, and put in when they are up again.
  await beginTyping(wren, 100, 400, 'An arch is pushed');
  await penState(teacher, false);
  await expect(notice(wren)).toContainText('An arch is pushed');
  await penState(teacher, true);
  await notice(wren).getByRole('button', { name: 'Put it in' }).click();
  await expectMarks(teacher, 2);
  await expect(notice(wren)).toBeHidden();

  // The page is loaded anew in the middle of a word.
  await beginTyping(wren, 100, 600, 'A truss is');
  await wren.reload();
  await surfaceShown(wren);
  await expect(notice(wren)).toContainText('A truss is');
  await notice(wren).getByRole('button', { name: 'Put it in' }).click();
  await expectMarks(teacher, 3);

  // The page is deleted while there is no connection: the words can go onto another.
  line.cut();
  await expect(wren.getByText('No connection.')).toBeVisible();
  await beginTyping(wren, 100, 700, 'A cable is pulled');
  await wren.keyboard.press('Escape');
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  await teacher.getByRole('button', { name: 'What to do with page 1', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'Delete', exact: true }).click();
  await expect(teacher.getByLabel('Page 1 of 2')).toBeVisible();
  line.mend();
  await expect(notice(wren)).toContainText('The page that you were typing on is gone');
  await notice(wren).getByRole('button', { name: 'Put it on this page' }).click();
  await expectMarks(teacher, 1);
  await expectMarks(wren, 1);
  line.close();
});

test('a stroke stays on the page that it was begun on when the teacher turns in the middle of it', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await wren.keyboard.press('p');
  await drawAndRest(wren, wave(100, 300));
  await teacher.keyboard.press('PageDown');
  await expect(wren.getByText('Page 2', { exact: true })).toBeVisible();
  await wren.mouse.move(600, 600);
  await wren.mouse.up();
  await expectMarks(wren, 0);
  await expectMarks(teacher, 0);
  await teacher.keyboard.press('PageUp');
  await expectMarks(teacher, 1);
  await expectMarks(wren, 1);
});

test('undo is of the page in sight, never empties a lesson, and says what it does with pages', async ({
  teacher,
}) => {
  // Nothing was done here by hand yet: what was brought in is not undone.
  await teacher.keyboard.press('Control+z');
  await expect(teacher.getByLabel('Page 1 of 3')).toBeVisible();
  await teacher.keyboard.press('p');
  await draw(teacher, wave(100, 200));
  await teacher.keyboard.press('PageDown');
  await draw(teacher, wave(100, 300));
  await expectMarks(teacher, 1);
  for (let i = 0; i < 5; i++) await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 0);
  await teacher.keyboard.press('PageUp');
  await expectMarks(teacher, 1);

  // A page that was deleted comes back, and is gone to.
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  await teacher.getByRole('button', { name: 'What to do with page 3', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'Delete', exact: true }).click();
  await expect(teacher.getByLabel('Page 1 of 2')).toBeVisible();
  await teacher.keyboard.press('Control+z');
  await expect(teacher.getByLabel('Page 3 of 3')).toBeVisible();
  await expect(teacher.getByText('Undone: this page is as it was.')).toBeVisible();
});

test('pages brought in during a class are that class’s own, unless they are kept in the lesson too', async ({
  teacher,
}) => {
  await startClass(teacher);
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: /document/i }).click();
  const bytes = Buffer.from(await plainPdf(2));
  await teacher
    .getByRole('dialog')
    .getByLabel('Choose documents')
    .setInputFiles({ name: 'more.pdf', mimeType: 'application/pdf', buffer: bytes });
  await teacher.getByRole('button', { name: 'Put all pages in' }).click();
  await expect(teacher.getByLabel('Page 2 of 5')).toBeVisible();
  const lesson = async () => {
    const id = /lesson\/([\w-]+)/.exec(
      (await teacher.getByRole('link', { name: 'Back to the lesson' }).getAttribute('href'))!,
    )![1];
    const page = await teacher.context().newPage();
    await page.goto(`/lesson/${id}`);
    await surfaceShown(page);
    return page;
  };
  const before = await lesson();
  await expect(before.getByLabel('Page 1 of 3')).toBeVisible();
  await before.close();
  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByLabel('Keep the 2 pages that were added in the lesson too').check();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  await expect(teacher.getByLabel(/Page \d of 5/)).toBeVisible();
});

test('presenting without a class asks at the end, and the next group starts fresh', async ({ teacher }) => {
  await teacher.keyboard.press('PageDown');
  await teacher.keyboard.press('u');
  await teacher.waitForURL(/\/sitting\//);
  await surfaceShown(teacher);
  await expect(teacher.getByText('2 / 3')).toBeVisible();
  await teacher.keyboard.press('p');
  await draw(teacher, wave(200, 300));
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('u');
  await teacher.getByRole('button', { name: 'Drop and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  await surfaceShown(teacher);
  await teacher.keyboard.press('PageDown');
  expect(await markCount(teacher)).toBe(0);
});

test('students stay with the class; where they may roam, a sign leads back', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await wren.keyboard.press('ArrowRight');
  await expect(wren.getByText('Your teacher turns the pages for now.')).toBeVisible();
  await expect(wren.getByText('Page 1', { exact: true })).toBeVisible();
  // Presenting leaves the name and the pens' state where they are.
  await wren.keyboard.press('u');
  await expect(wren.getByText('Wren', { exact: true })).toBeVisible();
  await expect(wren.getByText('Pens down')).toBeVisible();
  await wren.keyboard.press('u');

  await setRules(teacher, ['Students may turn pages by themselves']);
  await expect(wren.getByRole('button', { name: 'Next page' })).toBeVisible();
  await wren.keyboard.press('ArrowRight');
  await expect(wren.getByText('You are on page 2, the class is on page 1.')).toBeVisible();
  await wren.getByRole('button', { name: 'Back to the class' }).click();
  await expect(wren.getByText('Page 1', { exact: true })).toBeVisible();

  await forStudent(teacher, 'Wren', 'Take Wren out of the class');
  await expect(wren.getByRole('heading', { name: 'You are not in this class' })).toBeVisible();
});

test('what was written without a connection is kept when the class ends, and joins in when it goes on', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const line = await CuttableLine.to(server.port);
  const wren = await joinAs(browser, line.url, code, 'Wren');
  line.cut();
  await expect(wren.getByText('No connection.')).toBeVisible();
  await wren.keyboard.press('p');
  await draw(wren, wave(80, 120));
  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  line.mend();
  await expect(wren.getByText(/The class ended before something that you wrote could be sent/)).toBeVisible();
  expect(await markCount(wren)).toBe(1);
  const download = wren.waitForEvent('download');
  await wren.getByRole('button', { name: 'Save as PDF' }).click();
  expect((await download).suggestedFilename()).toBe('my-work.pdf');

  await teacher.getByRole('button', { name: /^Classes/ }).click();
  await teacher
    .getByRole('button', { name: /^Go on/ })
    .first()
    .click();
  await teacher.waitForURL(/\/sitting\//);
  await surfaceShown(teacher);
  await penState(teacher, true);
  await expectMarks(teacher, 1);
  await expect.poll(async () => (await stageState(wren)).waiting).toBe(0);
  line.close();
});
