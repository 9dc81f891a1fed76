import type { Explanation } from '@doodla/core';
import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { findings } from '../support/axe';
import { CuttableLine } from '../support/cuttableLine';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test } from '../support/fixtures';
import { forbiddenMicrophone, probed, soundingMicrophone, tonesIn } from '../support/microphone';
import { plainPdf } from '../support/pdfs';
import { kept, playedOn, recordingOn, secondsOf } from '../support/recording';
import { setRules } from '../support/roster';
import { draw, expectMarks, wave } from '../support/stage';

const PHONE = { width: 390, height: 844 };
/** Sound and picture may be so far apart, milliseconds: the narrower side of EBU R 37 (2007), 40 ms early to 60 ms late. */
const IN_STEP_MS = 40;

/** Longest piece of sound that a browser writes, seen on a busy machine: two packets of Opus (RFC 6716) of 60 ms. */
const A_PIECE_MS = 200;

test.beforeEach(async ({ teacher }) => {
  await soundingMicrophone(teacher);
  await teacher.reload();
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(3) });
});

test('an explanation is recorded over pages with a pause and a stop, and plays again as it was', async ({
  teacher,
}) => {
  const { begin, lasts, button, finish, play } = recordingOn(teacher);
  await draw(teacher, wave(80, 80));
  await begin('Arches');
  await draw(teacher, wave(80, 200));
  await lasts(1);
  await teacher.keyboard.press('!');
  await expect(teacher.getByRole('button', { name: 'Put a stop here (1 so far)' })).toBeVisible();
  await draw(teacher, wave(80, 300));
  await teacher.keyboard.press('PageDown');
  await surfaceShown(teacher);
  await lasts(2);
  await button('Pause').click();
  await draw(teacher, wave(80, 400));
  await button('Go on').click();
  await draw(teacher, wave(80, 500));
  await lasts(3);
  await finish();

  const { list } = kept(teacher);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  expect((await list())[0]!.takes).toHaveLength(2);

  // It begins with what was there, waits at its stop, and what was written in the pause is there when it goes on.
  const { dialog, status, slider, play: playIt, ink, settledInk } = await play('Arches');
  await expect(status).toContainText('0:00');
  await expect.poll(ink).toBeGreaterThan(0);
  const before = await settledInk();
  await playIt.click();
  await dialog.getByRole('button', { name: 'Go on' }).click();
  await expect(status).toContainText('Page 2');
  await expect(playIt).toBeVisible();
  await expect.poll(ink).toBeGreaterThan(before);
  expect(await dialog.getByRole('combobox', { name: 'Chapters' }).locator('option').count()).toBe(2);
  expect(await findings(teacher)).toEqual([]);
  await slider.focus();
  await teacher.keyboard.press('ArrowLeft');
  await expect.poll(ink).toBeLessThan(await ink().then((now) => now + 1));
  await teacher.keyboard.press('Escape');
  await expect(recordingOn(teacher).dialog).toBeVisible();
});

/** How far apart the ends of strokes and the tones that sounded then are in a take, each in milliseconds. */
async function apart(page: Page, of: Explanation): Promise<number[]> {
  const { track } = kept(page);
  const [take] = of.takes;
  const tones = tonesIn(await track(of, take!.id, 'voice'));
  const notes = (await track(of, take!.id, 'notes')).toString().trim().split('\n');
  return notes
    .map((line) => JSON.parse(line) as { do: string; t: number })
    .filter((one) => one.do === 'op')
    .map(({ t }) => Math.min(...tones.map((tone) => Math.abs(tone - t))));
}

test('sound and picture of an explanation are in step', async ({ teacher }) => {
  const { begin, finish } = recordingOn(teacher);
  const { list } = kept(teacher);
  const middles: number[] = [];
  // A machine that is busy sounds its tones late, which is no fault of the recording; a fault of the recording stays.
  for (let tries = 0; tries < 10 && !middles.some((one) => one < IN_STEP_MS); tries++) {
    await begin(`Step ${tries}`);
    for (let i = 0; i < 5; i++) await draw(teacher, wave(80, 100 + 100 * i));
    await finish();
    await expect.poll(async () => (await list()).filter(({ finished }) => finished).length).toBe(tries + 1);
    const recorded = (await list()).find(({ name }) => name === `Step ${tries}`)!;
    const found = (await apart(teacher, recorded)).sort((a, b) => a - b);
    expect(found).toHaveLength(5);
    middles.push(found[2]!);
  }
  expect(Math.min(...middles)).toBeLessThan(IN_STEP_MS);
});

test('while a class is recorded it sees so; a student watches on a phone once they may', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await joinAs(browser, server.url, await startWriting(teacher), 'Wren', PHONE);
  const { begin, lasts, finish } = recordingOn(teacher);
  await begin('Loads');
  await expect(wren.getByTestId('recorded')).toBeVisible();
  await draw(teacher, wave(80, 200));
  await draw(wren, wave(80, 300));
  await expectMarks(teacher, 2);
  await lasts(1);
  await finish();
  await expect(wren.getByTestId('recorded')).toBeHidden();

  await expect(wren.getByRole('button', { name: 'Explanations' })).toBeHidden();
  await setRules(teacher, ['Play pages again']);
  await wren.getByRole('button', { name: 'Explanations' }).click();
  await wren.getByRole('dialog', { name: 'Explanations' }).getByRole('button', { name: 'Play' }).click();
  const { status, play, ink, settledInk } = playedOn(wren, 'Loads');
  await expect(status).toContainText('0:00');
  const before = await settledInk();
  await play.click();
  await expect.poll(ink).toBeGreaterThan(before);
  await expect(play).toBeVisible();
});

test('a recording whose window was closed goes on where it broke off, and a lost connection loses nothing', async ({
  browser,
  server,
  teacher,
}) => {
  const line = await CuttableLine.to(server.port);
  const state = await teacher.context().storageState();
  const [cookie] = state.cookies;
  const context = await browser.newContext({ baseURL: line.url });
  await context.addCookies([{ name: cookie!.name, value: cookie!.value, url: line.url, httpOnly: true }]);
  const page = await context.newPage();
  await soundingMicrophone(page);
  const address = new URL(teacher.url()).pathname;
  await page.goto(address);
  await surfaceShown(page);
  const first = recordingOn(page);
  await first.begin('Beams');
  await draw(page, wave(80, 200));
  await first.lasts(3);
  line.cut();
  await draw(page, wave(80, 300));
  await first.lasts(7);
  await page.close();

  line.mend();
  const again = await context.newPage();
  await soundingMicrophone(again);
  await again.goto(address);
  await surfaceShown(again);
  const notice = again.getByRole('region', { name: 'A recording was broken off' });
  await expect(notice).toContainText('“Beams”');
  // At most the last second is lost.
  expect(secondsOf(/after ([\d:]+)\./.exec(await notice.innerText())![1]!)).toBeGreaterThanOrEqual(6);
  await notice.getByRole('button', { name: 'Go on recording' }).click();
  const second = recordingOn(again);
  await expect(second.panel).toHaveAttribute('data-recording', 'recording');
  await draw(again, wave(80, 400));
  line.cut();
  await second.lasts(9);
  await second.finish();
  line.mend();

  const { list, track } = kept(again);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  const [explanation] = await list();
  const [broken, gone] = explanation!.takes;
  expect(broken!.length + gone!.length).toBeGreaterThan(8000);
  for (const take of [broken!, gone!]) {
    const tones = tonesIn(await track(explanation!, take.id, 'voice'));
    expect(tones.length).toBeGreaterThan(0);
  }
  await expectMarks(teacher, 3);
  const { status, play } = await second.play('Beams');
  await expect(status).toContainText('0:00');
  await play.click();
  await expect(status).toContainText('you,');
  line.close();
});

test('without a microphone one is told what to do, and records the drawing alone @plain', async ({
  teacher,
  host,
}) => {
  if (host === 'localhost') await forbiddenMicrophone(teacher);
  await teacher.reload();
  await surfaceShown(teacher);
  const { dialog, open, panel, finish, play } = recordingOn(teacher);
  await open();
  await expect(dialog.getByRole('alert')).toContainText(
    host === 'localhost' ? 'does not let Doodla hear the microphone' : 'Open Doodla at an https address',
  );
  await dialog.getByLabel('Name').fill('Silent');
  await dialog.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(panel).toHaveAttribute('data-recording', 'recording');
  await draw(teacher, wave(80, 200));
  await finish();
  const { list } = kept(teacher);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  expect((await list())[0]!.takes[0]!.voice).toBeNull();
  const { status, play: playIt, ink, settledInk } = await play('Silent');
  await expect(status).toContainText('0:00');
  const before = await settledInk();
  await playIt.click();
  await expect.poll(ink).toBeGreaterThan(before);
});

test('an explanation is mended: cut, taken back, spoken and recorded anew, and as it was once more', async ({
  teacher,
}) => {
  // A voice is loud for more than a moment.
  await soundingMicrophone(teacher, 0.3);
  await teacher.reload();
  await surfaceShown(teacher);
  const { begin, lasts, goesOn, finish, play, panel, dialog: list } = recordingOn(teacher);
  await begin('Cables');
  await lasts(1);
  await draw(teacher, wave(80, 200));
  // However long a busy machine draws, there is a silence after it.
  await goesOn(4);
  await draw(teacher, wave(80, 300));
  await goesOn(1);
  await finish();
  const { list: all, track } = kept(teacher);
  await expect.poll(async () => (await all()).map(({ finished }) => finished)).toEqual([true]);

  const { dialog, status, slider } = await play('Cables');
  const length = async () => secondsOf(/of ([\d:]+)/.exec(await status.innerText())![1]!);
  await expect.poll(length).toBeGreaterThanOrEqual(5);
  const whole = await length();
  await dialog.getByRole('button', { name: 'Mend' }).click();
  const bar = dialog.getByRole('toolbar', { name: 'Mend' });
  const act = (name: string) => bar.getByRole('button', { name, exact: true }).click();
  // Between the two strokes nothing is said or done for more than two seconds.
  await act('Shorten silences');
  await expect.poll(length).toBeLessThanOrEqual(whole - 1);
  await act('Undo');
  await expect.poll(length).toBe(whole);
  await slider.fill('2000');
  await act('From here');
  await slider.fill('4000');
  await act('To here');
  await expect(bar.getByRole('status')).toHaveText('0:02.0 to 0:04.0');
  await expect(dialog.getByTestId('marked')).toBeVisible();
  await act('Cut this out');
  await expect.poll(length).toBe(whole - 2);
  await act('Undo');
  await expect.poll(length).toBe(whole);
  await act('Redo');
  await expect.poll(length).toBe(whole - 2);
  await expect.poll(async () => (await all())[0]!.parts?.length).toBe(2);
  const short = await length();

  await act('Speak over this');
  await dialog.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(dialog.getByText('Speak now')).toBeVisible();
  await expect.poll(async () => (await all())[0]!.takes.length).toBe(2);
  await expect.poll(async () => (await all())[0]!.finished).toBe(true);
  const [spoken] = await all();
  expect(spoken!.parts!.some(({ voice }) => voice?.take === spoken!.takes[1]!.id)).toBe(true);
  await expect.poll(length).toBe(short);

  // From the middle on all is recorded anew, with the page as it was then.
  await dialog.getByRole('button', { name: 'Mend' }).click();
  await slider.fill('500');
  await act('Record on from here');
  await expect(panel).toHaveAttribute('data-recording', 'recording');
  await expectMarks(teacher, 0);
  await draw(teacher, wave(80, 500));
  await lasts(1);
  await finish();
  await expect
    .poll(async () => {
      const [{ takes, parts }] = (await all()) as [Explanation];
      return takes.length === 3 && parts?.at(-1)?.take === takes[2]!.id;
    })
    .toBe(true);
  await expect.poll(async () => (await all())[0]!.finished).toBe(true);

  // What was recorded first is still there, until it is dropped for good.
  const again = await play('Cables');
  await again.dialog.getByRole('button', { name: 'Mend' }).click();
  await again.dialog.getByRole('button', { name: 'As it was recorded' }).click();
  await expect.poll(async () => (await all())[0]!.parts).toBeNull();
  await again.dialog.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await all())[0]!.parts).not.toBeNull();
  const [{ takes: old, parts: playing }] = (await all()) as [Explanation];
  await again.dialog.getByRole('button', { name: 'Drop the rest' }).click();
  await again.dialog.getByRole('button', { name: 'Drop it for good' }).click();
  await expect.poll(async () => (await all())[0]!.parts).toBeNull();
  const [settled] = await all();
  expect(settled!.takes.map(({ length }) => length)).toEqual(
    playing!.map(({ length }) => Math.round(length)),
  );
  expect(settled!.takes.some(({ id }) => old.some((one) => one.id === id))).toBe(false);
  for (const { id, voice, length } of settled!.takes) {
    if (voice === null) continue;
    const sounds = probed(await track(settled!, id, 'voice')) * 1000;
    // A piece of sound that has begun is kept whole, and a busy browser makes long ones; the end of a take may have none yet.
    expect(sounds).toBeLessThan(length + A_PIECE_MS);
    expect(sounds).toBeGreaterThan(length - 2 * A_PIECE_MS);
  }
  await expect(again.status).toContainText('0:00');
  await again.play.click();
  await expect.poll(again.ink).toBeGreaterThan(0);
  await teacher.keyboard.press('Escape');
  await list.waitFor();
});

test('captions are typed, timed by a key while it plays, read by a browser, and read from a file', async ({
  teacher,
}) => {
  const { begin, lasts, finish, play } = recordingOn(teacher);
  await begin('Towers');
  await draw(teacher, wave(80, 200));
  await lasts(3);
  await finish();
  const { list } = kept(teacher);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  const { dialog, slider, play: playIt, status } = await play('Towers');
  await dialog.getByRole('button', { name: 'Captions' }).click();
  const editor = dialog.getByRole('region', { name: 'Captions' });
  await editor.getByRole('button', { name: 'Add a line' }).click();
  await editor.getByLabel('What is said').first().fill('The tower is pushed down.\nThe cable pulls.');
  await expect(editor.getByLabel('What is said')).toHaveCount(2);
  await editor.getByRole('button', { name: 'Set times while it plays' }).click();
  await expect(status).not.toContainText('0:00 of');
  await teacher.keyboard.press('Enter');
  await expect(editor.getByRole('button', { name: /^Go to/ })).toHaveCount(1);
  await expect(status).toContainText('0:02');
  await teacher.keyboard.press('Enter');
  await expect(editor.getByRole('button', { name: /^Go to/ })).toHaveCount(2);
  await expect(playIt).toBeVisible();
  await expect
    .poll(async () => (await list())[0]!.captions.map(({ text }) => text))
    .toEqual(['The tower is pushed down.', 'The cable pulls.']);
  await editor
    .getByRole('button', { name: /^Go to/ })
    .last()
    .click();
  await expect(dialog.getByTestId('caption')).toHaveText('The cable pulls.');

  // The browser's own reader of WebVTT (HTML, text tracks) finds the same in the file.
  const [download] = await Promise.all([
    teacher.waitForEvent('download'),
    editor.getByRole('button', { name: 'WebVTT' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Towers.vtt');
  const file = readFileSync(await download.path(), 'utf8');
  const cues = await teacher.evaluate(async (text) => {
    const video = document.createElement('video');
    const track = document.createElement('track');
    track.src = URL.createObjectURL(new Blob([text], { type: 'text/vtt' }));
    video.append(track);
    const loaded = new Promise((resolve) => track.addEventListener('load', resolve));
    track.track.mode = 'hidden';
    await loaded;
    return [...track.track.cues!].map((cue) => ({
      from: cue.startTime,
      to: cue.endTime,
      text: (cue as VTTCue).text,
    }));
  }, file);
  expect(cues.map(({ text }) => text)).toEqual(['The tower is pushed down.', 'The cable pulls.']);
  expect(cues[0]!.to).toBe(cues[1]!.from);

  const srt = '1\n00:00:00,500 --> 00:00:02,000\nLoads\n';
  const choose = (name: string, text: string) =>
    editor
      .getByLabel('Choose a file of captions')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await choose('lesson.txt', 'Dear class');
  await expect(teacher.getByText('This is no file of captions.')).toBeVisible();
  await expect(editor.getByLabel('What is said')).toHaveCount(2);
  await choose('lesson.srt', srt);
  await expect(editor.getByLabel('What is said')).toHaveCount(1);
  await expect(editor.getByLabel('What is said')).toHaveValue('Loads');
  await slider.fill('1000');
  await expect(dialog.getByTestId('caption')).toHaveText('Loads');
  expect(await findings(teacher)).toEqual([]);
});

test('each page may be recorded as an explanation of its own', async ({ teacher }) => {
  const { dialog, open, panel, lasts, finish } = recordingOn(teacher);
  await open();
  await expect(dialog.getByRole('meter')).toBeVisible();
  await dialog.getByLabel('Name').fill('Parts');
  await dialog.getByLabel('One for each page').check();
  await dialog.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(panel).toHaveAttribute('data-recording', 'recording');
  await lasts(1);
  await teacher.keyboard.press('PageDown');
  await surfaceShown(teacher);
  await draw(teacher, wave(80, 200));
  await lasts(1);
  await finish();
  const { list } = kept(teacher);
  await expect
    .poll(async () =>
      (await list()).map(({ name, finished, takes }) => [name, finished, takes.length]).sort(),
    )
    .toEqual([
      ['Parts, page 1', true, 1],
      ['Parts, page 2', true, 1],
    ]);
});
