import type { Browser, Page } from '@playwright/test';
import { expectReachable } from '../support/controls';
import { bringIn, expect, startWriting, surfaceShown, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { SIZES } from '../support/sizes';
import { draw, expectMarks, markCount, wave } from '../support/stage';
import { drawByFinger } from '../support/touch';
import { KeysOnly } from '../support/tree';

async function touchVisitor(browser: Browser, url: string): Promise<Page> {
  const context = await browser.newContext({
    baseURL: url,
    hasTouch: true,
    viewport: { width: 390, height: 844 },
  });
  return context.newPage();
}

/** Taps a control; where it is not in sight it is one tap away, behind `opener`. */
async function tap(page: Page, name: string | RegExp, opener?: string | RegExp): Promise<void> {
  const control = page.getByRole('button', { name }).or(page.getByRole('menuitem', { name }));
  const first = opener === undefined ? control : control.or(page.getByRole('button', { name: opener }));
  await first.first().waitFor();
  if (opener !== undefined && !(await control.first().isVisible()))
    await page.getByRole('button', { name: opener }).first().tap();
  await control.first().tap();
}

test('a whole lesson by touch only, on every size of screen', async ({ browser, server, teacher: desk }) => {
  await bringIn(desk, { name: 'bridges.pdf', bytes: await plainPdf(3) });
  const context = await browser.newContext({ baseURL: server.url, hasTouch: true });
  await context.addCookies(await desk.context().cookies());
  const teacher = await context.newPage();
  await teacher.goto(desk.url());
  await surfaceShown(teacher);
  await tap(teacher, 'Start class', 'Lesson');
  const code = (await teacher.getByTestId('join-code').innerText()).replace(/\s/g, '');
  await tap(teacher, 'Close');
  await tap(teacher, /^Pens down/, 'Class');

  const wren = await touchVisitor(browser, server.url);
  await wren.goto('/join');
  await wren.getByLabel('Class code').tap();
  await wren.keyboard.type(code);
  await wren.getByLabel('Your name').tap();
  await wren.keyboard.type('Wren');
  await tap(wren, 'Go in');
  await surfaceShown(wren);
  const fingers = {
    wren: await wren.context().newCDPSession(wren),
    teacher: await context.newCDPSession(teacher),
  };

  let marks = 0;
  for (const [width, height] of SIZES) {
    await test.step(`${width} × ${height}`, async () => {
      for (const page of [wren, teacher]) {
        await page.setViewportSize({ width, height });
        await surfaceShown(page);
        await expectReachable(page);
      }
      await tap(wren, 'Pen');
      await drawByFinger(wren, fingers.wren, wave(100, 150));
      await drawByFinger(wren, fingers.wren, wave(100, 250));
      await expectMarks(teacher, marks + 2);
      await tap(wren, 'Undo');
      await expectMarks(teacher, marks + 1);
      await tap(wren, 'Highlighter');
      await drawByFinger(wren, fingers.wren, wave(300, 300));
      await drawByFinger(teacher, fingers.teacher, wave(300, 500));
      marks += 3;
      for (const page of [wren, teacher]) await expectMarks(page, marks);
      await tap(teacher, 'Next page');
      await expectMarks(wren, 0);
      await tap(teacher, 'Previous page');
      await expectMarks(wren, marks);
    });
  }

  await tap(teacher, 'Hand out', 'Class');
  await tap(teacher, 'Make the PDF');
  await expect(teacher.getByText('It is ready.')).toBeVisible();
  await tap(teacher, 'Close');
  await tap(teacher, 'End class', 'Class');
  await tap(teacher, 'Keep and end');
  await expect(wren.getByText('This class has ended')).toBeVisible();
  await expectMarks(wren, marks);
  await context.close();
  await wren.context().close();
});

test('a whole lesson by keys only, known by the accessibility tree alone', async ({
  browser,
  server,
  teacher: page,
}) => {
  await bringIn(page, { name: 'bridges.pdf', bytes: await plainPdf(3) });
  await page.goto('/');
  const teacher = await KeysOnly.at(page);
  await teacher.hears(/^Your lessons$/);
  await teacher.press(/bridges/, 'link');
  await teacher.hears(/Page 1 of 3/);
  await surfaceShown(page);
  await teacher.press(/^Start class$/);
  await teacher.hears(/^Let the class in$/);
  const code = (await page.getByTestId('join-code').innerText()).replace(/\s/g, '');
  await page.keyboard.press('Escape');
  await teacher.press(/^Pens down/);
  await teacher.hears(/^Pens up/);

  const own = await browser.newContext({ baseURL: server.url });
  const screen = await own.newPage();
  await screen.goto('/join');
  const wren = await KeysOnly.at(screen);
  await wren.tabTo('textbox', /^Class code$/);
  await screen.keyboard.type(code);
  await wren.tabTo('textbox', /^Your name$/);
  await screen.keyboard.type('Wren');
  await screen.keyboard.press('Enter');
  await wren.hears(/^Pens up$/);
  await surfaceShown(screen);

  // A line by the arrow keys, and a text where they stand.
  await wren.tabTo('application', /^The page/);
  await screen.keyboard.press('p');
  await screen.keyboard.press('j');
  await wren.hears(/^Arrows move/);
  await screen.keyboard.press('Space');
  for (let i = 0; i < 12; i++) await screen.keyboard.press('ArrowRight');
  await screen.keyboard.press('Space');
  await screen.keyboard.press('Escape');
  await expectMarks(page, 1);
  await teacher.hears(/^Ink.*by Wren$/);
  await wren.press(/^Undo$/);
  await wren.hears(/^Taken back\.$/);
  await expectMarks(page, 0);
  await wren.press(/^Redo$/);
  await expectMarks(page, 1);

  await teacher.press(/^Next page$/);
  await wren.hears(/^Page 2 of 3/);
  await teacher.press(/^Previous page$/);
  await wren.hears(/^Page 1 of 3/);
  await page.keyboard.press('b');
  await wren.hears(/^The page is covered\.$/);
  await page.keyboard.press('Escape');
  await wren.hears(/^The whole page is in sight again\.$/);

  for (const [width, height] of SIZES) {
    await test.step(`${width} × ${height}`, async () => {
      for (const window of [page, screen]) {
        await window.setViewportSize({ width, height });
        await surfaceShown(window);
      }
      await teacher.press(/^Next page$/);
      await wren.hears(/^Page 2 of 3/);
      await teacher.press(/^Previous page$/);
      await wren.hears(/^Page 1 of 3/);
      await wren.press(/^Undo$/);
      await expectMarks(page, 0);
      await wren.tabTo('application', /^The page/);
      await screen.keyboard.press('Control+y');
      await expectMarks(page, 1);
    });
  }
  await page.setViewportSize({ width: 1280, height: 800 });

  await teacher.press(/^Hand out$/);
  await teacher.press(/^Make the PDF$/);
  await teacher.hears(/^It is ready\.$/);
  await expect.poll(async () => (await teacher.focused()).name).toMatch(/^Save bridges/);
  await page.keyboard.press('Escape');
  await teacher.press(/^End class$/);
  await teacher.press(/^Keep and end$/);
  await wren.hears(/^This class has ended$/);
  await own.close();
});

test('a lesson with forced colours, the largest letters and 400 % has everything in reach and in sight', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startWriting(teacher);
  // A window of 1280 × 1024 at 400 % (WCAG 2.2, 1.4.10).
  const context = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 320, height: 256 },
    deviceScaleFactor: 4,
    forcedColors: 'active',
  });
  await context.addInitScript(() => localStorage.setItem('doodla.typeSize', 'largest'));
  const wren = await context.newPage();
  await wren.goto(`/join/${code}`);
  await expectReachable(wren);
  await wren.getByLabel('Your name').fill('Wren');
  await wren.getByRole('button', { name: 'Go in' }).click();
  await surfaceShown(wren);
  await expectReachable(wren);
  await draw(wren, wave(100, 150, 300));
  await expectMarks(teacher, 1);
  await wren.getByRole('button', { name: 'More tools' }).click();
  await expectReachable(wren);
  await wren.getByRole('dialog').getByRole('button', { name: 'Highlighter', exact: true }).click();
  await wren.keyboard.press('Escape');
  // What is in hand is told by more than a colour that is gone.
  const inHand = wren.getByRole('toolbar', { name: 'Tools' }).locator('[aria-pressed=true]').first();
  expect(await inHand.evaluate((button) => getComputedStyle(button).outlineStyle)).not.toBe('none');
  await draw(wren, wave(100, 250, 300));
  await expectMarks(teacher, 2);
  await wren.getByRole('button', { name: 'Undo' }).first().click();
  await expectMarks(teacher, 1);
  expect(await markCount(wren)).toBe(1);
  for (const [width, height] of SIZES) {
    await test.step(`${width} × ${height}`, async () => {
      await wren.setViewportSize({ width, height });
      await surfaceShown(wren);
      await expectReachable(wren);
      expect(await inHand.evaluate((button) => getComputedStyle(button).outlineStyle)).not.toBe('none');
    });
  }
  await context.close();
});

test('a finger that rests on a button is told what it is called, and nothing else happens', async ({
  browser,
  server,
  teacher: desk,
}) => {
  await bringIn(desk, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const context = await browser.newContext({ baseURL: server.url, hasTouch: true });
  await context.addCookies(await desk.context().cookies());
  const page = await context.newPage();
  await page.goto(desk.url());
  await surfaceShown(page);
  const width = page.getByRole('button', { name: 'Fit the width' });
  const { x, y } = (await width.boundingBox())!;
  const finger = await context.newCDPSession(page);
  await finger.send('Input.dispatchTouchEvent', {
    type: 'touchStart',
    touchPoints: [{ x: x + 20, y: y + 20 }],
  });
  await expect(page.getByRole('tooltip')).toContainText('Fit the width');
  await finger.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expect(page.getByRole('tooltip')).toHaveCount(0);
  await expect(width).toHaveAttribute('aria-pressed', 'false');
  await width.tap();
  await expect(width).toHaveAttribute('aria-pressed', 'true');
  await context.close();
});

test('the accessibility tree of the main screens is as it should be', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startWriting(teacher);
  const context = await browser.newContext({ baseURL: server.url });
  const wren = await context.newPage();
  await wren.goto(`/join/${code}`);
  await expect(wren.getByRole('main')).toMatchAriaSnapshot(`
    - main:
      - heading "Join your class" [level=1]
      - text: Class code
      - textbox "Class code"
      - text: Your name
      - textbox "Your name"
      - button "Go in"
      - combobox "Language"
  `);
  await wren.getByLabel('Your name').fill('Wren');
  await wren.getByRole('button', { name: 'Go in' }).click();
  await surfaceShown(wren);
  await draw(wren, wave(100, 300));
  await expectMarks(teacher, 1);
  await expect(wren.getByRole('region', { name: 'What the page says' })).toMatchAriaSnapshot(`
    - region "What the page says":
      - heading "Page 1 of 2" [level=2]
      - paragraph: Bridges, sheet 1
      - paragraph: Ink, by you
  `);
  await expect(wren.getByRole('toolbar', { name: 'Tools' })).toMatchAriaSnapshot(`
    - toolbar "Tools":
      - group "Use or write":
        - button /Use the page/
        - button "Write on the page" [pressed]
      - group "Write":
        - button "Pen" [pressed]
        - button "Highlighter"
        - button "Text"
        - button "Eraser"
  `);
  await expect(teacher.getByRole('main')).toMatchAriaSnapshot(`
    - main:
      - link "Back to the lesson"
      - paragraph: In class
      - heading /bridges/ [level=1]
      - button /Join code/
      - button /Students/
      - button "Bring in"
      - button "Show"
      - button /Pens up/
      - button /Devices/
      - button "Hand out"
      - button "End class"
      - application /The page/
      - toolbar "Tools"
      - group "Size"
      - button "List of what is on the page"
      - group "Turn pages":
        - button "Previous page" [disabled]
        - text: 1 / 2
        - button "Next page"
      - region "What the page says":
        - heading "Page 1 of 2" [level=2]
        - paragraph: Bridges, sheet 1
        - paragraph: Ink, by Wren
  `);
  await teacher.goto('/');
  await expect(teacher.getByRole('main')).toMatchAriaSnapshot(`
    - main:
      - heading "Your lessons" [level=1]
      - button "New lesson without a document"
      - button "New lesson from a document"
      - button "Choose documents"
      - search:
        - searchbox "Search"
      - region "Classes that are still open":
        - link /bridges.* is still open/
      - navigation "Which lessons":
        - button "Last used" [pressed]
      - list:
        - listitem:
          - link /bridges/:
            - heading "bridges" [level=2]
          - 'button "Favourite: bridges"'
          - button "What to do with bridges"
  `);
  await context.close();
});
