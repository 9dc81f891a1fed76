import { PNG } from 'pngjs';
import { bringIn, chooseFile, expect, surfaceShown, TEACHER, test } from '../support/fixtures';
import { chooseForLesson } from '../support/lessonMenu';
import { plainPdf, samplePdf } from '../support/pdfs';
import { pageOnScreen } from '../support/pictures';
import { Server } from '../support/server';
import { draw, expectMarks, stageState, wave } from '../support/stage';

test('the first start makes the first teacher; signing out and in again works', async ({ browser }) => {
  const server = await Server.start();
  const page = await (await browser.newContext({ baseURL: server.url })).newPage();
  await page.goto('/');
  await page.getByRole('button', { name: 'Start using Doodla' }).click();
  await expect(page.getByText('Please give your name.')).toBeVisible();
  await page.getByLabel('Your name').fill(TEACHER.name);
  await page.getByLabel('E-mail address').fill(TEACHER.email);
  await page.getByLabel('Password').fill(TEACHER.password);
  await page.getByRole('button', { name: 'Start using Doodla' }).click();
  await expect(page.getByText('Nothing here yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('E-mail address').fill(TEACHER.email);
  await page.getByLabel('Password').fill('not-the-password');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not go together');
  await page.getByLabel('Password').fill(TEACHER.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Your lessons' })).toBeVisible();
  await server.remove();
});

test('a lesson is shown with its first page, renamed, deleted and brought back', async ({ teacher }) => {
  await bringIn(teacher, { name: 'arch_bridges.pdf', bytes: await plainPdf(2) });
  await teacher.getByRole('link', { name: 'Back to your lessons' }).click();
  const card = teacher.getByRole('listitem').filter({ hasText: 'arch bridges' });
  await expect(card.locator('img')).toHaveJSProperty('complete', true);
  await expect
    .poll(() => card.locator('img').evaluate((img: HTMLImageElement) => img.naturalWidth))
    .toBe(480);
  await chooseForLesson(teacher, 'arch bridges', 'Rename');
  await teacher.getByLabel('Title').fill('Arches');
  await teacher.getByRole('button', { name: 'Keep this title' }).click();
  await expect(teacher.getByRole('heading', { name: 'Arches' })).toBeVisible();
  await chooseForLesson(teacher, 'Arches', 'Delete');
  await expect(teacher.getByRole('heading', { name: 'Arches' })).toBeHidden();
  await teacher.getByRole('button', { name: 'Undo' }).click();
  await expect(teacher.getByRole('heading', { name: 'Arches' })).toBeVisible();
});

test('a file dropped on the page becomes a lesson', async ({ teacher }) => {
  await expect(teacher.getByText('Nothing here yet.')).toBeVisible();
  const base64 = Buffer.from(await plainPdf(1)).toString('base64');
  const transfer = await teacher.evaluateHandle((data) => {
    const dropped = new DataTransfer();
    dropped.items.add(
      new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], 'dropped.pdf', {
        type: 'application/pdf',
      }),
    );
    return dropped;
  }, base64);
  await teacher.getByRole('main').dispatchEvent('drop', { dataTransfer: transfer });
  await teacher.waitForURL(/\/lesson\//);
  await expect(teacher.getByRole('heading', { name: 'dropped' })).toBeVisible();
});

test('files that are no use are refused with what to do', async ({ teacher }) => {
  for (const [bytes, hint] of [
    [Buffer.from('no pdf at all'), 'cannot be taken in'],
    [Buffer.alloc(0), 'empty'],
    [samplePdf('03-invalid.pdf').subarray(0, 400), 'damaged'],
  ] as const) {
    await chooseFile(teacher, { name: 'file.pdf', bytes });
    await expect(teacher.getByRole('alert')).toContainText(hint);
    await teacher.getByRole('button', { name: 'Close' }).last().click();
  }
  await expect(teacher.getByText('Nothing here yet.')).toBeVisible();
});

test('an upload shows how far it is and can be cancelled', async ({ teacher }) => {
  await expect(teacher.getByText('Nothing here yet.')).toBeVisible();
  let release = (): void => undefined;
  const held = new Promise<void>((resolve) => (release = resolve));
  await teacher.route('**/api/lessons', async (route) => {
    if (route.request().method() !== 'POST') return route.continue();
    await held;
    await route.continue().catch(() => undefined);
  });
  await chooseFile(teacher, { name: 'file.pdf', bytes: await plainPdf(3) });
  await expect(teacher.getByRole('progressbar')).toBeVisible();
  await teacher.getByRole('button', { name: 'Cancel' }).click();
  release();
  await expect(teacher.getByRole('progressbar')).toBeHidden();
  await teacher.reload();
  await expect(teacher.getByText('Nothing here yet.')).toBeVisible();
});

test('of several documents a bad one is named, and the others come in', async ({ teacher }) => {
  const pdf = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/pdf', buffer });
  const good = Buffer.from(await plainPdf(1));
  await teacher
    .getByLabel('Choose documents')
    .setInputFiles([
      pdf('broken.pdf', Buffer.from('%PDF-1.7 no')),
      pdf('one.pdf', good),
      pdf('two.pdf', good),
    ]);
  await expect(teacher.getByText(/^broken\.pdf: .*damaged/)).toBeVisible();
  await expect(teacher.getByLabel('Page 1 of 2')).toBeVisible();
  await surfaceShown(teacher);
  // Dropped on an open lesson: a web page, and one that cannot be read.
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'Pages of a document' }).click();
  await teacher
    .getByLabel('Choose documents')
    .setInputFiles([
      pdf('bad.pdf', Buffer.from('%PDF-1.7 no')),
      { name: 'page.html', mimeType: 'text/html', buffer: Buffer.from('<p>Beams bend</p>') },
    ]);
  await teacher.getByRole('button', { name: 'Put all pages in' }).click();
  await expect(teacher.getByRole('alert')).toContainText('bad.pdf');
  await teacher.getByRole('button', { name: 'Close' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
});

test('a lesson begins without a document: on a blank page with another after it, or on pictures', async ({
  teacher,
}) => {
  const begin = async (how: string) => {
    await teacher.getByRole('button', { name: 'New lesson without a document' }).click();
    await teacher.getByRole('menuitem', { name: how }).click();
  };
  await begin('On a blank page');
  await teacher.getByRole('button', { name: 'Squared' }).click();
  await teacher.getByLabel('Another colour of the page').fill('#dff0d8');
  await teacher.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(teacher.getByLabel('Page 1 of 1')).toBeVisible();
  await surfaceShown(teacher);
  // Pointing works without a class too, and leaves nothing.
  await teacher.keyboard.press('d');
  await teacher.mouse.move(600, 400);
  await expect.poll(async () => (await stageState(teacher)).pointing.length).toBe(1);
  await teacher.keyboard.press('p');
  await draw(teacher, wave(200, 200));
  await expectMarks(teacher, 1);
  // By one tap, or by asking for the next page twice.
  await teacher.keyboard.press('PageDown');
  await teacher.getByRole('button', { name: 'A new page like it' }).click();
  await expect(teacher.getByLabel('Page 2 of 2')).toBeVisible();
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expect(teacher.getByLabel('Page 3 of 3')).toBeVisible();
  await surfaceShown(teacher);
  const { data } = await pageOnScreen(teacher, 200, 100);
  expect([...data.subarray(4 * 40, 4 * 40 + 3)]).toEqual([223, 240, 216]);

  // What was chosen last is chosen the next time.
  await teacher.goto('/');
  await begin('On a blank page');
  await expect(teacher.getByRole('button', { name: 'Squared' })).toHaveAttribute('aria-pressed', 'true');
  await teacher.getByRole('button', { name: 'Close' }).click();
  const picture = (name: string, width: number) => {
    const png = new PNG({ width, height: 60 });
    for (let i = 0; i < png.data.length; i += 4) png.data.set([200, 60, 40, 255], i);
    return { name, mimeType: 'image/png', buffer: PNG.sync.write(png) };
  };
  await teacher
    .getByLabel('Choose pictures for a lesson')
    .setInputFiles([
      picture('one.png', 90),
      { name: 'broken.png', mimeType: 'image/png', buffer: Buffer.from('no') },
      picture('two.png', 40),
    ]);
  await expect(teacher.getByText(/broken\.png/)).toBeVisible();
  await expect(teacher.getByLabel(/^Page \d of 2$/)).toBeVisible();
});

test('the demo signs in with one click', async ({ browser }) => {
  const server = await Server.start({ DOODLA_DEMO: '1' });
  const context = await browser.newContext({ baseURL: server.url });
  await context.request.post('/api/setup', { data: TEACHER });
  await context.clearCookies();
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
  await expect(page.getByRole('heading', { name: 'Your lessons' })).toBeVisible();
  await server.remove();
});
