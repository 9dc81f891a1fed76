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
import { saveHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { forStudent, openRoster, setRules } from '../support/roster';
import { at, draw, drawAndRest, expectMarks, stageState, wave } from '../support/stage';

const PHONE = { width: 390, height: 844 };
const TABLET = { width: 1024, height: 768 };

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('the teacher says what students may do, and each of them sees it before they try', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const tove = await joinAs(browser, server.url, code, 'Tove', PHONE);
  await draw(wren, wave(80, 120));
  await draw(tove, wave(80, 300));
  for (const page of [wren, tove, teacher]) await expectMarks(page, 2);

  await wren.getByRole('button', { name: 'Shape', exact: true }).click();
  await setRules(teacher, ['Ink only', "Students see each other's marks"]);
  await expect(wren.getByText('Pens up: ink only')).toBeVisible();
  for (const tool of ['Text', 'Shape', 'Stamp', 'Picture (or drop or paste one)'])
    await expect(wren.getByRole('button', { name: tool, exact: true })).toBeDisabled();
  await expect(wren.getByRole('button', { name: 'Pen', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  for (const page of [wren, tove]) await expectMarks(page, 1);
  await draw(wren, wave(80, 500));
  await expectMarks(teacher, 3);
  await expectMarks(tove, 1);

  await openRoster(teacher);
  await teacher.getByRole('button', { name: "Wren's pen is up: put it down" }).click();
  await expect(wren.getByText('Pens down')).toBeVisible();
  await expect(tove.getByText('Pens up: ink only')).toBeVisible();
  await teacher.getByRole('button', { name: "Wren's pen is down: put it up" }).click();
  await expect(wren.getByText('Pens up: ink only')).toBeVisible();
  await teacher.keyboard.press('Escape');

  await setRules(teacher, [
    'Everything',
    "Students see each other's marks",
    "Students see each other's names",
    'Students may take the pages home',
  ]);
  for (const page of [wren, tove]) await expectMarks(page, 3);
  // The document is fetched as that student, though the page has been shown to her as a picture only.
  await (await tove.context().newCDPSession(tove)).send('Network.clearBrowserCache');
  await tove.getByRole('button', { name: 'Take the pages home' }).click();
  const pdf = new OutsideReader(await saveHandout(tove));
  pdf.check();
  expect(pdf.text(2)).toContain('Bridges, sheet 2');
});

test('one sees whose a mark is, shows only some, and takes away and brings back what one student wrote', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const odo = await joinAs(browser, server.url, code, 'Odo Vale');
  await draw(teacher, wave(80, 80));
  await draw(wren, wave(80, 200));
  await draw(odo, wave(80, 320));
  for (const page of [wren, odo, teacher]) await expectMarks(page, 3);

  await openRoster(teacher);
  await expect(teacher.getByRole('listitem').filter({ hasText: 'Odo Vale' })).toContainText(
    /writing now|here/,
  );
  await teacher.keyboard.press('Escape');

  await teacher.mouse.move(...(await at(teacher, 80, 320)));
  await expect(teacher.getByRole('status').filter({ hasText: 'Odo Vale' })).toBeVisible();
  await wren.mouse.move(...(await at(wren, 80, 80)));
  await expect(wren.getByRole('status').filter({ hasText: 'the teacher' })).toBeVisible();

  // While a stroke is being drawn, its author's name rides beside it.
  await drawAndRest(wren, wave(80, 460));
  await expect(odo.getByTestId('stage').locator('..').getByText('Wren', { exact: true })).toBeVisible();
  await wren.mouse.up();
  await expectMarks(teacher, 4);

  await forStudent(teacher, 'Wren', 'Show only what Wren wrote');
  await expectMarks(teacher, 2);
  await expect(teacher.getByText("Shown here: Only Wren's marks")).toBeVisible();
  await expectMarks(odo, 4);
  await draw(teacher, wave(80, 600));
  await expectMarks(teacher, 5);

  await forStudent(teacher, 'Wren', 'Hide what Wren wrote');
  await expectMarks(teacher, 3);
  await expectMarks(odo, 3);
  await expectMarks(wren, 5);
  await forStudent(teacher, 'Wren', 'Show again what Wren wrote');
  await expectMarks(odo, 5);

  await forStudent(teacher, 'Wren', 'Wipe what Wren wrote on all pages');
  for (const page of [wren, odo, teacher]) await expectMarks(page, 3);
  await openRoster(teacher);
  await teacher.getByRole('button', { name: 'What was removed' }).click();
  const removed = teacher.getByRole('dialog', { name: 'What was removed' });
  await expect(removed).toContainText('page 1, by you');
  await expect(removed).toContainText('2 × Ink (Wren)');
  await removed.getByRole('button', { name: 'Put back' }).click();
  await expect(removed).toContainText('is back');
  for (const page of [wren, odo, teacher]) await expectMarks(page, 5);
});

test('a class list is pasted once: students choose their names, wait, and who is missing is seen', async ({
  browser,
  server,
  teacher,
}) => {
  const first = await startClass(teacher);
  await teacher.getByRole('button', { name: /^Join code/ }).click();
  await teacher.getByRole('button', { name: 'Class lists' }).click();
  await teacher.getByRole('button', { name: 'New list' }).click();
  await teacher.getByLabel('Name of the group').fill('8 Heron');
  await teacher.getByLabel('Students, one a line').fill('1. Wren Moss');
  const file = teacher.getByLabel('A class list as a CSV file');
  await file.setInputFiles({
    name: 'list.csv',
    mimeType: 'text/csv',
    buffer: Buffer.of(0x50, 0x4b, 3, 4, 0),
  });
  await expect(teacher.getByText('No names were found in this file.')).toBeVisible();
  const rows = 'No.;First name;Form;Surname\n1;Wren;8;Moss\n2;Odo;8;Vale\n3;Ida;8;Hölm';
  await file.setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(rows, 'latin1') });
  await expect(teacher.getByLabel('Students, one a line')).toHaveValue('Wren Moss\nOdo Vale\nIda Hölm');
  await teacher.getByLabel('Students, one a line').fill('Wren Moss\nOdo Vale\nIda Hölm\nBea Dunn');
  await teacher.getByLabel('Family names are in').selectOption('No column');
  await expect(teacher.getByLabel('Students, one a line')).toHaveValue('Wren Moss\nBea Dunn\nWren\nOdo\nIda');
  await teacher.getByLabel('Family names are in').selectOption('Column 4: Surname');
  await expect(teacher.getByText('4 names')).toBeVisible();
  await teacher.getByLabel('Students, one a line').fill('Wren Moss\nOdo Vale\nIda Hölm');
  await expect(teacher.getByText('3 names')).toBeVisible();
  await teacher.getByLabel('The same join code all term').check();
  await teacher.getByRole('button', { name: 'Save', exact: true }).click();
  await teacher.getByRole('dialog', { name: 'Class lists' }).getByRole('button', { name: 'Close' }).click();
  await teacher.getByRole('combobox', { name: 'Group' }).selectOption('8 Heron');
  const code = teacher.getByTestId('join-code');
  await expect(code).not.toHaveText(new RegExp(`${first.slice(0, 3)}.?${first.slice(3)}`));
  await teacher.getByRole('switch', { name: 'Whoever comes waits until you let them in' }).click();
  await teacher.getByLabel('Password of this class').fill('tower bridge');
  await teacher.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(teacher.getByText('A password is needed to come in')).toBeVisible();
  const joining = (await code.innerText()).replace(/\s/g, '');
  await teacher
    .getByRole('dialog', { name: 'Let the class in' })
    .getByRole('button', { name: 'Close' })
    .click();

  const phone = await (await browser.newContext({ baseURL: server.url, viewport: PHONE })).newPage();
  await phone.goto(`/join/${joining}`);
  await phone.getByLabel('Password of the class').fill('wrong');
  await phone.getByLabel('Your name').fill('Wren Moss');
  await phone.getByRole('button', { name: 'Go in' }).click();
  await expect(phone.getByText('That is not the password of this class. Please try again.')).toBeVisible();
  await phone.getByLabel('Password of the class').fill('tower bridge');
  await phone.getByLabel('Password of the class').blur();
  await phone.getByRole('combobox', { name: 'Your name' }).selectOption('Wren Moss');
  await phone.getByRole('button', { name: 'Go in' }).click();
  await expect(phone.getByText('Wait here, Wren Moss:')).toBeVisible();
  await expect(teacher.getByText('Wren Moss wants to come in.')).toBeVisible();

  const other = await (await browser.newContext({ baseURL: server.url })).newPage();
  await other.goto(`/join/${joining}`);
  await other.getByLabel('Password of the class').fill('tower bridge');
  await other.getByLabel('Password of the class').blur();
  await other.getByRole('button', { name: 'My name is not here' }).click();
  await other.getByLabel('Your name').fill('Zed');
  await other.getByRole('button', { name: 'Go in' }).click();
  await expect(other.getByText('Zed is not on the list of this class.')).toBeVisible();
  await expect(teacher.getByText('Zed is not on the list and wants to come in.')).toBeVisible();
  await teacher.getByRole('button', { name: 'Let all 2 in' }).click();
  for (const page of [phone, other]) {
    await page.waitForURL(/\/class\//);
    await surfaceShown(page);
  }
  await openRoster(teacher);
  await expect(teacher.getByText('2 are missing: Odo Vale, Ida Hölm')).toBeVisible();
  await teacher.keyboard.press('Escape');
  await penState(teacher, true);
  await draw(phone, wave(80, 200));
  await expectMarks(teacher, 1);
});

test.describe('with a finger', () => {
  test.use({ hasTouch: true });

  test('whose a mark is shows where a finger rests on it, and names beside pens can be switched off', async ({
    browser,
    server,
    teacher,
  }) => {
    const code = await startWriting(teacher);
    const context = await browser.newContext({ baseURL: server.url, viewport: TABLET, hasTouch: true });
    const tove = await context.newPage();
    await tove.goto(`/join/${code}`);
    await tove.getByLabel('Your name').fill('Tove');
    await tove.getByRole('button', { name: 'Go in' }).click();
    await surfaceShown(tove);
    await draw(teacher, wave(80, 200));
    await expectMarks(tove, 1);
    await tove.getByRole('button', { name: /^Use the page/ }).click();
    const [x, y] = await at(tove, 80, 200);
    const session = await context.newCDPSession(tove);
    await session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }] });
    await expect(tove.getByRole('status').filter({ hasText: 'the teacher' })).toBeVisible();
    await session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    await expect(tove.getByRole('status').filter({ hasText: 'the teacher' })).toBeHidden();

    await teacher.getByRole('button', { name: 'Keys and size of letters' }).click();
    await teacher.getByLabel('Names ride beside the pens of others').uncheck();
    await teacher.keyboard.press('Escape');
    await tove.getByRole('button', { name: /^Write on the page/ }).click();
    await drawAndRest(tove, wave(80, 400));
    const stage = teacher.getByTestId('stage').locator('..');
    await expect.poll(async () => (await stageState(teacher)).wet).toBe(1);
    await expect(stage.getByText('Tove', { exact: true })).toBeHidden();
    await tove.mouse.up();
  });
});
