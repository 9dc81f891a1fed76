import { PDFDocument } from '@cantoo/pdf-lib';
import type { Locator } from '@playwright/test';
import { bringIn, expect, joinAs, startClass, surfaceShown, test } from '../support/fixtures';
import { makeHandout, saveHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { draw, expectMarks, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

test('pages of a document go in after the shown page in the middle of a class', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'Pages of a document' }).click();
  await teacher.getByLabel('Choose documents').setInputFiles({
    name: 'words.rtf',
    mimeType: 'application/rtf',
    buffer: Buffer.from('{\\rtf1\\ansi Arches push outwards.\\par}'),
  });
  await teacher.getByRole('button', { name: 'Put all pages in' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await surfaceShown(wren);
  await draw(teacher, wave(200, 300));
  await expectMarks(wren, 1);
  expect(new OutsideReader(await makeHandout(teacher)).text(2)).toContain('Arches push outwards');
});

test('pages of a document are chosen by their small pictures, and so are those of a handout', async ({
  teacher,
}) => {
  const doc = await PDFDocument.create();
  for (let n = 1; n <= 9; n++) doc.addPage([400, 300]).drawText(`Span ${n}`, { x: 60, y: 150, size: 60 });
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'Pages of a document' }).click();
  await teacher.getByLabel('Choose documents').setInputFiles({
    name: 'spans.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(await doc.save()),
  });
  await teacher.getByRole('button', { name: 'Choose some of its pages …' }).click();
  const list = teacher.getByLabel(/^Which pages/);
  const page = (n: number) => teacher.getByRole('button', { name: `Page ${n}`, exact: true });
  await page(2).click();
  await page(4).click({ modifiers: ['Shift'] });
  await page(9).click();
  await page(3).click();
  await expect(list).toHaveValue('2, 4, 9');
  await expect(page(4)).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(() => inkOf(page(2).locator('canvas'))).toBeGreaterThan(100);
  await list.fill('2, 12');
  await expect(teacher.getByRole('alert')).toContainText('There are 9 pages');
  await list.fill('2, 4');
  await expect(page(9)).toHaveAttribute('aria-pressed', 'false');
  await teacher.getByRole('button', { name: 'Put these pages in' }).click();
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  await page(3).click();
  const handout = new OutsideReader(await saveHandout(teacher));
  expect(handout.text(1)).toContain('Span 4');
  // A page has a line for its size, its turn and each of two boxes.
  expect(handout.geometry()).toHaveLength(4);
});

/** How many pixels of a small picture are dark. */
function inkOf(canvas: Locator): Promise<number> {
  return canvas.evaluate((element: HTMLCanvasElement) => {
    if (element.width === 0) return 0;
    const { data } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height);
    let dark = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i + 3]! > 200 && data[i]! < 100) dark += 1;
    return dark;
  });
}
