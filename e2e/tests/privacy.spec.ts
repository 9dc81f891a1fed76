import type { StudentData } from '@doodla/core';
import { readFileSync } from 'node:fs';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, wave } from '../support/stage';

test('what is kept about a student is found, saved and deleted by name', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren Ashby');
  await draw(wren, wave(100, 300));
  await expectMarks(teacher, 1);
  await wren.close();

  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await teacher.waitForURL(/\/lesson\//);
  await teacher.getByRole('button', { name: /^Classes/ }).click();
  await expect(teacher.getByText('Kept until')).toBeVisible();
  const until = await teacher.getByText('Kept until').textContent();
  await teacher.getByRole('button', { name: 'Keep a year longer' }).click();
  await expect(teacher.getByText('Kept until')).not.toHaveText(until!);
  await teacher.goto('/');
  await teacher.getByRole('button', { name: 'What is kept about a student' }).click();
  const dialog = teacher.getByRole('dialog');
  await dialog.getByLabel('Name').fill('wren ashby');
  await dialog.getByRole('button', { name: 'Look up' }).click();
  await expect(dialog.getByText('one mark', { exact: false })).toBeVisible();

  const download = teacher.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save it all as a file' }).click();
  const data = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as StudentData[];
  expect(data).toMatchObject([{ name: 'Wren Ashby', marks: [{ kind: 'stroke' }] }]);

  await dialog.getByRole('button', { name: 'Delete it all' }).click();
  await dialog.getByRole('button', { name: 'Yes, delete everything about wren ashby' }).click();
  await expect(teacher.getByText('Everything about wren ashby was deleted from one class.')).toBeVisible();
  await dialog.getByLabel('Name').fill('Wren Ashby');
  await dialog.getByRole('button', { name: 'Look up' }).click();
  await expect(dialog.getByText('Nothing is kept about Wren Ashby.')).toBeVisible();
});
