import type { Locator, Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { findings } from '../support/axe';
import { filmHere, pageInFilm, probedFilm } from '../support/films';
import { bringIn, expect, startClass, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { pageOnScreen, similarity } from '../support/pictures';
import { kept, playedOn, playingOn, recordingOn, takingAlong } from '../support/recording';
import { draw, stageState, wave } from '../support/stage';

/** A shown screen's page, page units. */
const SCREEN = { width: 1280, height: 720 };
const isRed = ([red, , blue]: readonly number[]) => red! > 2 * blue!;
const isBlue = ([red, , blue]: readonly number[]) => blue! > 2 * red!;
/** The middle of a film, for ffmpeg. */
const MIDDLE = '40:40:(iw-40)/2:(ih-40)/2';
/** The camera of Chromium that stands for one shows green. */
const isGreen = ([red, green, blue]: readonly number[]) => green! > 1.5 * red! && green! > 1.5 * blue!;

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

/** A picture, as wide as another. */
async function sameSize(picture: Locator, { width, height }: PNG): Promise<PNG> {
  const source = await picture.evaluate(
    (canvas: HTMLCanvasElement, size) => {
      const small = document.createElement('canvas');
      Object.assign(small, size);
      small.getContext('2d')!.drawImage(canvas, 0, 0, size.width, size.height);
      return small.toDataURL();
    },
    { width, height },
  );
  return PNG.sync.read(Buffer.from(source.split(',')[1]!, 'base64'));
}

/** How colourful a part of a canvas is: the mean distance of its highest from its lowest channel. */
const colourIn = (picture: Locator, part: { x: number; y: number; width: number; height: number }) =>
  picture.evaluate((canvas: HTMLCanvasElement, { x, y, width, height }) => {
    const { data } = canvas
      .getContext('2d')!
      .getImageData(x * canvas.width, y * canvas.height, width * canvas.width, height * canvas.height);
    let sum = 0;
    for (let i = 0; i < data.length; i += 4)
      sum += Math.max(data[i]!, data[i + 1]!, data[i + 2]!) - Math.min(data[i]!, data[i + 1]!, data[i + 2]!);
    return sum / (data.length / 4);
  }, part);

/** The mean colour in the middle of a canvas. */
const middleOf = (picture: Locator) =>
  picture.evaluate((canvas: HTMLCanvasElement) => {
    const small = document.createElement('canvas');
    [small.width, small.height] = [1, 1];
    const ctx = small.getContext('2d')!;
    const [width, height] = [canvas.width / 10, canvas.height / 10];
    ctx.drawImage(
      canvas,
      (canvas.width - width) / 2,
      (canvas.height - height) / 2,
      width,
      height,
      0,
      0,
      1,
      1,
    );
    return [...ctx.getImageData(0, 0, 1, 1).data];
  });

/** The mean colour of a part of a film's picture at a time; by ffmpeg. */
function meanInFilm(path: string, seconds: number, crop: string): number[] {
  const args = ['-v', 'error', '-ss', String(seconds), '-i', path, '-frames:v', '1'];
  const out = ['-vf', `crop=${crop},scale=1:1:flags=area`, '-pix_fmt', 'rgb24', '-f', 'rawvideo', 'pipe:1'];
  return [...execFileSync('ffmpeg', [...args, ...out])];
}

/** When the packets of a video are shown, seconds; by ffprobe. */
function packetTimes(path: string): number[] {
  const args = [
    '-v',
    'error',
    '-select_streams',
    'v',
    '-show_entries',
    'packet=pts_time',
    '-of',
    'csv=p=0',
    path,
  ];
  return execFileSync('ffprobe', args).toString().trim().split('\n').map(parseFloat);
}

const savedAs = (name: string, bytes: Uint8Array) => {
  const path = test.info().outputPath(name);
  writeFileSync(path, bytes);
  return path;
};

const bar = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Shown screen' }).getByRole('button', { name, exact: true }).click();

test('a shown screen is recorded with what is written on it and heard, and so is whoever explains', async ({
  teacher,
  browser,
  server,
}) => {
  await startClass(teacher);
  await teacher.keyboard.press('Escape');
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A screen to practise with' }).click();
  await expect.poll(async () => (await stageState(teacher)).screen?.certain).toBe(true);

  const { open: openAll, dialog: all, panel, goesOn, finish, play } = recordingOn(teacher);
  await openAll();
  await expect(all.getByRole('meter')).toBeVisible();
  await all.getByRole('textbox', { name: 'Name' }).fill('The mill');
  await all.getByText('Record my picture too').click();
  await expect(all.getByLabel('Your picture')).toBeVisible();
  expect(await findings(teacher)).toEqual([]);
  await all.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(panel).toHaveAttribute('data-recording', 'recording');
  await teacher.keyboard.press('p');
  await draw(teacher, wave(300, 330, 200));
  await goesOn(1);
  await bar(teacher, 'Scroll down');
  await expect.poll(async () => (await stageState(teacher)).screen?.panes[0]?.place.y).toBe(-240);
  await goesOn(1);
  const seen = await pageOnScreen(teacher, SCREEN.width, SCREEN.height, 240);
  const scrolledAt = await panel.getByRole('timer').innerText();
  await goesOn(1);
  await bar(teacher, 'Video');
  await goesOn(2);
  await finish();

  const { list, track } = kept(teacher);
  await expect.poll(async () => (await list()).map(({ finished }) => finished)).toEqual([true]);
  const [explanation] = await list();
  const take = explanation!.takes[0]!;
  expect(take).toMatchObject({ voice: 'audio/webm;codecs=opus', video: 'video/mp4', face: 'video/mp4' });
  // Both can be read as far as they go, and are as long as the take.
  for (const [name, size] of [
    ['video', [1280, 720]],
    ['face', [320, 240]],
  ] as const) {
    const film = probedFilm(savedAs(`${name}.mp4`, await track(explanation!, take.id, name)));
    expect(film).toMatchObject({ streams: { video: 'h264' }, size });
    expect(Math.abs(film.duration * 1000 - take.length)).toBeLessThan(700);
  }

  await play('The mill');
  const { dialog } = playedOn(teacher, 'The mill');
  const own = playingOn(teacher);
  const face = dialog.getByRole('img', { name: 'Picture of whoever explains' });
  await expect(face).toBeVisible();
  expect(await findings(teacher)).toEqual([]);
  await dialog.getByRole('button', { name: 'Hide the small picture' }).click();
  await expect(face).toBeHidden();
  // Scrolled, with the ink on its words, as it was seen then.
  const [minutes, seconds] = scrolledAt.split(':').map(Number) as [number, number];
  const at = (minutes * 60 + seconds) * 1000;
  const late = take.length - 500;
  await own.goTo(at);
  await expect.poll(async () => similarity(seen, await sameSize(own.picture, seen))).toBeGreaterThan(0.93);
  const film = { x: 0.55, y: 0.72, width: 0.3, height: 0.25 };
  expect(await colourIn(own.picture, film)).toBeLessThan(20);
  await own.goTo(late);
  await expect.poll(() => colourIn(own.picture, film)).toBeGreaterThan(60);

  const { open, part, make } = takingAlong(teacher);
  await open();
  const { path } = await make('Video, 1280 × 720');
  const shown = await sameSize(own.picture, seen);
  expect(probedFilm(path)).toMatchObject({ streams: { video: 'vp9', audio: 'opus' }, size: [1280, 720] });
  expect(similarity(seen, pageInFilm(path, at / 1000, SCREEN, seen.width))).toBeGreaterThan(0.85);
  expect(isGreen(meanInFilm(path, at / 1000, '160:110:iw-190:ih-135'))).toBe(true);
  expect(shown.width).toBe(seen.width);

  // As somebody with a link sees it, and nothing of what was cut out.
  await dialog.getByRole('button', { name: 'Mend' }).click();
  await own.goTo(at);
  const mend = dialog.getByRole('toolbar', { name: 'Mend' });
  await mend.getByRole('button', { name: 'From here', exact: true }).click();
  await mend.getByRole('button', { name: 'Keep only this' }).click();
  await dialog.getByRole('button', { name: 'Take it along' }).click();
  await part.getByLabel('As', { exact: true }).selectOption('A link that plays it');
  await part.getByRole('button', { name: 'Make the link' }).click();
  const url = await part.getByLabel('Link', { exact: true }).inputValue();
  const guest = await (
    await browser.newContext({ baseURL: server.url, viewport: { width: 390, height: 800 }, hasTouch: true })
  ).newPage();
  await guest.goto(url);
  const there = playingOn(guest);
  await expect(guest.getByRole('img', { name: 'Picture of whoever explains' })).toBeVisible();
  await expect.poll(async () => similarity(seen, await sameSize(there.picture, seen))).toBeGreaterThan(0.8);
  expect(await findings(guest)).toEqual([]);
  await there.play.tap();
  await expect.poll(() => colourIn(there.picture, film), { timeout: 20_000 }).toBeGreaterThan(60);
  const answer = await guest.request.post(`${url.replace('/see/', '/api/shared/')}/pages`, { data: {} });
  const files = unzipSync(await answer.body());
  for (const name of Object.keys(files).filter((one) => /^(videos|faces)\//.test(one))) {
    const cut = savedAs(`cut-${name.replace('/', '-')}`, files[name]!);
    expect(Math.abs(probedFilm(cut).duration * 1000 - (take.length - at))).toBeLessThan(700);
    expect(Math.min(...packetTimes(cut))).toBeGreaterThanOrEqual(0);
    expect(packetTimes(cut).length).toBeLessThan((take.length - at) / 100 + 15);
  }
  expect(Object.keys(files).filter((one) => /^(videos|faces)\//.test(one))).toHaveLength(2);
});

test('a video on a page is recorded while it is played, and held, and written on', async ({ teacher }) => {
  const bytes = await filmHere(teacher, 4, ['#c01010', '#1010c0', '#1010c0', '#1010c0']);
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A sound or video file' }).click();
  await teacher
    .getByLabel('Choose a recording')
    .setInputFiles({ name: 'crossing.webm', mimeType: 'video/webm', buffer: bytes });
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  const place = teacher.getByRole('slider', { name: 'Place in the recording' });
  await expect(place).toBeVisible();
  const { begin, goesOn, finish, play } = recordingOn(teacher);
  await begin('Crossing');
  await goesOn(1);
  await teacher.getByRole('button', { name: 'Play the recording' }).click();
  await expect.poll(async () => Number(await place.inputValue())).toBeGreaterThan(2);
  await teacher.keyboard.press('p');
  await draw(teacher, wave(60, 120));
  await goesOn(1);
  await finish();
  await expect.poll(async () => (await kept(teacher).list()).map(({ finished }) => finished)).toEqual([true]);
  const take = (await kept(teacher).list())[0]!.takes[0]!;
  expect(take).toMatchObject({ video: 'video/mp4', face: null });

  await play('Crossing');
  const own = playingOn(teacher);
  await own.goTo(500);
  await expect.poll(async () => isRed(await middleOf(own.picture))).toBe(true);
  await own.goTo(take.length - 300);
  await expect.poll(async () => isBlue(await middleOf(own.picture))).toBe(true);
  const { open, make } = takingAlong(teacher);
  await open();
  const { path } = await make('Video, 1280 × 720');
  expect(isRed(meanInFilm(path, 0.5, MIDDLE))).toBe(true);
  expect(isBlue(meanInFilm(path, take.length / 1000 - 1.2, MIDDLE))).toBe(true);
});
