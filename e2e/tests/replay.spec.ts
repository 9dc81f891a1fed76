import type { Locator, Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { findings } from '../support/axe';
import { expectReachable } from '../support/controls';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test, undoInNotice } from '../support/fixtures';
import { pageMenu } from '../support/pageMenu';
import { plainPdf } from '../support/pdfs';
import { darkInCanvas, pageOnScreen, similarity } from '../support/pictures';
import { setRules } from '../support/roster';
import { SIZES } from '../support/sizes';
import { draw, drawAndRest, expectMarks, stageState, typeAt, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

/** Height of a page of the document for its width. */
const RATIO = 842 / 595;

/** The replay that is open on a page. */
function replayOn(page: Page) {
  const dialog = page.getByRole('dialog', { name: 'Play again' });
  const picture = dialog.getByTestId('replay-page');
  const slider = dialog.getByRole('slider', { name: 'Time' });
  const play = dialog.getByRole('button', { name: 'Play', exact: true });
  return {
    dialog,
    picture,
    status: dialog.getByTestId('replay-status'),
    slider,
    play,
    /** Waits until it stands still and what it stands at is drawn. */
    async still(): Promise<void> {
      await expect(play).toBeVisible();
      await expect
        .poll(async () => (await picture.getAttribute('data-time')) === (await slider.inputValue()))
        .toBe(true);
    },
    /** Ink that is seen, in pixels. */
    ink: () => darkInCanvas(picture),
  };
}

/** Draws so slowly that it takes a while, as a hand does. */
async function drawSlowly(page: Page, points: [number, number][]): Promise<void> {
  await drawAndRest(page, points);
  await page.mouse.up();
}

async function timeOf(picture: Locator): Promise<number> {
  return Number(await picture.getAttribute('data-time'));
}

async function pngOf(canvas: Locator): Promise<PNG> {
  const source = await canvas.evaluate((element: HTMLCanvasElement) => element.toDataURL());
  return PNG.sync.read(Buffer.from(source.split(',')[1]!, 'base64'));
}

test('a page plays again step by step, ink as it grew, one author’s alone; its last picture is the page', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await joinAs(browser, server.url, await startWriting(teacher), 'Wren');
  await drawSlowly(teacher, wave(100, 200, 300));
  await expectMarks(teacher, 1);
  await typeAt(wren, 100, 400, 'Arches push outwards');
  await expectMarks(teacher, 2);
  await drawSlowly(teacher, wave(100, 600, 300));
  await expectMarks(teacher, 3);
  const { width } = await stageState(teacher);
  const live = await pageOnScreen(teacher, width, width * RATIO);

  await pageMenu(teacher, 1, 'Play again');
  const { dialog, picture, status, slider, play, still, ink } = replayOn(teacher);
  await expect(status).toContainText('Page 1');
  await still();
  const none = await ink();

  // The first step grows: half-way there is less of it than at its end.
  await slider.focus();
  await teacher.keyboard.press('ArrowRight');
  await expect(status).toContainText('you,');
  await still();
  expect(await ink()).toBeGreaterThan(none);
  const [first, end] = [await ink(), await timeOf(picture)];
  expect(end).toBeGreaterThan(2);
  await slider.fill(String(Math.round(end / 2)));
  await expect.poll(ink).toBeLessThan(first);
  expect(await ink()).toBeGreaterThan(none);

  // Over the text to the last stroke, whose picture is what the class sees.
  await teacher.keyboard.press('ArrowRight');
  await expect(play).toBeVisible();
  await expect.poll(ink).toBe(first);
  await teacher.keyboard.press('ArrowRight');
  await expect(status).toContainText('Wren');
  await expect.poll(ink).toBeGreaterThan(first);
  await teacher.keyboard.press('End');
  await expect(status).toContainText('you,');
  await expect
    .poll(async () => {
      const played = await pngOf(picture);
      const [a, b] = await sameSize(teacher, live, played);
      return similarity(a, b);
    })
    .toBeGreaterThan(0.97);

  const whole = await ink();
  await dialog.getByRole('combobox', { name: 'Whose marks' }).selectOption('Wren');
  await expect.poll(ink).toBeLessThan(whole);
  await expect(status).toContainText('Wren');
  await dialog.getByRole('combobox', { name: 'Whose marks' }).selectOption('Everybody’s marks');
  // It goes on where it was, which was the end of hers.
  await expect.poll(ink).toBeLessThan(whole);
  await teacher.keyboard.press('Escape');
  await pageMenu(teacher, 1, 'Play again');
  await slider.focus();
  await teacher.keyboard.press('End');
  await expect.poll(ink).toBe(whole);

  // Played at sixteen times to its end.
  await dialog.getByRole('combobox', { name: 'Speed' }).selectOption('16 ×');
  await teacher.keyboard.press('Escape');
  await pageMenu(teacher, 1, 'Play again');
  await dialog.getByRole('combobox', { name: 'Speed' }).selectOption('16 ×');
  await play.click();
  await expect.poll(ink).toBe(whole);
  await expect(play).toBeVisible();
});

/** Two pictures of a page drawn at the smaller one's size, by the browser. */
async function sameSize(page: Page, a: PNG, b: PNG): Promise<[PNG, PNG]> {
  const width = Math.min(a.width, b.width);
  const scaled = async (picture: PNG) => {
    const source = `data:image/png;base64,${PNG.sync.write(picture).toString('base64')}`;
    const drawn = await page.evaluate(
      async ([from, across, ratio]) => {
        const image = new Image();
        image.src = from;
        await image.decode();
        const canvas = document.createElement('canvas');
        [canvas.width, canvas.height] = [across, Math.round(across * ratio)];
        const ctx = canvas.getContext('2d')!;
        ctx.imageSmoothingQuality = 'high';
        ctx.drawImage(image, 0, 0, canvas.width, canvas.height);
        return canvas.toDataURL();
      },
      [source, width, RATIO] as const,
    );
    return PNG.sync.read(Buffer.from(drawn.split(',')[1]!, 'base64'));
  };
  return [await scaled(a), await scaled(b)];
}

test('the whole class turns its pages again; a moment becomes a page, and the page what it was', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await joinAs(browser, server.url, await startWriting(teacher), 'Wren');
  await draw(teacher, wave(100, 200));
  await draw(wren, wave(100, 400));
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Next page' }).click();
  await expectMarks(wren, 0);
  await draw(teacher, wave(100, 300));
  await expectMarks(wren, 1);

  await pageMenu(teacher, 1, 'Play again');
  const { dialog, status, slider, play, still } = replayOn(teacher);
  await dialog.getByRole('combobox', { name: 'What is played' }).selectOption('The whole class');
  await slider.focus();
  await teacher.keyboard.press('Home');
  await expect(status).toContainText('Page 1');
  await still();
  await teacher.keyboard.press('End');
  await expect(status).toContainText('Page 2');
  // Each page that it came to is a chapter, which can be named and gone to.
  const chapters = dialog.getByRole('combobox', { name: 'Chapters' });
  await dialog.getByRole('button', { name: 'Rename this chapter' }).click();
  // From its field, Escape leaves the field alone.
  await dialog.getByLabel('What this chapter is called').press('Escape');
  await dialog.getByRole('button', { name: 'Rename this chapter' }).click();
  await dialog.getByLabel('What this chapter is called').fill('How arches push');
  await dialog.getByLabel('What this chapter is called').press('Enter');
  await expect(chapters.locator('option')).toHaveText([/Page 1$/, /How arches push$/]);
  await chapters.selectOption({ index: 0 });
  await expect(status).toContainText('Page 1');
  await chapters.selectOption({ index: 1 });
  await expect(status).toContainText('Page 2');
  // Small pictures lead to their moments.
  await dialog
    .getByRole('button', { name: /^Go to/ })
    .first()
    .click();
  await expect(status).toContainText('Page 1');

  // After the first stroke: a page of its own with that stroke alone.
  await dialog.getByRole('combobox', { name: 'What is played' }).selectOption('Page 1');
  await slider.focus();
  await teacher.keyboard.press('Home');
  await teacher.keyboard.press('ArrowRight');
  await expect(status).toContainText('you,');
  await expect(play).toBeVisible();
  await dialog.getByRole('button', { name: 'Make it a page' }).click();
  await expect(dialog).toBeHidden();
  await expectMarks(teacher, 1);
  const pages = teacher.getByRole('navigation', { name: 'Pages' });
  await expect(pages.getByRole('button', { name: /^What to do with page/ })).toHaveCount(3);

  await pageMenu(teacher, 1, 'Play again');
  await slider.focus();
  await teacher.keyboard.press('ArrowRight');
  await expect(status).toContainText('you,');
  await expect(play).toBeVisible();
  await dialog.getByRole('button', { name: 'Bring it back' }).click();
  await expect(dialog).toBeHidden();
  await teacher.getByRole('button', { name: 'Page 1', exact: true }).first().click();
  await expectMarks(teacher, 1);
  await undoInNotice(teacher);
  await expectMarks(teacher, 2);
});

test('a student on a phone plays what they may see once the teacher lets them, also after the class', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren', { width: 390, height: 844 });
  const again = wren.getByRole('button', { name: 'Play again' });
  await draw(teacher, wave(100, 200));
  await draw(teacher, wave(100, 400));
  await expectMarks(wren, 2);
  await expect(again).toBeHidden();
  await setRules(teacher, ['Play pages again']);
  await again.click();
  const { dialog, status, picture } = replayOn(wren);
  await expect(status).toContainText('Page 1');
  await dialog.getByRole('button', { name: 'One step on' }).click();
  await expect(status).toContainText('the teacher');
  await expect.poll(() => darkInCanvas(picture)).toBeGreaterThan(0);
  expect(await findings(wren)).toEqual([]);
  for (const [width, height] of [...SIZES, [320, 256]] as const) {
    await wren.setViewportSize({ width, height });
    await expectReachable(wren);
  }
  // What is a teacher's is not offered.
  await expect(dialog.getByRole('button', { name: 'Bring it back' })).toBeHidden();
  await dialog.getByRole('button', { name: 'Close' }).click();

  await teacher.getByRole('button', { name: 'End class' }).click();
  await teacher.getByRole('button', { name: 'Keep and end' }).click();
  await expect(wren.getByText('This class has ended').first()).toBeVisible();
  await wren.reload();
  await surfaceShown(wren);
  await again.click();
  await expect(status).toContainText('Page 1');
  await wren.keyboard.press('ArrowRight');
  await expect(status).toContainText('the teacher');
  expect((await stageState(wren)).marks).toHaveLength(2);
});

test('a stop says what to do and holds the playback until one goes on; its teacher changes it and takes it away', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await joinAs(browser, server.url, await startWriting(teacher), 'Wren');
  await draw(teacher, wave(100, 200));
  await draw(teacher, wave(100, 400));
  await expectMarks(wren, 2);
  await setRules(teacher, ['Play pages again']);

  await pageMenu(teacher, 1, 'Play again');
  const own = replayOn(teacher);
  await expect(own.status).toContainText('Page 1');
  await teacher.keyboard.press('ArrowRight');
  await expect(own.status).toContainText('you,');
  await expect(own.play).toBeVisible();
  await own.dialog.getByRole('button', { name: 'Stop here' }).click();
  const form = own.dialog.getByRole('form', { name: 'Stop' });
  await form.getByLabel('What is to be done meanwhile').fill('Draw the arch now');
  await form.getByLabel('Time for it').selectOption('1:00');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form).toBeHidden();

  await wren.getByRole('button', { name: 'Play again' }).click();
  const hers = replayOn(wren);
  await expect(hers.status).toContainText('Page 1');
  await hers.play.click();
  await expect(hers.dialog.getByText('Draw the arch now')).toBeVisible();
  await expect(hers.dialog.getByRole('timer')).toHaveText(/^(1:00|0:5\d)$/);
  const held = await timeOf(hers.picture);
  expect(held).toBeLessThan(Number(await hers.slider.getAttribute('max')));
  await hers.dialog.getByRole('button', { name: 'Go on' }).click();
  await expect(hers.dialog.getByText('Draw the arch now')).toBeHidden();
  await expect.poll(() => timeOf(hers.picture)).toBeGreaterThan(held);
  // A stop is changed by its teacher alone.
  await hers.dialog.getByRole('button', { name: /^Stop at/ }).click();
  await expect(hers.dialog.getByRole('form')).toBeHidden();

  await own.dialog.getByRole('button', { name: /^Stop at .* Draw the arch now/ }).click();
  await form.getByRole('button', { name: 'Delete' }).click();
  await expect(own.dialog.getByRole('button', { name: /^Stop at/ })).toBeHidden();
  await own.dialog.getByRole('button', { name: 'Undo' }).click();
  const flag = own.dialog.getByRole('button', { name: /^Stop at .* Draw the arch now/ });
  await expect(flag).toBeVisible();

  // What cannot be taken away is there again, once, and it is said why.
  await teacher.route('**/stops/*', (route) => route.abort());
  await flag.click();
  await form.getByRole('button', { name: 'Delete' }).click();
  await expect(flag).toHaveCount(1);
  await expect(own.dialog.getByRole('button', { name: 'Undo' })).toBeHidden();
});

test('without a connection it is said that nothing can be read, and asked for again', async ({ teacher }) => {
  await draw(teacher, wave(100, 200));
  await expectMarks(teacher, 1);
  await teacher.route('**/replay', (route) => route.abort());
  await pageMenu(teacher, 1, 'Play again');
  const { dialog, status } = replayOn(teacher);
  await expect(dialog.getByRole('alert')).toContainText('cannot be reached');
  await teacher.unroute('**/replay');
  await dialog.getByRole('button', { name: 'Try again' }).click();
  await expect(status).toContainText('Page 1');
});
