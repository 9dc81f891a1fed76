import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { strFromU8 } from 'fflate';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, stageState } from '../support/stage';

const PHONE = { width: 390, height: 844 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'water.pdf', bytes: await plainPdf(1) });
});

const panelOf = (page: Page) => page.getByRole('region', { name: 'An idea map' });
const rowsOf = (page: Page) =>
  panelOf(page)
    .getByLabel(/^Idea, level/)
    .evaluateAll((rows) => rows.map((row) => (row as HTMLInputElement).value));
/** The row that has the focus, once it is the wanted one. */
const inHand = (page: Page, words: string) =>
  expect(page.locator('input[data-idea]:focus')).toHaveValue(words);
const textsOn = async (page: Page) =>
  (await stageState(page)).marks.flatMap(({ text }) => text?.trim() || []).sort();

async function save(page: Page, entry: string): Promise<string> {
  await panelOf(page).getByRole('button', { name: 'Outline and files' }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: entry }).click();
  return readFile(await (await saved).path(), 'utf8');
}

test('an idea map is made by keys alone, saved, read again and handed out as ordinary marks', async ({
  teacher,
}) => {
  const { keyboard } = teacher;
  await teacher.getByRole('button', { name: 'Bring in' }).focus();
  await keyboard.press('Enter');
  await keyboard.press('ArrowDown');
  for (let i = 0; i < 12 && !(await teacher.locator(':focus').innerText()).includes('idea map'); i++)
    await keyboard.press('ArrowDown');
  await keyboard.press('Enter');
  await inHand(teacher, 'Our topic');
  await keyboard.press('Control+a');
  await keyboard.type('Water');
  await keyboard.press('Enter');
  await inHand(teacher, '');
  await keyboard.type('Ice');
  await keyboard.press('Control+Enter');
  await inHand(teacher, '');
  await keyboard.type('Snow');
  await keyboard.press('Enter');
  await inHand(teacher, '');
  await keyboard.type('Vapour');
  await keyboard.press('Alt+ArrowLeft');
  await expect.poll(() => rowsOf(teacher)).toEqual(['Water', 'Ice', 'Snow', 'Vapour']);
  await inHand(teacher, 'Vapour');
  await keyboard.press('ArrowUp');
  await inHand(teacher, 'Snow');
  await expect.poll(() => textsOn(teacher)).toEqual(['Ice', 'Snow', 'Vapour', 'Water']);
  // Four ideas and three lines, which are marks like others.
  await expectMarks(teacher, 7);
  await expect(panelOf(teacher).getByLabel('Laid out')).toHaveValue('sides');

  // A file that is read becomes a map of its own; what is wrong with one is said.
  expect(await save(teacher, 'Save as Markdown')).toBe('# Water\n\n- Ice\n  - Snow\n- Vapour\n');
  const opml = await save(teacher, 'Save as OPML');
  const chooser = panelOf(teacher).getByLabel('Read a file (OPML, Markdown)');
  await chooser.setInputFiles({
    name: 'a.opml',
    mimeType: 'text/x-opml',
    buffer: Buffer.from('<opml><body'),
  });
  await expect(teacher.getByText('This file is no OPML that can be read')).toBeVisible();
  await chooser.setInputFiles({ name: 'a.opml', mimeType: 'text/x-opml', buffer: Buffer.from(opml) });
  await expectMarks(teacher, 14);
  await expect.poll(() => rowsOf(teacher)).toEqual(['Water', 'Ice', 'Snow', 'Vapour']);
  await panelOf(teacher).getByRole('button', { name: 'Close' }).click();
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 7);

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const svg = strFromU8((await saveAs(teacher, 'Drawings (SVG)')).bytes);
  for (const words of ['Water', 'Ice', 'Snow', 'Vapour']) expect(svg).toContain(`>${words}</text>`);
});

test('a map is drawn: bubbles and lines between them; then it is laid out, folded, coloured and moved', async ({
  teacher,
}) => {
  await teacher.getByRole('button', { name: 'Shape', exact: true }).click();
  await draw(teacher, [
    [200, 300],
    [320, 360],
  ]);
  await expectMarks(teacher, 1);
  await draw(teacher, [
    [420, 200],
    [520, 250],
  ]);
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Line', exact: true }).click();
  await draw(teacher, [
    [318, 330],
    [422, 225],
  ]);
  await expectMarks(teacher, 3);
  await teacher.keyboard.press('v');
  const { x, y, scale } = await stageState(teacher);
  await teacher.mouse.click(x + 470 * scale, y + 202 * scale);
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'As an idea map' }).click();
  const panel = panelOf(teacher);
  await expect(panel.getByLabel(/^Idea, level/)).toHaveCount(2);
  // The words of a bubble are those that are typed here.
  await panel.getByLabel('Idea, level 1').fill('Bubble');
  await panel.getByLabel('Idea, level 1').press('Control+Enter');
  await expect(panel.getByLabel('Idea, level 2')).toBeFocused();
  await teacher.keyboard.type('Typed');
  await panel.getByLabel('Laid out').selectOption('down');
  await expectMarks(teacher, 5);
  const bubble = async () =>
    (await stageState(teacher)).marks.filter(({ kind }) => kind === 'shape')[1]!.bounds;
  await expect.poll(async () => (await bubble()).y).toBeGreaterThan(360);
  await panel.getByRole('button', { name: 'Fold what hangs on it: Bubble' }).click();
  await expect(panel.getByLabel(/^Idea, level/)).toHaveCount(2);
  await expectMarks(teacher, 3);
  await panel.getByRole('button', { name: 'Show what hangs on it: Bubble' }).click();
  await expect(panel.getByLabel(/^Idea, level/)).toHaveCount(3);
  await expectMarks(teacher, 5);

  await panel.getByLabel('Idea, level 1').focus();
  await panel.getByRole('button', { name: 'Colour of the branch' }).click();
  await teacher.keyboard.press('Escape');
  await expect(teacher.getByRole('menuitem', { name: 'Green' })).toBeHidden();
  await expect(panel).toBeVisible();
  await panel.getByRole('button', { name: 'Colour of the branch' }).click();
  await teacher.getByRole('menuitem', { name: 'Green' }).click();
  await expect
    .poll(
      async () =>
        (await stageState(teacher)).marks.filter(
          ({ kind, colour }) => kind === 'path' && colour === '#007a5e',
        ).length,
    )
    .toBe(2);
  const before = await bubble();
  await panel.getByRole('button', { name: 'Select the whole branch' }).click();
  await panel.getByRole('button', { name: 'Close' }).click();
  await teacher.getByTestId('stage').focus();
  await teacher.keyboard.press('ArrowRight');
  await expect.poll(async () => (await bubble()).x).toBeGreaterThan(before.x);
});

test('teacher and student on a phone add to one map at the same time', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  await penState(teacher, true);
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'An idea map' }).click();
  await inHand(teacher, 'Our topic');
  await teacher.keyboard.press('Enter');
  await inHand(teacher, '');
  await teacher.keyboard.type('By the teacher');
  const wren = await joinAs(browser, server.url, code, 'Wren', PHONE);
  await wren.getByRole('button', { name: 'Text', exact: true }).click();
  await wren.getByRole('button', { name: /^Colour and options/ }).click();
  await wren.getByRole('button', { name: 'An idea map' }).click();
  await expect.poll(() => rowsOf(wren)).toEqual(['Our topic', 'By the teacher']);
  await expect(panelOf(wren).getByLabel('Idea, level 0')).toBeFocused();
  if (process.env.LOOK) await wren.screenshot({ path: '/tmp/look/im-phone.png' });
  // What others have put is theirs; what hangs on it may be anybody's.
  await expect(panelOf(wren).getByLabel('Idea, level 1')).not.toBeEditable();
  await panelOf(wren).getByLabel('Idea, level 1').focus();
  await panelOf(wren).getByRole('button', { name: 'An idea that hangs on it' }).click();
  await inHand(wren, '');
  await Promise.all([
    wren.keyboard.type('By Wren'),
    (async () => {
      await teacher.keyboard.press('Enter');
      await inHand(teacher, '');
      await teacher.keyboard.type('Also by the teacher');
    })(),
  ]);
  const all = ['Our topic', 'By the teacher', 'By Wren', 'Also by the teacher'];
  await expect.poll(() => rowsOf(teacher)).toEqual(all);
  await expect.poll(() => rowsOf(wren)).toEqual(all);
  await expect.poll(async () => (await textsOn(wren)).length).toBe(4);
  // What a student has hung on it is laid out with the rest by the teacher's next step.
  await expect(panelOf(teacher).getByLabel('Laid out')).toHaveValue('sides');
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/im-class.png' });
});

test('a map that was prepared is opened by the class, a tap on an idea at a time', async ({
  browser,
  server,
  teacher,
}) => {
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'An idea map' }).click();
  const panel = panelOf(teacher);
  await panel.getByRole('button', { name: 'Outline and files' }).click();
  await teacher.getByRole('menuitem', { name: 'Type or paste an outline' }).click();
  await panel.getByLabel('Outline', { exact: true }).fill('Water\n  Ice\n    Snow\n  Vapour');
  await panel.getByRole('button', { name: 'Make a map of it' }).click();
  await expectMarks(teacher, 7);
  await panel.getByLabel('Idea, level 0').focus();
  const opens = panel.getByRole('button', { name: 'In class a tap on an idea shows what hangs on it' });
  await opens.click();
  await expect(opens).toHaveAttribute('aria-pressed', 'true');
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/im-taps.png' });
  await panel.getByRole('button', { name: 'Close' }).click();

  const code = await startClass(teacher);
  await penState(teacher, true);
  const wren = await joinAs(browser, server.url, code, 'Wren', PHONE);
  const idea = (words: string) => wren.getByRole('button', { name: `To be tapped: Text: ${words}` });
  await expect.poll(() => textsOn(wren)).toEqual(['Water']);
  await idea('Water').click();
  await expect.poll(() => textsOn(teacher)).toEqual(['Ice', 'Vapour', 'Water']);
  await idea('Ice').click();
  await expect.poll(() => textsOn(teacher)).toEqual(['Ice', 'Snow', 'Vapour', 'Water']);
  await teacher.getByRole('button', { name: 'Start again' }).click();
  await expect.poll(() => textsOn(wren)).toEqual(['Water']);
});
