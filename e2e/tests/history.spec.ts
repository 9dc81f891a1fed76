import { bringIn, expect, joinAs, startWriting, surfaceShown, test, undoInNotice } from '../support/fixtures';
import { pageMenu } from '../support/pageMenu';
import { plainPdf } from '../support/pdfs';
import { darkInCanvas } from '../support/pictures';
import { draw, expectMarks, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('a page shows each earlier state with who and when, and one is brought back and undone', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await draw(teacher, wave(100, 200));
  await draw(wren, wave(100, 400));
  await draw(teacher, wave(100, 600));
  await expectMarks(teacher, 3);
  const ids = (await stageState(teacher)).marks.map(({ id }) => id);

  await pageMenu(teacher, 1, 'Earlier states');
  const dialog = teacher.getByRole('dialog', { name: 'Earlier states of page 1' });
  const slider = dialog.getByRole('slider', { name: 'Earlier states' });
  const picture = dialog.getByRole('img', { name: 'The page as it was' });
  const bring = dialog.getByRole('button', { name: 'Bring this state back' });
  await expect(slider).toHaveAttribute('aria-valuetext', 'Step 4 of 4');
  await expect(bring).toBeDisabled();
  const all = await darkInCanvas(picture);
  await dialog.getByRole('button', { name: 'One step earlier' }).click();
  await expect(dialog.getByRole('status')).toContainText('By Wren, ');
  await expect.poll(() => darkInCanvas(picture)).toBeLessThan(all);
  await slider.press('ArrowLeft');
  await expect(slider).toHaveAttribute('aria-valuetext', 'Step 2 of 4');
  await expect(dialog.getByRole('status')).toContainText('By you, ');
  await bring.click();
  await expect(dialog).toBeHidden();
  for (const page of [teacher, wren]) await expectMarks(page, 1);
  await undoInNotice(teacher);
  for (const page of [teacher, wren]) await expectMarks(page, 3);
  expect((await stageState(teacher)).marks.map(({ id }) => id).sort()).toEqual(ids.sort());

  // It is all there after a reload, with what was brought back as steps of their own.
  await teacher.reload();
  await surfaceShown(teacher);
  await pageMenu(teacher, 1, 'Earlier states');
  await expect(slider).toHaveAttribute('aria-valuetext', 'Step 6 of 6');
});
