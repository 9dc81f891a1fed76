import type { Page } from '@playwright/test';
import { makeExercise } from '../support/exercises';
import { bringIn, expect, joinAs, penState, startClass, test, undoInNotice } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { openShelf } from '../support/shelf';
import { expectMarks } from '../support/stage';

const PHONE = { width: 390, height: 844 };

const card = (page: Page, name: string) =>
  page.getByRole('button', { name: `To be moved: Shape: ${name}`, exact: true });
const vote = (page: Page, name: string) =>
  page.getByRole('button', { name: `To be tapped: Shape: ${name}: +1`, exact: true });

/** The cards from the left to the right, and from the top of each column. */
async function order(page: Page): Promise<string[]> {
  const cards = page.getByRole('button', { name: /^To be moved/ });
  const boxes = await cards.evaluateAll((all) =>
    all.map((one) => {
      const { x, y } = one.getBoundingClientRect();
      return { name: one.getAttribute('aria-label')!.replace('To be moved: Shape: ', ''), x, y };
    }),
  );
  return boxes.sort((a, b) => (Math.abs(a.x - b.x) > 20 ? a.x - b.x : a.y - b.y)).map(({ name }) => name);
}

test('a class votes on cards, which stand by their votes, and moves them from column to column', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'plan.pdf', bytes: await plainPdf(1) });
  await makeExercise(teacher, { kind: 'Board with votes', list: 'Ideas: bake, sing, paint\nChosen:' });
  const code = await startClass(teacher);
  await penState(teacher, true);
  const wren = await joinAs(browser, server.url, code, 'Wren', PHONE);
  const finch = await joinAs(browser, server.url, code, 'Finch');
  await expect.poll(() => order(wren)).toEqual(['bake', 'sing', 'paint']);
  await vote(wren, 'paint').click();
  await expect.poll(() => order(finch)).toEqual(['paint', 'bake', 'sing']);
  await vote(finch, 'sing').click();
  await expect.poll(() => order(wren)).toEqual(['paint', 'sing', 'bake']);
  await vote(wren, 'sing').click();
  await expect.poll(() => order(teacher)).toEqual(['sing', 'paint', 'bake']);

  // Nobody is told that it is right or wrong.
  const from = (await card(finch, 'paint').boundingBox())!;
  await finch.mouse.move(from.x + 20, from.y + from.height / 2);
  await finch.mouse.down();
  await finch.mouse.move(from.x + from.width + 60, from.y + 90, { steps: 4 });
  await finch.mouse.up();
  await expect.poll(() => order(teacher)).toEqual(['sing', 'bake', 'paint']);
  await expect(finch.getByRole('status').filter({ hasText: /^(Right|Not right yet)$/ })).toHaveCount(0);
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/bd-class.png' });
});

test('a template with blank cards: the class writes on them, moves them and has them under each other', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'plan.pdf', bytes: await plainPdf(1) });
  await openShelf(teacher, 'Templates');
  for (const name of ['Idea collection', 'Two columns', 'Week plan', 'Looking back', 'Step by step']) {
    const put = teacher.getByRole('button', { name: `${name}, with cards to move` });
    await put.click();
    await expect(teacher.getByText(`${name} is on the page`)).toBeVisible();
    await undoInNotice(teacher);
    await expectMarks(teacher, 0);
  }
  await teacher.getByRole('button', { name: /^Know, want.*, with cards to move$/ }).click();
  await teacher.keyboard.press('Escape');
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/bd-prepared.png' });
  const code = await startClass(teacher);
  await penState(teacher, true);
  const wren = await joinAs(browser, server.url, code, 'Wren', PHONE);
  const field = (page: Page) => page.getByLabel('To be filled in: Text: What we want to know 1');
  await field(wren).fill('Why is the sea salty?');
  await field(wren).blur();
  await expect(field(teacher)).toHaveValue('Why is the sea salty?');
  await card(wren, 'What we want to know 1').focus();
  await wren.keyboard.press('Enter');
  const right = (await card(teacher, 'What we learned 1').boundingBox())!.x;
  for (let i = 0; i < 12; i++) await wren.keyboard.press('ArrowRight');
  await wren.keyboard.press('Enter');
  await expect
    .poll(async () => Math.abs((await card(teacher, 'What we want to know 1').boundingBox())!.x - right))
    .toBeLessThan(3);
  await expect(field(teacher)).toHaveValue('Why is the sea salty?');
  if (process.env.LOOK) {
    await wren.screenshot({ path: '/tmp/look/bd-phone.png' });
    await teacher.screenshot({ path: '/tmp/look/bd-cards.png' });
  }
});
