import { CuttableLine } from '../support/cuttableLine';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { saveHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { forStudent } from '../support/roster';

const PHONE = { width: 390, height: 844 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

test('a class talks: all hear it, the teacher takes away, mutes one and switches it off', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  const open = { name: /^Chat and notes/ };
  const log = { name: 'Chat', exact: true };
  for (const page of [wren, tove]) await page.getByRole('button', open).click();
  await wren.getByLabel('Your message to everybody').fill('Why does it bend?');
  await wren.getByLabel('Your message to everybody').press('Enter');
  await expect(tove.getByRole('log', log)).toContainText('Wren');
  await expect(tove.getByRole('log', log)).toContainText('Why does it bend?');
  await teacher.getByRole('button', { name: 'Chat and notes: 1 new message' }).click();
  await teacher.getByLabel('Your message to everybody').fill('Look at the middle.');
  await teacher.getByRole('button', { name: 'Send' }).click();
  await expect(wren.getByRole('log', log)).toContainText('The teacher');
  await teacher.getByRole('button', { name: 'Take away: Why does it bend?' }).click();
  await expect(tove.getByRole('log', log)).toContainText('taken away by the teacher');
  await expect(tove.getByRole('log', log)).not.toContainText('Why does it bend?');
  await forStudent(teacher, 'Wren', 'May write in the chat');
  await expect(wren.getByText('Your teacher has switched your messages off.')).toBeVisible();
  await expect(tove.getByLabel('Your message to everybody')).toBeVisible();
  await teacher.getByRole('switch', { name: 'Students may write here' }).click();
  await expect(tove.getByText('Your teacher has switched the chat off.')).toBeVisible();
  await expect(teacher.getByLabel('Your message to everybody')).toBeVisible();
});

test('what is said without a connection is sent when it is back, over a reload too', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const line = await CuttableLine.to(server.port);
  const wren = await joinAs(browser, line.url, code, 'Wren');
  await wren.getByRole('button', { name: /^Chat and notes/ }).click();
  await expect(wren.getByLabel('Your message to everybody')).toBeVisible();
  line.cut();
  await expect(wren.getByText('No connection.')).toBeVisible();
  await wren.getByLabel('Your message to everybody').fill('Am I still here?');
  await wren.getByLabel('Your message to everybody').press('Enter');
  await expect(wren.getByText('Will be sent when the connection is back.')).toBeVisible();
  line.mend();
  await wren.reload();
  await wren.getByRole('button', { name: /^Chat and notes/ }).click();
  await expect(wren.getByRole('log')).toContainText('Am I still here?');
  await expect(wren.getByText('Will be sent when the connection is back.')).toBeHidden();
  await teacher.getByRole('button', { name: /^Chat and notes/ }).click();
  await expect(teacher.getByRole('log').getByText('Am I still here?')).toHaveCount(1);
  line.close();
});

test('the teacher and a student they name write the same notes at once; others read them live', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  await forStudent(teacher, 'Wren', 'May write the class notes');
  for (const page of [teacher, wren, tove]) {
    await page.getByRole('button', { name: /^Chat and notes/ }).click();
    await page.getByRole('tab', { name: 'Class notes' }).click();
  }
  const notes = { name: 'Class notes' };
  await expect(tove.getByText('Nothing has been noted down yet.')).toBeVisible();
  await teacher.getByRole('textbox', notes).click();
  await teacher.getByRole('button', { name: 'Heading' }).click();
  await teacher.keyboard.type('Bridges');
  await teacher.keyboard.press('Enter');
  await teacher.keyboard.type('A beam ');
  await teacher.keyboard.press('Control+b');
  await teacher.keyboard.type('bends');
  await expect(tove.getByRole('textbox', notes).locator('strong')).toHaveText('bends');
  await expect(tove.getByRole('textbox', notes)).toHaveAttribute('contenteditable', 'false');
  // Both at once, at different places.
  await wren.getByRole('textbox', notes).getByText('Bridges').click();
  await wren.keyboard.press('End');
  await teacher.keyboard.press('End');
  await Promise.all([
    wren.keyboard.type(' of paper', { delay: 30 }),
    teacher.keyboard.type(' in the middle', { delay: 20 }),
  ]);
  for (const page of [teacher, wren, tove]) {
    await expect(page.getByRole('textbox', notes).locator('h2')).toHaveText('Bridges of paper');
    await expect(page.getByRole('textbox', notes)).toContainText('A beam bends in the middle');
  }
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  await teacher.getByRole('checkbox', { name: 'Class notes' }).check();
  await expect(teacher.getByRole('checkbox', { name: 'Questions and answers' })).toBeHidden();
  await teacher.screenshot({ path: '/tmp/handout.png' });
  const handout = new OutsideReader(await saveHandout(teacher));
  handout.check();
  expect(handout.text(2)).toContain('Class notes Bridges of paper A beam bends in the middle');

  await tove.reload();
  await tove.getByRole('button', { name: /^Chat and notes/ }).click();
  await tove.getByRole('tab', { name: 'Class notes' }).click();
  await expect(tove.getByRole('textbox', notes).locator('h2')).toHaveText('Bridges of paper');
});
