import { bringIn, chooseFile, expect, TEACHER, test } from '../support/fixtures';
import { plainPdf, samplePdf } from '../support/pdfs';
import { Server } from '../support/server';

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
  await card.getByRole('button', { name: 'Rename' }).click();
  await teacher.getByLabel('Title').fill('Arches');
  await teacher.getByRole('button', { name: 'Keep this title' }).click();
  await expect(teacher.getByRole('heading', { name: 'Arches' })).toBeVisible();
  await teacher.getByRole('button', { name: 'Delete Arches' }).click();
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
