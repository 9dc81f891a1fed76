import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { findings } from '../support/axe';
import { darknessOf, GRID, pageInFilm, probedFilm } from '../support/films';
import { bringIn, expect, surfaceShown, test } from '../support/fixtures';
import { forbiddenMicrophone, soundingMicrophone, tonesIn } from '../support/microphone';
import { plainPdf } from '../support/pdfs';
import { similarity } from '../support/pictures';
import { kept, playedOn, recordingOn, takingAlong } from '../support/recording';
import { draw, wave } from '../support/stage';

/** EBU R 37 (2007): sound is not more than 40 ms before the picture to which it belongs, nor more than 60 ms after it. */
const EARLY_MS = 40;
const LATE_MS = 60;
const HOLD_MS = 3000;

test('an explanation is taken along as a video, in step, with chapters and stops, and as sound alone', async ({
  teacher,
}) => {
  await soundingMicrophone(teacher);
  await teacher.reload();
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const { begin, goesOn, finish, play } = recordingOn(teacher);
  await begin('Loads');
  for (let i = 0; i < 3; i++) {
    await draw(teacher, wave(80, 150 + 120 * i));
    await goesOn(2);
  }
  await teacher.keyboard.press('!');
  await teacher.keyboard.press('PageDown');
  await goesOn(1);
  await finish();
  const { list, track } = kept(teacher);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  const [explanation] = await list();
  const take = explanation!.takes[0]!;
  const { dialog, slider } = await play('Loads');
  const { open, part, make } = takingAlong(teacher);
  await open();
  expect(await findings(teacher)).toEqual([]);

  // What is begun can be given up.
  await part.getByLabel('As', { exact: true }).selectOption('Video, 1280 × 720');
  await part.getByRole('button', { name: 'Make it', exact: true }).click();
  await expect(part.getByRole('progressbar').or(part.getByRole('link', { name: /^Save / }))).toBeVisible();
  const cancel = part.getByRole('button', { name: 'Cancel' });
  if (await cancel.isVisible()) await cancel.click();
  else await part.getByRole('button', { name: 'Make something else' }).click();

  const { path, name } = await make('Video, 1280 × 720');
  expect(name).toBe('Loads.webm');
  const film = probedFilm(path);
  expect(film.streams).toMatchObject({ video: 'vp9', audio: 'opus' });
  expect(film.size).toEqual([1280, 720]);
  // It stands still once, at the stop.
  expect(film.duration * 1000).toBeGreaterThan(take.length + HOLD_MS - 100);
  expect(film.duration * 1000).toBeLessThan(take.length + HOLD_MS + 100);
  expect(film.chapters.map(({ title }) => title)).toEqual(['Page 1', 'Page 2']);
  expect(film.chapters[0]!.from).toBe(0);
  expect(film.chapters[1]!.from * 1000).toBeGreaterThan(HOLD_MS + 6000);

  // What is heard is where it was, and a stroke is complete when it was.
  const voice = await track(explanation!, take.id, 'voice');
  const tones = tonesIn(readFileSync(path));
  expect(tones).toHaveLength(3);
  const notes = (await track(explanation!, take.id, 'notes'))
    .toString()
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { do: string; t: number; at: number });
  // Later by what a busy machine lost of the sound, if it did: so late its pieces came.
  const delays = notes.filter((one) => one.do === 'sound').map(({ t, at }) => t - at);
  expect(delays.length).toBeGreaterThan(take.length / 2000);
  const lost = Math.max(...delays) - Math.min(...delays);
  tonesIn(voice).forEach((tone, i) => {
    expect(tones[i]! - tone).toBeGreaterThan(-EARLY_MS / 2);
    expect(tones[i]! - tone).toBeLessThan(EARLY_MS / 2 + lost);
  });
  const strokes = notes.filter((one) => one.do === 'op');
  const at = strokes[2]!.t + 500;
  await slider.fill(String(Math.round(at)));
  const picture = dialog.getByTestId('replay-page');
  const source = await picture.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const seen = PNG.sync.read(Buffer.from(source.split(',')[1]!, 'base64'));
  const dark = darknessOf(path, seen);
  strokes.forEach(({ t }, i) => {
    const level = (ms: number) => dark[Math.round((ms * GRID) / 1000)]!;
    const [before, after] = [i === 0 ? level(0) : level(strokes[i - 1]!.t + 600), level(t + 600)];
    const shown = dark.findIndex((one) => one > before + 0.95 * (after - before));
    const late = (shown * 1000) / GRID - t;
    expect(late).toBeGreaterThan(-LATE_MS);
    expect(late).toBeLessThan(EARLY_MS);
  });
  // The picture is that of the player.
  expect(similarity(seen, pageInFilm(path, at / 1000, seen, seen.width))).toBeGreaterThan(0.93);

  const sound = await make('Sound alone');
  expect(sound.name).toBe('Loads.ogg');
  expect(probedFilm(sound.path).streams).toEqual({ audio: 'opus' });
  expect(probedFilm(sound.path).duration * 1000).toBeGreaterThan(take.length - 100);
  expect(tonesIn(readFileSync(sound.path))).toHaveLength(3);
});

test('without a voice it is a video of another kind, with captions in its picture @plain', async ({
  teacher,
  host,
}) => {
  await forbiddenMicrophone(teacher);
  await teacher.reload();
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  await surfaceShown(teacher);
  const { panel, open: openAll, finish, goesOn, play, dialog: all } = recordingOn(teacher);
  await openAll();
  // What moves is recorded where the browser can make videos.
  await expect(all.getByText('Record shown screens')).toBeVisible({ visible: host === 'localhost' });
  await all.getByRole('textbox', { name: 'Name' }).fill('Silent');
  await all.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(panel).toHaveAttribute('data-recording', 'recording');
  await draw(teacher, wave(80, 200));
  await goesOn(2);
  await finish();
  await expect.poll(async () => (await kept(teacher).list()).map(({ finished }) => finished)).toEqual([true]);
  await play('Silent');
  const { dialog, slider } = playedOn(teacher, 'Silent');
  const { open, part, make } = takingAlong(teacher);
  if (host !== 'localhost') {
    await open();
    await part.getByLabel('As', { exact: true }).selectOption('Video, 1280 × 720');
    await part.getByRole('button', { name: 'Make it', exact: true }).click();
    await expect(part.getByRole('alert')).toContainText('Open Doodla in a current');
    expect((await make('Text with pictures, to read')).name).toBe('Silent.html');
    return;
  }
  await dialog.getByRole('button', { name: 'Captions' }).click();
  const editor = dialog.getByRole('region', { name: 'Captions' });
  await editor.getByLabel('Choose a file of captions').setInputFiles({
    name: 'said.vtt',
    mimeType: 'text/vtt',
    buffer: Buffer.from('WEBVTT\n\n00:00.500 --> 00:01.500\nThe load runs into the banks.\n'),
  });
  await open();
  await expect(part.getByLabel('As', { exact: true }).locator('option')).toHaveCount(6);
  await part.getByLabel('As', { exact: true }).selectOption('Video, 1920 × 1080');
  await part.getByLabel('Write the captions into the picture').check();
  const { path, name } = await make('Video, 1920 × 1080');
  expect(name).toBe('Silent.mp4');
  const film = probedFilm(path);
  expect(film.streams.video).toBe('h264');
  expect(film.streams.audio).toBeUndefined();
  // ISO/IEC 14496-30 (WebVTT in MP4).
  expect(film.tags).toEqual(['avc1', 'wvtt']);
  expect(film.size).toEqual([1920, 1080]);
  expect(film.chapters.map(({ title }) => title)).toEqual(['Page 1']);
  const dark = darknessOf(path, { width: 16, height: 9 });
  expect(dark[GRID]!).toBeGreaterThan(dark[2 * GRID]! + 500);

  // To be read: a stop, what was said, and what is seen at the end.
  await slider.fill('1000');
  await dialog.getByRole('button', { name: 'Stop here' }).click();
  const stop = dialog.getByRole('form', { name: 'Stop' });
  await stop.getByRole('textbox').fill('Draw the arch now');
  await stop.getByRole('textbox').press('Enter');
  await expect
    .poll(async () => (await kept(teacher).list())[0]!.stops.map((stop) => stop.text))
    .toEqual(['Draw the arch now']);
  const read = await make('Text with pictures, to read');
  expect(read.name).toBe('Silent.html');
  await teacher.setContent(readFileSync(read.path, 'utf8'));
  await expect(teacher.getByRole('heading', { name: 'Silent' })).toBeVisible();
  await expect(teacher.getByRole('img')).toHaveCount(2);
  await expect(teacher.getByText('Draw the arch now')).toBeVisible();
  await expect(teacher.getByText('The load runs into the banks.')).toBeVisible();
  expect(
    await teacher
      .getByRole('img')
      .evaluateAll((all: HTMLImageElement[]) => all.every((one) => one.naturalWidth > 0)),
  ).toBe(true);
  expect(await findings(teacher)).toEqual([]);
});
