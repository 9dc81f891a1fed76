import { findings } from '../support/axe';
import { bringIn, expect, joinAs, startClass, test } from '../support/fixtures';
import { openLesson } from '../support/lessonMenu';
import { plainPdf } from '../support/pdfs';

test('no main view has a finding, and each says by its title where one is', async ({
  browser,
  server,
  teacher,
}) => {
  const stranger = await (await browser.newContext({ baseURL: server.url })).newPage();
  await stranger.goto('/');
  await expect(stranger.getByRole('heading', { name: 'Sign in to teach' })).toBeVisible();
  expect(await findings(stranger)).toEqual([]);
  await expect(stranger).toHaveTitle('Sign in to teach · Doodla');
  await stranger.goto('/join');
  await expect(stranger.getByRole('heading', { name: 'Join your class' })).toBeVisible();
  expect(await findings(stranger)).toEqual([]);

  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await expect(teacher).toHaveTitle('Page 1 of 2 · bridges · Doodla');
  expect(await findings(teacher)).toEqual([]);
  await teacher.getByRole('button', { name: 'Show all pages' }).click();
  await teacher.getByRole('button', { name: /^Colour and options/ }).click();
  expect(await findings(teacher)).toEqual([]);
  await teacher.keyboard.press('Escape');
  await teacher.getByRole('button', { name: 'Shelf', exact: true }).click();
  await teacher.getByRole('button', { name: 'Keep page' }).click();
  await expect(
    teacher.getByRole('list', { name: 'Your things' }).getByRole('img', { includeHidden: true }),
  ).toBeVisible();
  for (const part of ['Mine', 'Pictures', 'Templates']) {
    await teacher.getByRole('tab', { name: part }).click();
    // What is fetched for it is there.
    await expect(teacher.getByRole('tabpanel').locator('button, img').first()).toBeVisible();
    expect(await findings(teacher)).toEqual([]);
  }
  await teacher.getByRole('link', { name: 'Back to your lessons' }).click();
  await expect(teacher.getByRole('heading', { name: 'Your lessons' })).toBeVisible();
  await expect(teacher).toHaveTitle('Your lessons · Doodla');
  expect(await findings(teacher)).toEqual([]);
  await openLesson(teacher, 'bridges');
  const code = await startClass(teacher);
  expect(await findings(teacher)).toEqual([]);
  await teacher.getByRole('button', { name: /^Join code/ }).click();
  expect(await findings(teacher)).toEqual([]);
  const wren = await joinAs(browser, server.url, code, 'Wren', { width: 390, height: 844 });
  expect(await findings(wren)).toEqual([]);
  await expect(wren).toHaveTitle(/^Page 1 of 2 · bridges.* · Doodla$/);
  await expect(wren.getByRole('main')).toHaveCount(1);
  await expect(wren.getByRole('heading', { level: 1 })).toHaveCount(1);
  await teacher.getByRole('button', { name: 'Close' }).click();
  await teacher.keyboard.press('a');
  await teacher.keyboard.press('r');
  await teacher.getByRole('button', { name: 'Focus', exact: true }).click();
  await expect(teacher.getByRole('button', { name: 'Stopwatch' })).toBeVisible();
  expect(await findings(teacher)).toEqual([]);
  await teacher.keyboard.press('Escape');
  await teacher.keyboard.press('b');
  await teacher.keyboard.press('8');
  await expect(teacher.getByTestId('stage')).toHaveCount(2);
  expect(await findings(teacher)).toEqual([]);
  await teacher.getByRole('button', { name: 'One page again' }).click();
  await teacher.getByRole('button', { name: /^Devices/ }).click();
  await teacher.getByRole('button', { name: 'A pad' }).click();
  await expect(teacher.getByTestId('pad-address')).toBeVisible();
  expect(await findings(teacher)).toEqual([]);
  await teacher.getByRole('button', { name: 'Close', exact: true }).last().click();
  await teacher.getByRole('button', { name: 'End class' }).click();
  expect(await findings(teacher)).toEqual([]);
  await stranger.goto('/display');
  await expect(stranger.getByRole('heading', { name: 'Classroom display' })).toBeVisible();
  expect(await findings(stranger)).toEqual([]);
});
