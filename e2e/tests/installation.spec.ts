import type { Browser, Page } from '@playwright/test';
import { findings } from '../support/axe';
import { expect, test } from '../support/fixtures';
import { Server } from '../support/server';

const OTIS = { email: 'otis@district.example', password: 'keys-and-doors' };
const PASSWORD = 'chalk-and-board';

let server: Server;
test.beforeAll(async () => {
  server = await Server.start({ DOODLA_OPERATOR: OTIS.email });
});
test.afterAll(() => server.remove());

const browserOf = async (browser: Browser) => (await browser.newContext({ baseURL: server.url })).newPage();

/** Takes an invitation up, by its link. */
async function accept(page: Page, link: string, name: string, password = PASSWORD): Promise<void> {
  await page.goto(new URL(link).pathname);
  await page.getByLabel('Your name').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Start using Doodla' }).click();
}

async function makeSchool(otis: Page, name: string, email: string): Promise<string> {
  await otis.getByRole('button', { name: 'New school' }).click();
  await otis.getByLabel('Name of the school').fill(name);
  await otis.getByLabel('Who looks after the school').fill('Nia Holm');
  await otis.getByLabel('Their e-mail address').fill(email);
  await otis.getByRole('button', { name: 'Make the school' }).click();
  const link = await otis.getByLabel('Link', { exact: true }).inputValue();
  await otis.keyboard.press('Escape');
  return link;
}

test('schools are made, looked after and closed from outside, and each is a world of its own', async ({
  browser,
}) => {
  await expect.poll(() => server.printed).toContain('/invited/');
  const otis = await browserOf(browser);
  await accept(otis, /http\S+\/invited\/\S+/.exec(server.printed)![0], 'Otis Rook', OTIS.password);
  await expect(otis.getByRole('heading', { name: 'The installation' })).toBeVisible();
  expect(await findings(otis)).toEqual([]);
  await expect(otis).toHaveTitle('The installation · Doodla');
  // Wherever they go, they are where the figures are.
  await otis.goto('/school');
  const north = await makeSchool(otis, 'Northgate School', 'nia@north.example');
  const east = await makeSchool(otis, 'Eastfield School', 'nia@north.example');
  await expect(otis.getByRole('row')).toHaveCount(5);
  await expect(otis.getByText('/at/northgate-school')).toBeVisible();

  const nia = await browserOf(browser);
  await accept(nia, north, 'Nia Holm');
  await expect(nia.getByRole('heading', { name: 'Your lessons' })).toBeVisible();
  await nia.getByRole('link', { name: 'The school' }).click();
  await expect(nia.getByRole('heading', { name: 'Northgate School' })).toBeVisible();
  await expect(nia.getByText('the school was made (Northgate School) – Otis Rook')).toBeVisible();
  const niaEast = await browserOf(browser);
  await accept(niaEast, east, 'Nia Holm');
  await niaEast.getByRole('link', { name: 'The school' }).click();
  await expect(niaEast.getByLabel('Looks after the school')).toHaveCount(1);

  // Whoever has a place at both says where they want to be; a school's own page knows.
  const anew = await browserOf(browser);
  const signIn = async () => {
    await anew.getByLabel('E-mail address').fill('nia@north.example');
    await anew.getByLabel('Password').fill(PASSWORD);
    await anew.getByRole('button', { name: 'Sign in', exact: true }).click();
  };
  await anew.goto('/');
  await signIn();
  await anew.getByRole('button', { name: 'Eastfield School' }).click();
  await anew.getByRole('link', { name: 'The school' }).click();
  await expect(anew.getByRole('heading', { name: 'Eastfield School' })).toBeVisible();
  await anew.context().clearCookies();
  // Whatever a school's own sign-in sends back with is said.
  for (const [problem, said] of [
    ['no-school-sign-in', 'This server has no sign-in with the school’s accounts.'],
    ['too-many-teachers', 'Signing in with the school’s account did not work.'],
  ] as const) {
    await anew.goto(`/?problem=${problem}`);
    await expect(anew.getByText(said)).toBeVisible();
  }
  await anew.goto('/at/northgate-school');
  await expect(anew.getByRole('heading', { name: 'Sign in to teach at Northgate School' })).toBeVisible();
  await signIn();
  await expect(anew.getByRole('heading', { name: 'Your lessons' })).toBeVisible();
  await expect(anew).toHaveURL(/\/$/);

  // Room and places; what is wrong is said, and nothing is lost.
  const open = async (name: string) => {
    await otis.goto('/');
    await otis.getByRole('button', { name }).click();
  };
  await open('Northgate School');
  expect(await findings(otis)).toEqual([]);
  await otis.getByLabel('Most teachers').fill('many');
  await otis.getByRole('button', { name: 'Keep this' }).click();
  await expect(otis.getByText('Please give a whole number above nothing')).toBeVisible();
  await otis.getByLabel('Most teachers').fill('1');
  await otis.getByLabel('Room for files, GB').fill('2,5');
  await otis.getByRole('button', { name: 'Keep this' }).click();
  await expect(otis.getByText('That is kept.')).toBeVisible();
  await nia.reload();
  await expect(nia.getByText('0 of 2.5 GB used for files')).toBeVisible();
  await nia.getByLabel('Name', { exact: true }).fill('Bea');
  await nia.getByLabel('E-mail address').fill('bea@north.example');
  await nia.getByRole('button', { name: 'Make an invitation' }).click();
  await expect(nia.getByText('All places for teachers of this school are taken; it has 1.')).toBeVisible();

  // Closed: nobody comes in, and the other school goes on.
  await otis.getByRole('button', { name: 'Close the school' }).click();
  const again = otis.getByRole('button', { name: 'Open the school again' });
  await expect(again).toBeVisible();
  await otis.reload();
  await expect(again).toBeVisible();
  await nia.goto('/');
  await expect(nia.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  await nia.goto('/at/northgate-school');
  await expect(nia.getByText('This school has been closed on this server.')).toBeVisible();
  await niaEast.reload();
  await expect(niaEast.getByRole('heading', { name: 'Eastfield School' })).toBeVisible();
  await otis.getByLabel('Type its name to be sure').fill('Northgate School');
  await otis.getByRole('button', { name: 'Take the school away for good' }).click();
  await expect(otis.getByRole('row')).toHaveCount(4);
  await expect(otis.getByText('Northgate School')).toHaveCount(0);
});
