import type { Browser, Page } from '@playwright/test';
import { expect, test as base } from '@playwright/test';
import { addTeacher } from './addTeacher';
import { Server } from './server';

export const TEACHER = { name: 'Ada Fenn', email: 'ada@school.example', password: 'chalk-and-board' };

/** A page that lies still for so many frames has found its place. */
const STILL_FRAMES = 12;

interface Fixtures {
  /** Closes the browsers of a test's students when it is over. */
  tidy: void;
  server: Server;
  /** A page on which a teacher has signed in whom only this test knows. */
  teacher: Page;
}

export interface Options {
  /** Name by which browsers reach the server; only localhost is a secure context over plain HTTP. */
  host: string;
}

export const test = base.extend<Fixtures, Options & { shared: Server }>({
  host: ['localhost', { option: true, scope: 'worker' }],
  shared: [
    async ({ host }, use) => {
      const server = await Server.start({}, host);
      await use(server);
      await server.remove();
    },
    { scope: 'worker' },
  ],
  tidy: [
    async ({ browser }, use) => {
      await use();
      // Whoever is left in a class would go on drawing and asking, and slow down all tests after this one.
      await Promise.all(browser.contexts().map((context) => context.close()));
    },
    { auto: true },
  ],
  server: async ({ shared }, use) => {
    // A test that failed may have left it down.
    await shared.run();
    await use(shared);
  },
  teacher: async ({ browser, server }, use) => {
    const context = await browser.newContext({ baseURL: server.url });
    const value = addTeacher(server.data, TEACHER.name);
    await context.addCookies([{ name: 'doodla', value, url: server.url, httpOnly: true }]);
    const page = await context.newPage();
    await page.goto('/');
    await use(page);
    await context.close();
  },
});

export { expect };

export interface NamedFile {
  name: string;
  bytes: Uint8Array;
}

/** Brings a PDF in by the start page and waits until its lesson is open. */
export async function bringIn(page: Page, { name, bytes }: NamedFile): Promise<void> {
  await chooseFile(page, { name, bytes });
  await page.waitForURL(/\/lesson\//);
  await surfaceShown(page);
}

export async function chooseFile(page: Page, { name, bytes }: NamedFile): Promise<void> {
  await page
    .getByLabel('Choose documents')
    .setInputFiles({ name, mimeType: 'application/pdf', buffer: Buffer.from(bytes) });
}

/** Starts a class on the open lesson. Returns its join code. */
export async function startClass(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Start class' }).click();
  const code = (await page.getByTestId('join-code').innerText()).replace(/\s/g, '');
  await page.getByRole('button', { name: 'Close' }).click();
  return code;
}

export async function penState(page: Page, up: boolean): Promise<void> {
  const wanted = page.getByRole('button', { name: up ? /^Pens up/ : /^Pens down/ });
  const other = page.getByRole('button', { name: up ? /^Pens down/ : /^Pens up/ });
  await wanted.or(other).waitFor();
  if (await other.isVisible()) await other.click();
  await wanted.waitFor();
}

/** Starts a class in which students may write. Returns its join code. */
export async function startWriting(page: Page): Promise<string> {
  const code = await startClass(page);
  await penState(page, true);
  return code;
}

/** Takes back by the notice that tells what was done; the tools have a button of the same name. */
export async function undoInNotice(page: Page): Promise<void> {
  await page.locator('[data-sonner-toast]').getByRole('button', { name: 'Undo' }).last().click();
}

/** Joins a class as a student in a browser of its own. */
export async function joinAs(
  browser: Browser,
  url: string,
  code: string,
  name: string,
  viewport = { width: 1280, height: 800 },
): Promise<Page> {
  const context = await browser.newContext({ baseURL: url, viewport });
  const page = await context.newPage();
  await page.goto(`/join/${code}`);
  await page.getByLabel('Your name').fill(name);
  await page.getByRole('button', { name: 'Go in' }).click();
  // The page makes room for the sign that says who one is.
  await page.locator('[data-bar=student]').waitFor();
  await surfaceShown(page);
  return page;
}

/** Waits until the page's surface has been drawn. */
export async function surfaceShown(page: Page): Promise<void> {
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  // The holders round the page come a moment later, and the page makes room for them.
  await page.evaluate(async () => {
    await (window as unknown as { doodla?: { toolsHere?: Promise<void> } }).doodla?.toolsHere;
  });
  await page.evaluate(
    (frames) =>
      new Promise<void>((resolve) => {
        let [last, same] = ['', 0];
        const look = () => {
          const { doodla } = window as unknown as {
            doodla?: { stageState?(): { scale: number; x: number } };
          };
          const { scale, x } = doodla?.stageState?.() ?? { scale: 0, x: 0 };
          const now = `${document.querySelectorAll('[data-bar]').length} ${scale} ${x}`;
          same = now === last ? same + 1 : 0;
          last = now;
          if (same >= frames) resolve();
          else requestAnimationFrame(look);
        };
        look();
      }),
    STILL_FRAMES,
  );
}
