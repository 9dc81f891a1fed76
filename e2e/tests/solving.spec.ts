import type { Browser, Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { makeExercise, openExercise } from '../support/exercises';
import type { ExerciseForm } from '../support/exercises';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { hand } from '../support/roster';
import { sheetOf, Solver } from '../support/solving';
import { stageState } from '../support/stage';
import type { Server } from '../support/server';

const PHONE = { width: 390, height: 844 };
const NAMES = ['Ada', 'Ben', 'Cleo', 'Dario', 'Emil', 'Fay'];

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'words.pdf', bytes: await plainPdf(1) });
});

/** A class of six, two of them on phones, each on a copy of their own. */
async function classOfSix(browser: Browser, server: Server, teacher: Page): Promise<Page[]> {
  const code = await startClass(teacher);
  await penState(teacher, true);
  await teacher.keyboard.press('p');
  return Promise.all(
    NAMES.map((name, i) => joinAs(browser, server.url, code, name, i > 3 ? PHONE : undefined)),
  );
}

/** Goes to a page with the class, and gives everybody a copy. */
async function handOut(teacher: Page, page: number): Promise<void> {
  await teacher.keyboard.press('PageDown');
  await expect(teacher.getByLabel(new RegExp(`^Page ${page} of`))).toBeVisible();
  await hand(teacher, 'Own copies');
}

const LABEL = 'Label a picture';

/** Makes an exercise of a picture, with labels where the mouse clicks. */
async function labelled(teacher: Page, form: ExerciseForm): Promise<void> {
  const png = new PNG({ width: 60, height: 40 });
  png.data.fill(150);
  const sheet = await openExercise(teacher, {
    kind: LABEL,
    pictures: [{ name: 'flower.png', bytes: PNG.sync.write(png) }],
  });
  await sheet.getByLabel('List', { exact: true }).fill(form.list!);
  const preview = sheet.getByRole('img', { name: 'What the class gets' });
  for (const [label, across] of [
    ['stem', 0.45],
    ['leaf', 0.6],
  ] as const) {
    await expect(sheet.getByText(`Tap on the picture where this belongs: ${label}`)).toBeVisible();
    const { x, y, width, height } = (await preview.boundingBox())!;
    await teacher.mouse.click(x + width * across, y + height * 0.4);
  }
  await expect(sheet.getByText('All have their place')).toBeVisible();
  await sheet.getByRole('button', { name: 'Put it on a new page' }).click();
  await expect(sheet).toBeHidden();
}

/** The student has a copy, and what can be answered on it. */
async function onCopy(student: Page): Promise<void> {
  await expect(student.getByText('This is your own copy of the page')).toBeVisible();
  await student
    .getByRole('button', { name: /^To be (moved|tapped)/ })
    .or(student.getByLabel(/^To be filled in/))
    .or(student.getByRole('application', { name: /^Find on/ }))
    .first()
    .waitFor();
}

/** What the teacher is told: who has how many right, right at first, and wrong tries. */
async function told(teacher: Page): Promise<string[][]> {
  const rows = teacher.getByRole('dialog', { name: 'Results' }).getByRole('row');
  const all = await rows.evaluateAll((list) =>
    list.map((row) => [...row.querySelectorAll('th, td')].map((cell) => (cell as HTMLElement).innerText)),
  );
  // Whoever came in first stands first.
  return all
    .slice(1, 1 + NAMES.length)
    .map((row) => row.slice(0, 4))
    .sort(([one], [other]) => (one! < other! ? -1 : 1));
}

/** Kinds with what of their lists is right or wrong: how many items, and what one mistake costs at first and in tries. */
const ANSWERED: readonly (ExerciseForm & { items: number; spoils?: number })[] = [
  { kind: 'Put in order', list: 'egg\npupa\nbutterfly', items: 3 },
  { kind: 'Events on a line', list: '1450 = press\n1969 = moon', items: 2 },
  { kind: 'Match pairs', list: 'dog = Hund\ncat = Katze\ncow = Kuh', items: 3 },
  { kind: 'Sort into groups', list: 'Birds: owl\nFish: eel, trout', items: 3 },
  { kind: 'Fill the gaps', list: 'Ice is [cold] and [hard].', level: 'Medium', items: 2 },
  { kind: 'True or false', list: 'Whales are fish. = false\nOwls are birds. = true', items: 2 },
  { kind: 'Choose the answer', list: 'Legs of a spider? = 8 | 6\nBees make? = honey | milk', items: 2 },
  { kind: 'Find the pairs', list: '3 · 4 = 12\n7 · 8 = 56', items: 2 },
  { kind: 'Crossword', list: 'ice = cold\nrice = food', level: 'Medium', items: 2 },
  { kind: 'Word search', list: 'wren\nowl', items: 2, spoils: 0 },
  { kind: 'Number line', list: '1/2\n0.25', items: 2 },
  { kind: LABEL, list: 'flower.png\nstem\nleaf', items: 2 },
  { kind: 'Name the countries', list: 'Peru\nBrazil', items: 2 },
];

for (const part of [0, 1])
  test(`a class of six solves what is right or wrong, with mistakes; the teacher's figures are right to the count (${part + 1})`, async ({
    browser,
    server,
    teacher,
  }) => {
    const kinds = ANSWERED.filter((_, i) => i % 2 === part);
    for (const form of kinds)
      await (form.kind === LABEL ? labelled(teacher, form) : makeExercise(teacher, form));
    for (let i = 0; i < kinds.length; i++) await teacher.keyboard.press('PageUp');
    await expect(teacher.getByLabel(/^Page 1 of/)).toBeVisible();
    const students = await classOfSix(browser, server, teacher);
    for (const [i, { kind, items, spoils = 1 }] of kinds.entries()) {
      await handOut(teacher, i + 2);
      await Promise.all(students.map(onCopy));
      const sheet = await sheetOf(students[0]!);
      // Ada and Emil (on a phone) err once, Cleo leaves one open, Fay (on a phone) only looks.
      await Promise.all(
        students
          .slice(0, 5)
          .map((page, at) =>
            new Solver(page, sheet).solve({ isWrongFirst: at === 0 || at === 4, open: at === 2 ? 1 : 0 }),
          ),
      );
      await teacher.getByRole('button', { name: 'Results' }).click();
      const all = `${items} / ${items}`;
      const figures = [
        ['Ada', all, String(items - spoils), '1'],
        ['Ben', all, String(items), '0'],
        ['Cleo', `${items - 1} / ${items}`, String(items - 1), '0'],
        ['Dario', all, String(items), '0'],
        ['Emil', all, String(items - spoils), '1'],
        ['Fay', `0 / ${items}`, '0', '0'],
      ];
      await expect.poll(() => told(teacher), { message: kind }).toEqual(figures);
      await teacher.keyboard.press('Escape');
    }
  });

/** Kinds in which nothing is right or wrong: something is tapped, or carried elsewhere. */
const PLAYED: readonly ExerciseForm[] = [
  { kind: 'Rank', list: 'health\nmoney' },
  { kind: 'Spinner', list: 'sing\ndraw' },
  { kind: 'Draw a name', list: 'Ada\nBen' },
  { kind: 'Score board', list: 'Owls\nFoxes' },
  { kind: 'Board with columns', list: 'To do: read, write\nDone:' },
  { kind: 'Board with votes', list: 'Ideas: bake\nChosen:' },
  { kind: 'Outline map', list: 'Peru', level: 'Medium' },
  { kind: 'Dice' },
  { kind: 'Seven pieces of a square' },
  { kind: 'Pattern blocks' },
  { kind: 'Letter tiles', list: 'WREN' },
  { kind: 'Players to be moved' },
];

test('a class of six plays with what is neither right nor wrong, each on a copy', async ({
  browser,
  server,
  teacher,
}) => {
  for (const form of PLAYED) await makeExercise(teacher, form);
  for (let i = 0; i < PLAYED.length; i++) await teacher.keyboard.press('PageUp');
  await expect(teacher.getByLabel(/^Page 1 of/)).toBeVisible();
  const students = await classOfSix(browser, server, teacher);
  for (const [i, { kind }] of PLAYED.entries()) {
    await handOut(teacher, i + 2);
    await Promise.all(
      students.map(async (page) => {
        await onCopy(page);
        const { marks, width } = await stageState(page);
        const solver = new Solver(page, await sheetOf(page));
        const tapped = marks.find(({ rule }) => rule?.tap);
        const moved = marks.find(({ rule }) => rule?.moves);
        if (tapped) await solver.tap(tapped);
        else await solver.carryTo(moved!, [width / 2, 300]);
        await expect
          .poll(async () => (await stageState(page)).marks.filter(({ standIn }) => standIn).length, {
            message: kind,
          })
          .toBeGreaterThan(0);
      }),
    );
  }
});
