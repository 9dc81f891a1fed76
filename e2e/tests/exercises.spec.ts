import type { Locator, Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { PNG } from 'pngjs';
import { makeExercise, openExercise } from '../support/exercises';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { hand } from '../support/roster';
import { at, stageState } from '../support/stage';

const PHONE = { width: 390, height: 844 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'words.pdf', bytes: await plainPdf(1) });
});

/** A picture of one colour, in a file. */
function picture(name: string): { name: string; bytes: Uint8Array } {
  const png = new PNG({ width: 60, height: 40 });
  png.data.fill(150);
  return { name, bytes: PNG.sync.write(png) };
}

const look = async (page: Page, name: string) => {
  if (process.env.LOOK) await page.screenshot({ path: `/tmp/look/${name}.png` });
};

const RIGHT = /^Right$/;
const WRONG = /^Not right yet$/;

const said = (page: Page, words: string | RegExp) => page.getByRole('status').filter({ hasText: words });
const tap = (page: Page, words: string) =>
  page.getByRole('button', { name: `To be tapped: Shape: ${words}`, exact: true });

test('an exercise is made of a list: what is missing is said, what was typed is kept, it is seen before', async ({
  teacher,
}) => {
  const refused = await openExercise(teacher, { kind: 'Match pairs' });
  await expect(refused.getByText('This is an example')).toBeVisible();
  await refused.getByRole('button', { name: 'Put it on a new page' }).click();
  await expect(refused.getByRole('alert')).toContainText('type or paste a list first');
  await refused.getByLabel('List', { exact: true }).fill('dog = Hund\ncat');
  await expect(refused.getByRole('status')).toContainText('Something is missing after “=”: cat');
  await teacher.keyboard.press('Escape');
  // What was typed is there again.
  const again = await openExercise(teacher, { kind: 'Match pairs' });
  await expect(again.getByLabel('List', { exact: true })).toHaveValue('dog = Hund\ncat');
  await teacher.keyboard.press('Escape');

  const dice = await openExercise(teacher, { kind: 'Dice' });
  await dice.getByLabel('How many').fill('3');
  await dice.getByRole('button', { name: 'Put it on a new page' }).click();
  await expect(dice).toBeHidden();
  await expect(teacher.getByRole('img', { name: 'Does something when it is tapped' })).toHaveCount(4);

  const label = await openExercise(teacher, { kind: 'Label a picture', pictures: [picture('flower.png')] });
  await label.getByLabel('List', { exact: true }).fill('flower.png\nstem\nleaf');
  const preview = label.getByRole('img', { name: 'What the class gets' });
  await expect(label.getByText('Tap on the picture where this belongs: stem')).toBeVisible();
  await expect(preview).toBeVisible();
  const { x, y, width, height } = (await preview.boundingBox())!;
  await teacher.mouse.click(x + width * 0.45, y + height * 0.4);
  await expect(label.getByText('Tap on the picture where this belongs: leaf')).toBeVisible();
  // The second by keys alone.
  await label.getByRole('application', { name: /^By keys/ }).focus();
  for (let i = 0; i < 4; i++) await teacher.keyboard.press('ArrowRight');
  await teacher.keyboard.press('Enter');
  await expect(label.getByText('All have their place')).toBeVisible();
  await look(teacher, 'x-label');
  await label.getByLabel('On the page that is shown').check();
  await label.getByRole('button', { name: 'Put it on this page' }).click();
  await expect(label).toBeHidden();
  await expect
    .poll(async () => (await stageState(teacher)).marks.filter(({ kind }) => kind === 'picture').length)
    .toBe(1);
  await teacher.keyboard.press('Control+z');
  await expect
    .poll(async () => (await stageState(teacher)).marks.filter(({ kind }) => kind === 'picture').length)
    .toBe(0);
});

/** The cells of a row of results. */
const cells = (row: Locator) => row.locator('th, td').allInnerTexts();

test('a class of six answers on copies with mistakes; the teacher sees who did what, to the count', async ({
  browser,
  server,
  teacher,
}) => {
  await makeExercise(teacher, {
    kind: 'Choose the answer',
    list: 'Legs of a spider? = 8 | 6 | 10\nBees make? = honey | milk\nFish breathe by? = gills | lungs',
  });
  const code = await startClass(teacher);
  await penState(teacher, true);
  const names = ['Ada', 'Ben', 'Cleo', 'Dario', 'Emil', 'Fay'];
  const students: Page[] = [];
  for (const [i, name] of names.entries())
    students.push(await joinAs(browser, server.url, code, name, i > 3 ? PHONE : undefined));
  await hand(teacher, 'Own copies');
  const taps: readonly (readonly string[])[] = [
    ['8', 'honey', 'gills'],
    ['6', '8', 'honey', 'lungs'],
    ['10', '6', '8', 'milk'],
    ['8', '6', 'gills'],
    ['milk', 'honey', '8', 'gills'],
    [],
  ];
  await Promise.all(
    students.map(async (student, i) => {
      for (const words of taps[i]!) {
        await tap(student, words).click();
        await expect(said(student, ['8', 'honey', 'gills'].includes(words) ? RIGHT : WRONG)).toBeVisible();
      }
    }),
  );
  await teacher.getByRole('button', { name: 'Results' }).click();
  const sheet = teacher.getByRole('dialog', { name: 'Results' });
  const rows = sheet.getByRole('row');
  await expect(rows).toHaveCount(7);
  const figures = async () =>
    (await Promise.all([1, 2, 3, 4, 5, 6].map((i) => cells(rows.nth(i))))).map((row) => row.slice(0, 4));
  await expect.poll(figures).toEqual([
    ['Ada', '3 / 3', '3', '0'],
    ['Ben', '2 / 3', '1', '2'],
    ['Cleo', '1 / 3', '0', '3'],
    ['Dario', '1 / 3', '1', '1'],
    ['Emil', '3 / 3', '2', '1'],
    ['Fay', '0 / 3', '0', '0'],
  ]);
  const where = sheet.getByRole('list', { name: 'Where the class goes wrong' });
  await expect(where.getByRole('listitem').first()).toHaveText(
    'Legs of a spider?: 2 right at first, 2 later, 1 not right, 1 open',
  );
  await expect(sheet.locator('canvas')).toBeVisible();
  await sheet.locator('canvas').scrollIntoViewIfNeeded();
  await look(teacher, 'x-results');
  await sheet.getByLabel('With names').uncheck();
  await expect(sheet).not.toContainText('Cleo');
  await sheet.getByLabel('With names').check();
  const saved = teacher.waitForEvent('download');
  await sheet.getByRole('button', { name: 'Save as a table' }).click();
  const table = (await readFile(await (await saved).path(), 'utf8')).split('\r\n');
  expect(table[0]).toBe(
    '\ufeffWho,Right,Right at first,Wrong tries,Minutes,Legs of a spider?,Bees make?,Fish breathe by?',
  );
  expect(table[2]).toMatch(/^Ben,2,1,2,[\d.]+,Right \(1\),Right,Not right \(1\)$|^Ben,2,1,2,/);

  // It is not said yet what is right; then it is, of every answer.
  await sheet.getByRole('radio', { name: 'Not yet' }).click();
  await teacher.keyboard.press('Escape');
  const fay = students[5]!;
  await tap(fay, 'lungs').click();
  await expect.poll(async () => (await stageState(fay)).marks.length).toBeGreaterThan(0);
  await expect(said(fay, WRONG)).toBeHidden();
  // What was tapped still has its words, as what stands for it lies over all that was prepared.
  await expect
    .poll(async () => (await stageState(fay)).marks.some(({ text }) => text === 'lungs'))
    .toBe(true);
  await look(fay, 'x-phone');
  await teacher.getByRole('button', { name: 'Results' }).click();
  await expect
    .poll(() => cells(rows.nth(6)).then((row) => row.slice(0, 4)))
    .toEqual(['Fay', '0 / 3', '0', '1']);
  await sheet.getByRole('radio', { name: 'Now, of every answer' }).click();
  await expect(fay.getByRole('img', { name: 'Fish breathe by?: Not right' })).toBeVisible();
  await expect(students[0]!.getByRole('img', { name: /: Right$/ })).toHaveCount(3);
});

/** Draws from one place on the page to another, by mouse. */
async function drag(
  page: Page,
  from: readonly [number, number],
  to: readonly [number, number],
): Promise<void> {
  await page.mouse.move(...(await at(page, ...from)));
  await page.mouse.down();
  await page.mouse.move(...(await at(page, ...to)), { steps: 4 });
  await page.mouse.up();
}

test('letters are typed into a crossword, words are found by drawing, pairs are uncovered in turns', async ({
  browser,
  server,
  teacher,
}) => {
  await makeExercise(teacher, { kind: 'Crossword', list: 'ice = cold\nrice = food', level: 'Medium' });
  await makeExercise(teacher, { kind: 'Word search', list: 'wren' });
  await makeExercise(teacher, { kind: 'Find the pairs', list: '3 · 4 = 12\n7 · 8 = 56' });
  const code = await startClass(teacher);
  await penState(teacher, true);
  await teacher.keyboard.press('p');
  const turnTo = async (page: number) => {
    for (let at = page - 1; at <= page; at++) {
      if (at > page - 1) await teacher.keyboard.press('PageDown');
      await expect(teacher.getByLabel(`Page ${at} of 4`)).toBeVisible();
    }
  };
  for (const page of [3, 2, 1]) {
    await expect(teacher.getByLabel(`Page ${page + 1} of 4`)).toBeVisible();
    await teacher.keyboard.press('PageUp');
  }
  await turnTo(2);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const nash = await joinAs(browser, server.url, code, 'Nash', PHONE);

  // Typing goes on from cell to cell by itself.
  const fields = wren.getByLabel(/^To be filled in/);
  await expect(fields).toHaveCount(6);
  await look(wren, 'x-crossword');
  const boxes = await fields.evaluateAll((all) =>
    all.map((field) => ({
      id: field.id,
      x: field.getBoundingClientRect().x,
      y: field.getBoundingClientRect().y,
    })),
  );
  const rowOf = (y: number) => boxes.filter((box) => Math.abs(box.y - y) < 5).sort((a, b) => a.x - b.x);
  const word = boxes.map(({ y }) => rowOf(y)).find((row) => row.length > 1)!;
  await wren.locator(`[id="${word[0]!.id}"]`).focus();
  await wren.keyboard.type(word.length === 4 ? 'rice' : 'ice');
  await expect(said(wren, RIGHT)).toBeVisible();
  await expect
    .poll(async () =>
      (await stageState(teacher)).marks
        .flatMap(({ text }) => (text && /^[A-Z]$/.test(text) ? text : []))
        .join(''),
    )
    .toContain('CE');

  await turnTo(3);
  const grid = nash.getByRole('application', { name: /^Find on/ });
  await expect(grid).toBeVisible();
  const lines = await nash.evaluate(() => {
    const { doodla } = window as unknown as {
      doodla: { stageState(): { marks: { bounds: object; text?: string }[] } };
    };
    return doodla.stageState().marks;
  });
  const letters = lines.flatMap(({ bounds, text }) =>
    text && /^[A-Z]$/.test(text)
      ? [{ text, ...(bounds as { x: number; y: number; width: number; height: number }) }]
      : [],
  );
  const middle = ({ x, y, width, height }: (typeof letters)[number]): [number, number] => [
    x + width / 2,
    y + height / 2,
  ];
  const way = wayOf(letters, 'WREN');
  await drag(nash, middle(way[0]), middle(way[1]));
  await expect(said(nash, RIGHT)).toBeVisible();
  await look(nash, 'x-search');

  await turnTo(4);
  await teacher.getByRole('button', { name: 'Take turns' }).click();
  for (const page of [wren, nash]) await expect(said(page, 'turn')).toBeVisible();
  const isWrens = await said(wren, 'It is your turn').isVisible();
  const [first, second] = isWrens ? [wren, nash] : [nash, wren];
  await expect(said(second, 'turn')).toContainText(isWrens ? 'Wren' : 'Nash');
  await expect(second.getByRole('button', { name: /^To be tapped/ })).toHaveCount(0);
  const covers = first.getByRole('button', { name: /^To be tapped/ });
  await expect(covers).toHaveCount(4);
  // Some two of three cards do not belong together.
  // What was said of the word search is over before it is said of the pairs.
  await expect(said(first, RIGHT)).toBeHidden();
  await covers.nth(0).click();
  await covers.nth(1).click();
  await expect(said(first, RIGHT).or(said(first, WRONG))).toBeVisible();
  if (await said(first, RIGHT).isVisible()) {
    await expect(said(first, 'It is your turn')).toBeVisible();
    await expect(covers).toHaveCount(4);
  } else {
    await expect(said(second, 'It is your turn')).toBeVisible();
    await expect(said(teacher, `It is ${isWrens ? 'Nash' : 'Wren'}’s turn`)).toBeVisible();
  }
  await look(teacher, 'x-turns');
  await teacher.getByRole('button', { name: 'End turns' }).click();
  await expect(second.getByRole('button', { name: /^To be tapped/ })).toHaveCount(4);
});

interface Letter {
  text: string;
  x: number;
  y: number;
}

/** The first and last letter of a word that goes right or down in a grid. */
function wayOf<L extends Letter>(letters: readonly L[], word: string): [L, L] {
  const near = (a: number, b: number) => Math.abs(a - b) < 3;
  for (const across of [true, false])
    for (const first of letters) {
      const line = letters
        .filter((one) =>
          across ? near(one.y, first.y) && one.x >= first.x : near(one.x, first.x) && one.y >= first.y,
        )
        .sort((a, b) => (across ? a.x - b.x : a.y - b.y))
        .slice(0, word.length);
      if (line.map(({ text }) => text).join('') === word) return [line[0]!, line.at(-1)!];
    }
  throw new Error(`${word} is not in the grid`);
}
