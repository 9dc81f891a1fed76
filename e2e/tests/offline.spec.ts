import { CuttableLine } from '../support/cuttableLine';
import { bringIn, expect, joinAs, penState, startWriting, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, markCount, stageState, wave } from '../support/stage';

test('a student who is offline for ten strokes keeps them, and they join in afterwards', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  const line = await CuttableLine.to(server.port);
  const wren = await joinAs(browser, line.url, code, 'Wren');
  for (const page of [wren, teacher]) await expect(page.getByText('Saved', { exact: true })).toBeVisible();

  line.cut();
  await expect(wren.getByText('No connection.')).toBeVisible();
  for (let i = 0; i < 10; i++) await draw(wren, wave(80, 120 + i * 60));
  await draw(teacher, wave(400, 200));
  expect(await markCount(wren)).toBe(10);
  await expect(wren.getByText('10 things are waiting')).toBeVisible();
  await expect(wren.getByText('Waiting for the connection')).toBeVisible();
  line.mend();
  await expectMarks(wren, 11);
  await expect(wren.getByText('Saved', { exact: true })).toBeVisible();
  await expectMarks(teacher, 11);
  await expect(wren.getByText('No connection.')).toBeHidden();

  // Closed and opened again while the connection was away: what was written comes out of the browser's store.
  line.cut();
  await expect(wren.getByText('No connection.')).toBeVisible();
  await draw(wren, wave(400, 800));
  await expect.poll(async () => (await stageState(wren)).waiting).toBe(1);
  line.mend();
  await wren.reload();
  await surfaceShown(wren);
  await expectMarks(wren, 12);
  await expectMarks(teacher, 12);
  line.close();
});

test('what a student writes offline while the pens go down is kept, and joins in when they are up again', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  const line = await CuttableLine.to(server.port);
  const wren = await joinAs(browser, line.url, code, 'Wren');
  line.cut();
  await expect(wren.getByText('No connection.')).toBeVisible();
  await draw(wren, wave(80, 120));
  expect(await markCount(wren)).toBe(1);
  await penState(teacher, false);
  line.mend();
  await expect(wren.getByText('Pens went down before something that you wrote could be sent.')).toBeVisible();
  expect(await markCount(wren)).toBe(1);
  await expectMarks(teacher, 0);
  await penState(teacher, true);
  await expectMarks(teacher, 1);
  await expectMarks(wren, 1);
  await expect(wren.getByText('Pens went down')).toBeHidden();
  line.close();
});
