import { unzipSync, zipSync } from 'fflate';
import jsQR from 'jsqr';
import { readFileSync } from 'node:fs';
import { findings } from '../support/axe';
import { bringIn, expect, test } from '../support/fixtures';
import { soundingMicrophone, tonesIn } from '../support/microphone';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { similarity } from '../support/pictures';
import { kept, playingOn, recordingOn, takingAlong } from '../support/recording';
import { draw, wave } from '../support/stage';

test('an explanation is played by a link on a phone, by itself from a file, and is on paper with a code', async ({
  teacher,
  browser,
  server,
}) => {
  await soundingMicrophone(teacher);
  await teacher.reload();
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const { begin, goesOn, finish, play } = recordingOn(teacher);
  await begin('Loads');
  await draw(teacher, wave(80, 150));
  await goesOn(2);
  await teacher.keyboard.press('PageDown');
  await draw(teacher, wave(80, 300));
  await goesOn(2);
  await finish();
  const { list } = kept(teacher);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  const { length } = (await list())[0]!.takes[0]!;
  const { dialog } = await play('Loads');
  const own = playingOn(teacher);
  await own.goTo(1000);
  await dialog.getByRole('button', { name: 'Stop here' }).click();
  const stop = dialog.getByRole('form', { name: 'Stop' });
  await stop.getByRole('textbox').fill('Draw the arch now');
  await stop.getByRole('textbox').press('Enter');
  await dialog.getByRole('button', { name: 'Captions' }).click();
  await dialog.getByLabel('Choose a file of captions').setInputFiles({
    name: 'said.vtt',
    mimeType: 'text/vtt',
    buffer: Buffer.from('WEBVTT\n\n00:00.200 --> 00:00.900\nThe load runs into the banks.\n'),
  });
  await own.goTo(length - 200);
  const last = await own.seen();

  const { open, part, make } = takingAlong(teacher);
  await open();
  await part.getByLabel('Password').fill('river');
  expect(await findings(teacher)).toEqual([]);
  await part.getByRole('button', { name: 'Make the link' }).click();
  const url = await part.getByLabel('Link', { exact: true }).inputValue();
  await part.getByRole('button', { name: 'Make something else' }).click();

  // A phone, and nobody signed in.
  const phone = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 390, height: 800 },
    hasTouch: true,
  });
  const guest = await phone.newPage();
  await guest.goto(url);
  await guest.getByLabel('Password').fill('river');
  await guest.getByRole('button', { name: 'Play it' }).tap();
  const there = playingOn(guest);
  await expect(there.picture).toBeVisible();
  expect(await findings(guest)).toEqual([]);
  // By ffmpeg: the tones that were heard when strokes were done are in the sound that came.
  const address = url.replace('/see/', '/api/shared/');
  const answer = await guest.request.post(`${address}/pages`, { data: { password: 'river' } });
  const files = unzipSync(await answer.body());
  const sounds = Object.keys(files).filter((name) => name.startsWith('sounds/'));
  expect(sounds).toHaveLength(1);
  expect(tonesIn(Buffer.from(files[sounds[0]!]!))).toHaveLength(2);

  await there.play.tap();
  await expect(guest.getByTestId('caption')).toHaveText('The load runs into the banks.');
  await expect(guest.getByText('Draw the arch now')).toBeVisible();
  expect(await there.time()).toBe(1000);
  await guest.getByRole('button', { name: 'Go on' }).tap();
  await expect.poll(there.time).toBeGreaterThan(1200);
  await guest.keyboard.press(' ');
  await guest.keyboard.press('+');
  await expect(there.speed).toHaveValue('1.25');
  await guest.keyboard.press('-');
  await guest.keyboard.press('-');
  await expect(there.speed).toHaveValue('0.75');
  await guest.keyboard.press('ArrowLeft');
  await expect.poll(there.time).toBe(0);
  await guest.getByRole('combobox', { name: 'Chapters' }).selectOption({ index: 1 });
  await expect.poll(there.time).toBeGreaterThan(2000);

  // What arrives broken is said, as a whole or where a page of it is no picture.
  const ground = Object.keys(files).find((file) => file.startsWith('grounds/'))!;
  const noPicture = Buffer.from(zipSync({ ...files, [ground]: new Uint8Array(20) }));
  for (const body of [noPicture.subarray(0, 90), noPicture]) {
    const broken = await phone.newPage();
    await broken.route('**/pages', (route) => route.fulfill({ body }));
    await broken.goto(url);
    await broken.getByLabel('Password').fill('river');
    await broken.getByRole('button', { name: 'Play it' }).tap();
    await expect(broken.getByRole('alert')).toContainText('This explanation cannot be read.');
    await broken.close();
  }

  // The same page by itself, from a file, with no connection.
  const [download] = await Promise.all([
    guest.waitForEvent('download'),
    guest.getByRole('button', { name: 'Save it as a page' }).tap(),
  ]);
  expect(download.suggestedFilename()).toBe('Loads.html');
  const alone = await (await browser.newContext({ offline: true })).newPage();
  const asked: string[] = [];
  alone.on('request', (request) => asked.push(new URL(request.url()).protocol));
  const saved = test.info().outputPath('Loads.html');
  await download.saveAs(saved);
  await alone.goto(`file://${saved}`);
  const byItself = playingOn(alone);
  await byItself.goTo(length - 200);
  expect(await findings(alone)).toEqual([]);
  expect(similarity(await byItself.seen(), last)).toBeGreaterThan(0.97);
  await byItself.goTo(0);
  await byItself.play.click();
  await expect(alone.getByText('Draw the arch now')).toBeVisible();
  expect(new Set(asked)).toEqual(new Set(['file:', 'blob:']));

  // On paper: pdftotext reads what was said, and a camera the way to the link.
  const { path, name } = await make('PDF of its steps');
  expect(name).toBe('Loads.pdf');
  const reader = new OutsideReader(readFileSync(path));
  reader.check();
  expect(reader.text(1)).toContain('Draw the arch now');
  expect(reader.text(1)).toContain('The load runs into the banks.');
  const paper = reader.picture(1, 1600);
  expect(jsQR(new Uint8ClampedArray(paper.data), paper.width, paper.height)?.data).toBe(url);

  await part.getByLabel('As', { exact: true }).selectOption('A link that plays it');
  await expect(part.getByRole('button', { name: 'Take back' })).toHaveCount(1);
  await part.getByRole('button', { name: 'Take back' }).click();
  await guest.reload();
  await expect(guest.getByText('This link does not show anything any more.')).toBeVisible();
});
