import { bringIn, expect, joinAs, startClass, startWriting, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { openRoster } from '../support/roster';
import { expectMarks } from '../support/stage';

const PHONE = { width: 390, height: 844 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

test('a class is asked on the spot: answered on phones, hidden until closed, charted, put on the page', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  const odo = await joinAs(browser, server.url, code, 'Odo', PHONE);
  await teacher.getByRole('button', { name: 'Ask the class' }).click();
  await teacher.getByLabel('Question (or say it aloud)').fill('Which bridge is pushed only?');
  await teacher.getByRole('radio', { name: 'Answers of your own' }).click();
  await teacher.getByLabel('Answers, one a line').fill('Beam\nArch\nTruss');
  const dialog = teacher.getByRole('dialog', { name: 'Ask the class' });
  await dialog.getByRole('button', { name: 'Ask', exact: true }).click();

  for (const [page, answer] of [
    [wren, 'Arch'],
    [tove, 'Beam'],
    [odo, 'Arch'],
  ] as const) {
    await expect(page.getByRole('region', { name: 'Question' })).toContainText(
      'Which bridge is pushed only?',
    );
    await page.getByRole('radio', { name: answer }).click();
    await expect(page.getByText('Your answer is taken.')).toBeVisible();
  }
  await expect(dialog).toContainText('3 have answered.');
  await expect(dialog.getByRole('list', { name: 'Results' })).toBeHidden();
  await tove.reload();
  await expect(tove.getByRole('radio', { name: 'Beam' })).toBeChecked();
  await tove.getByRole('radio', { name: 'Arch' }).click();
  await dialog.getByRole('button', { name: 'Close the question' }).click();
  const results = ['Beam: 0', 'Arch: 3', 'Truss: 0'];
  await expect(dialog.getByRole('list', { name: 'Results' }).getByRole('listitem')).toHaveText(results);
  await expect(wren.getByRole('list', { name: 'Results' }).getByRole('listitem')).toHaveText(results);
  await dialog.getByText('Who has answered what').click();
  await expect(dialog).toContainText('Tove: Arch');
  await dialog.getByRole('button', { name: 'Put on the page' }).click();
  for (const page of [teacher, wren]) await expectMarks(page, 1);

  await teacher.getByRole('button', { name: 'Asking the class: 3 have answered' }).click();
  await dialog.getByRole('button', { name: 'Put away' }).click();
  await expect(wren.getByRole('region', { name: 'Question' })).toBeHidden();
  await dialog.getByRole('radio', { name: 'A number' }).click();
  await dialog.getByLabel('Hide the results until the question is closed').uncheck();
  await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
  await wren.getByLabel('Your answer').fill('2,5');
  await wren.getByRole('button', { name: 'Send' }).click();
  await tove.getByLabel('Your answer').fill('4');
  await tove.getByRole('button', { name: 'Send' }).click();
  await expect(dialog).toContainText('The middle answer is 3.25');
});

test('hands go up and are taken in their order; who is lost says so', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  // On a phone it is behind the dots of the tools; a hand that is up is in sight.
  await tove.getByRole('button', { name: 'More tools' }).click();
  await tove.getByRole('button', { name: 'Put your hand up' }).click();
  await tove.keyboard.press('Escape');
  await expect(tove.getByRole('button', { name: 'Your hand is up (place 1): put it down' })).toBeVisible();
  await wren.getByRole('button', { name: 'Put your hand up' }).click();
  await expect(wren.getByRole('button', { name: 'Your hand is up (place 2): put it down' })).toBeVisible();
  await expect(teacher.getByRole('button', { name: 'Students: 2, hands up: 2' })).toBeVisible();
  await openRoster(teacher);
  const hands = teacher.getByRole('region', { name: 'Hands up' });
  await expect(hands.getByRole('listitem')).toContainText(['Tove', 'Wren']);
  await hands.getByRole('button', { name: 'Hand down' }).first().click();
  await expect(tove.getByRole('button', { name: /^Your hand is up/ })).toBeHidden();
  await expect(hands.getByRole('listitem')).toHaveCount(1);
  await wren.getByRole('button', { name: 'I am lost' }).click();
  await expect(teacher.getByText('Wren is lost.')).toBeVisible();
});
