import { contrast } from '@doodla/core';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { Locator, Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, startClass, surfaceShown, test } from '../support/fixtures';
import { makeHandout, saveHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

const ARTICLE = `<title>The mill bridge</title><style>body{font:20px serif;margin:40px}</style>
<script>document.title = 'ran'</script><h1>The mill bridge</h1><p>From <a href="https://bridges.example/mill">the mill</a>.</p>${'<p>Nothing held the planks up but their own stiffness.</p>'.repeat(60)}`;

test(
  'a web page is brought into a class, scrolls with its ink, and comes out in the handout',
  { tag: '@plain' },
  async ({ browser, server, teacher }) => {
    const code = await startClass(teacher);
    const wren = await joinAs(browser, server.url, code, 'Wren');
    await teacher.getByRole('button', { name: 'Bring in' }).click();
    await teacher.getByRole('menuitem', { name: 'A web page' }).click();
    await teacher.getByLabel('Address').fill('http://localhost:1/');
    await teacher.getByRole('button', { name: 'Bring it in' }).click();
    await expect(teacher.getByRole('alert')).toContainText('school’s own network');
    await teacher
      .getByLabel('Web page file')
      .setInputFiles({ name: 'mill.html', mimeType: 'text/html', buffer: Buffer.from(ARTICLE) });
    await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
    for (const page of [teacher, wren]) {
      await surfaceShown(page);
      const inside = page.frameLocator('iframe[title="Web page"]');
      await expect(inside.getByRole('heading', { name: 'The mill bridge' })).toBeAttached();
      await expect(inside.locator('script')).toHaveCount(0);
    }
    await teacher.keyboard.press('1');
    await teacher.keyboard.press('p');
    await draw(teacher, wave(300, 200));
    await expectMarks(wren, 1);
    const [, before] = await at(teacher, 300, 200);
    await teacher.mouse.wheel(0, 150);
    await expect.poll(async () => (await at(teacher, 300, 200))[1]).toBeLessThan(before - 100);
    const heading = teacher.frameLocator('iframe[title="Web page"]').getByRole('heading');
    const { scale } = await stageState(teacher);
    const box = (await heading.boundingBox())!;
    const [, inkTop] = await at(teacher, 300, 200);
    // The ink is as far below the heading as it was drawn.
    expect((inkTop - box.y) / scale).toBeGreaterThan(80);
    expect((inkTop - box.y) / scale).toBeLessThan(200);
    const handout = new OutsideReader(await makeHandout(teacher));
    handout.check();
    // Sheets of ISO 216 A4 between the two other pages, with the words of the page and its links.
    const sizes = handout.geometry().filter((line) => line.includes('size'));
    expect(sizes.length).toBeGreaterThan(3);
    for (const size of sizes.slice(1, -1)) expect(size).toMatch(/595\.\d+ x 841\.\d+/);
    const words = sizes.map((_, i) => handout.text(i + 1)).join(' ');
    expect(words.match(/Nothing held the planks up/g)).toHaveLength(60);
    expect(handout.addresses(2)).toEqual(['https://bridges.example/mill']);
  },
);

test('pages of a document go in after the shown page in the middle of a class', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'Pages of a document' }).click();
  await teacher.getByLabel('Choose documents').setInputFiles({
    name: 'words.rtf',
    mimeType: 'application/rtf',
    buffer: Buffer.from('{\\rtf1\\ansi Arches push outwards.\\par}'),
  });
  await teacher.getByRole('button', { name: 'Put all pages in' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await surfaceShown(wren);
  await draw(teacher, wave(200, 300));
  await expectMarks(wren, 1);
  expect(new OutsideReader(await makeHandout(teacher)).text(2)).toContain('Arches push outwards');
});

test('pages of a document are chosen by their small pictures, and so are those of a handout', async ({
  teacher,
}) => {
  const doc = await PDFDocument.create();
  for (let n = 1; n <= 9; n++) doc.addPage([400, 300]).drawText(`Span ${n}`, { x: 60, y: 150, size: 60 });
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'Pages of a document' }).click();
  await teacher.getByLabel('Choose documents').setInputFiles({
    name: 'spans.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(await doc.save()),
  });
  await teacher.getByRole('button', { name: 'Choose some of its pages …' }).click();
  const list = teacher.getByLabel(/^Which pages/);
  const page = (n: number) => teacher.getByRole('button', { name: `Page ${n}`, exact: true });
  await page(2).click();
  await page(4).click({ modifiers: ['Shift'] });
  await page(9).click();
  await page(3).click();
  await expect(list).toHaveValue('2, 4, 9');
  await expect(page(4)).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(() => inkOf(page(2).locator('canvas'))).toBeGreaterThan(100);
  await list.fill('2, 12');
  await expect(teacher.getByRole('alert')).toContainText('There are 9 pages');
  await list.fill('2, 4');
  await expect(page(9)).toHaveAttribute('aria-pressed', 'false');
  await teacher.getByRole('button', { name: 'Put these pages in' }).click();
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  await page(3).click();
  const handout = new OutsideReader(await saveHandout(teacher));
  expect(handout.text(1)).toContain('Span 4');
  // A page has a line for its size, its turn and each of two boxes.
  expect(handout.geometry()).toHaveLength(4);
});

/** From where to where some words reach in a line, within its first and last letter, pixels of the window. */
async function wordAt(line: Locator, words: string): Promise<{ left: number; right: number }> {
  const box = (await line.boundingBox())!;
  const part = await line.evaluate((element, wanted) => {
    const range = document.createRange();
    const text = element.firstChild!;
    const start = text.textContent!.indexOf(wanted);
    range.setStart(text, start);
    range.setEnd(text, start + wanted.length);
    const [own, whole] = [range.getBoundingClientRect(), element.getBoundingClientRect()];
    return { left: (own.left - whole.left) / whole.width, right: (own.right - whole.left) / whole.width };
  }, words);
  return { left: box.x + box.width * part.left + 3, right: box.x + box.width * part.right - 3 };
}

/** How many pixels of a small picture are dark. */
function inkOf(canvas: Locator): Promise<number> {
  return canvas.evaluate((element: HTMLCanvasElement) => {
    if (element.width === 0) return 0;
    const { data } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height);
    let dark = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i + 3]! > 200 && data[i]! < 100) dark += 1;
    return dark;
  });
}

test('marked words are glued to what they say, and leave as Web Annotations', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A web page' }).click();
  await teacher
    .getByLabel('Web page file')
    .setInputFiles({ name: 'mill.html', mimeType: 'text/html', buffer: Buffer.from(ARTICLE) });
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await surfaceShown(teacher);
  await teacher.keyboard.press('1');
  const words = teacher.frameLocator('iframe[title="Web page"]').getByText('Nothing held the planks').nth(1);
  const box = (await words.boundingBox())!;
  await teacher.keyboard.press('h');
  const planks = await wordAt(words, 'planks up');
  await teacher.mouse.move(planks.left, box.y + box.height / 2);
  await teacher.mouse.down();
  await teacher.mouse.move(planks.right, box.y + box.height / 2, { steps: 4 });
  await teacher.mouse.up();
  await expectMarks(wren, 1);
  const [mark] = (await stageState(wren)).marks;
  expect(mark!.kind).toBe('quote');
  // Begun at a paragraph's first word, nothing of the paragraph before is marked.
  await teacher.mouse.move(box.x + 3, box.y + box.height / 2);
  await teacher.mouse.down();
  await teacher.mouse.move(box.x + 90, box.y + box.height / 2, { steps: 4 });
  await teacher.mouse.up();
  await expectMarks(wren, 2);
  expect((await stageState(wren)).marks[1]!.text).toMatch(/^Nothing held/);
  await teacher.keyboard.press('Control+z');
  await expectMarks(wren, 1);
  // WCAG 2.2, 1.4.3: words stay readable under a highlighter; multiplied, black stays black.
  const clip = { x: planks.left, y: box.y, width: planks.right - planks.left, height: box.height };
  await expect.poll(async () => contrastWithin(await teacher.screenshot({ clip }))).toBeGreaterThan(10);
  const { scale } = await stageState(teacher);
  const [, top] = await at(teacher, 0, mark!.bounds.y);
  expect(Math.abs(top - box.y) / scale).toBeLessThan(8);
  await teacher.getByRole('button', { name: 'List of what is on the page' }).click();
  await expect(teacher.getByText(/Marked words: .*planks/)).toBeVisible();
  const download = teacher.waitForEvent('download');
  await teacher.getByRole('button', { name: 'Save the marked words' }).click();
  const saved = await (await download).createReadStream();
  const text = (await saved.toArray()).join('');
  const [annotation] = JSON.parse(text) as { target: { selector: { type: string; exact?: string }[] } }[];
  expect(annotation!.target.selector[0]).toMatchObject({ type: 'TextQuoteSelector' });
  expect(annotation!.target.selector[0]!.exact).toMatch(/planks up/);
});

/** Between the darkest colour of a picture and the one that most of it has. */
function contrastWithin(picture: Buffer): number {
  const { data } = PNG.sync.read(picture);
  const counts = new Map<string, number>();
  for (let i = 0; i < data.length; i += 4) {
    const hex = `#${data.subarray(i, i + 3).toString('hex')}`;
    counts.set(hex, (counts.get(hex) ?? 0) + 1);
  }
  const colours = [...counts.keys()];
  const ground = colours.reduce((a, b) => (counts.get(a)! >= counts.get(b)! ? a : b));
  expect(ground).not.toBe('#ffffff');
  return Math.max(...colours.map((colour) => contrast(colour, ground)));
}

test('a photo of a worksheet becomes a straight page', async ({ teacher }) => {
  const photo = new PNG({ width: 400, height: 300 });
  for (let y = 0; y < 300; y++) {
    for (let x = 0; x < 400; x++) {
      const sheet = x > 60 + y / 10 && x < 340 - y / 12 && y > 40 && y < 260;
      const line = sheet && y % 40 < 4;
      photo.data.set(
        line ? [50, 50, 60, 255] : sheet ? [190, 185, 170, 255] : [70, 50, 40, 255],
        (y * 400 + x) * 4,
      );
    }
  }
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A photo of a worksheet' }).click();
  await teacher
    .getByLabel('Choose a photo')
    .setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: PNG.sync.write(photo) });
  const corner = (name: string) => teacher.getByRole('button', { name: `${name} corner of the paper` });
  const box = (await teacher.locator('[role=dialog] canvas').boundingBox())!;
  const spots = {
    'Upper left': [64, 41],
    'Upper right': [336, 41],
    'Lower right': [318, 259],
    'Lower left': [86, 259],
  };
  for (const [name, [x, y]] of Object.entries(spots)) {
    await corner(name).hover();
    await teacher.mouse.down();
    await teacher.mouse.move(box.x + (x! / 400) * box.width, box.y + (y! / 300) * box.height, { steps: 4 });
    await teacher.mouse.up();
  }
  await corner('Upper left').focus();
  await teacher.keyboard.press('ArrowRight');
  await teacher.getByRole('button', { name: 'Make a page of it' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await surfaceShown(teacher);
  const seen = async (x: number, y: number) => {
    const [px, py] = await at(teacher, x, y);
    const shot = PNG.sync.read(await teacher.screenshot());
    const i = (Math.round(py) * shot.width + Math.round(px)) * 4;
    return shot.data[i]!;
  };
  // Near its corners there is only white paper; the table is gone.
  for (const [x, y] of [
    [30, 60],
    [900, 60],
    [30, 700],
    [900, 700],
  ] as const)
    await expect.poll(() => seen(x, y)).toBeGreaterThan(200);
});

test('a camera is shown, and a region of it is grabbed onto a page', async ({ browser, server, teacher }) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'The camera' }).click();
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBeTruthy();
  await teacher.getByRole('button', { name: 'Stop showing' }).click();
  await teacher.getByRole('button', { name: 'Show', exact: true }).click();
  await teacher.getByRole('menuitem', { name: 'A camera to practise with' }).click();
  await expect.poll(async () => (await stageState(wren)).screen?.page).toBeTruthy();
  await teacher.getByRole('button', { name: 'Turn the picture' }).click();
  await expect
    .poll(() =>
      wren.evaluate(
        () =>
          (window as unknown as { doodla: { screen: { canvas: HTMLCanvasElement } } }).doodla.screen.canvas
            .height,
      ),
    )
    .toBe(1280);
  await teacher.getByRole('button', { name: 'Closer' }).click();
  await expect(teacher.getByRole('button', { name: 'Farther' })).toBeEnabled();
  await teacher.getByRole('button', { name: 'A picture again and again' }).click();
  await teacher.getByRole('menuitem', { name: 'Every 5 minutes' }).click();
  await expect(teacher.getByLabel(/^Page \d of 5$/)).toBeVisible();
  await teacher.getByRole('button', { name: 'Stop taking pictures' }).click();
  await teacher.keyboard.press('g');
  const picture = teacher.getByRole('img', { name: 'What is grabbed' });
  const box = (await picture.boundingBox())!;
  await teacher.mouse.move(box.x + box.width * 0.25, box.y + box.height * 0.25);
  await teacher.mouse.down();
  await teacher.mouse.move(box.x + box.width * 0.75, box.y + box.height * 0.75, { steps: 3 });
  await teacher.mouse.up();
  await teacher.getByRole('button', { name: 'Onto a new page' }).click();
  await expect(picture).toBeHidden();
  await surfaceShown(teacher);
  await teacher.keyboard.press('g');
  await teacher.getByRole('button', { name: 'Onto this page' }).click();
  await expect(picture).toBeHidden();
  await expectMarks(wren, 1);
  expect((await stageState(wren)).marks[0]!.kind).toBe('picture');
  await teacher.keyboard.press('g');
  const download = teacher.waitForEvent('download');
  await teacher.getByRole('button', { name: 'Save' }).click();
  expect((await download).suggestedFilename()).toMatch(/^grab-.*\.png$/);
});

/** A moving picture of two seconds, as this browser records one. */
function film(page: Page): Promise<number[]> {
  return page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [320, 240];
    const ctx = canvas.getContext('2d')!;
    let n = 0;
    const timer = setInterval(() => {
      ctx.fillStyle = `hsl(${n++ * 12} 70% 50%)`;
      ctx.fillRect(0, 0, 320, 240);
    }, 40);
    const recorder = new MediaRecorder(canvas.captureStream(25), { mimeType: 'video/webm;codecs=vp8' });
    const parts: Blob[] = [];
    recorder.ondataavailable = ({ data }) => parts.push(data);
    recorder.start();
    await new Promise((resolve) => setTimeout(resolve, 2000));
    const stopped = new Promise((resolve) => (recorder.onstop = resolve));
    recorder.stop();
    await stopped;
    clearInterval(timer);
    return [...new Uint8Array(await new Blob(parts).arrayBuffer())];
  });
}

const playing = (page: Page) =>
  page.evaluate(() => {
    const video = document.querySelector('video')!;
    return { paused: video.paused, time: video.currentTime };
  });

test('a video is played in step for all, held by writing, and what is written keeps its frame', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startClass(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  const bytes = Buffer.from(await film(teacher));
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A sound or video file' }).click();
  const chooser = teacher.getByLabel('Choose a recording');
  await chooser.setInputFiles({ name: 'notes.mp4', mimeType: 'video/mp4', buffer: Buffer.from('no film') });
  await expect(teacher.getByRole('alert')).toContainText('cannot play this file');
  await chooser.setInputFiles({ name: 'crossing.webm', mimeType: 'video/webm', buffer: bytes });
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await teacher.getByRole('slider', { name: 'Place in the recording' }).fill('0.5');
  for (const page of [teacher, wren])
    await expect.poll(async () => (await playing(page)).time).toBeCloseTo(0.5, 1);
  // The film is as wide as its page, also on a phone.
  await wren.setViewportSize({ width: 390, height: 844 });
  for (const page of [teacher, wren])
    await expect
      .poll(async () => {
        const { width, scale, x } = await stageState(page);
        const box = (await page.locator('video').boundingBox())!;
        return [Math.round(box.x - x), Math.round(box.width - width * scale)];
      })
      .toEqual([0, 0]);
  expect((await stageState(wren)).width * (await stageState(wren)).scale).toBeGreaterThan(300);
  await teacher.getByRole('button', { name: 'Play the recording' }).click();
  await expect.poll(async () => (await playing(wren)).paused).toBe(false);
  await teacher.keyboard.press('p');
  await draw(teacher, wave(200, 200));
  for (const page of [teacher, wren]) await expect.poll(async () => (await playing(page)).paused).toBe(true);
  await expect
    .poll(async () => Math.abs((await playing(teacher)).time - (await playing(wren)).time))
    .toBeLessThan(0.1);
  await expectMarks(wren, 1);
  await teacher.getByRole('button', { name: 'Play the recording' }).click();
  await expect(teacher.getByLabel('Page 2 of 4')).toBeVisible();
  await expectMarks(wren, 0);
  await teacher.keyboard.press('PageDown');
  await expectMarks(wren, 1);
});

test('a picture as phones take it, HEIC, is put on the page in its own colours', async ({ teacher }) => {
  // Made by libheif's heif-enc from a picture whose left half is red and whose right half is blue.
  await teacher.getByLabel('Choose pictures').setInputFiles('support/files/two-colours.heic');
  await expectMarks(teacher, 1);
  await teacher.keyboard.press('p');
  const { bounds } = (await stageState(teacher)).marks[0]!;
  const shot = PNG.sync.read(await teacher.screenshot());
  for (const [part, colour] of [
    [0.25, [208, 32, 32]],
    [0.75, [32, 64, 208]],
  ] as const) {
    const [x, y] = await at(teacher, bounds.x + bounds.width * part, bounds.y + bounds.height / 2);
    const i = (Math.round(y) * shot.width + Math.round(x)) * 4;
    colour.forEach((value, k) => expect(Math.abs(shot.data[i + k]! - value)).toBeLessThan(24));
  }
});

test('a picture of a hundred megapixels is refused before it is decoded, and nothing is lost', async ({
  teacher,
}) => {
  await teacher.keyboard.press('p');
  await draw(teacher, wave(100, 200));
  // Signature and IHDR of a PNG that claims 12,000 × 9,000 pixels (W3C PNG §5.2, §11.2.1).
  const head = Buffer.from('89504e470d0a1a0a0000000d4948445200002ee0000023280806000000', 'hex');
  await teacher.getByLabel('Choose pictures').setInputFiles({
    name: 'huge.png',
    mimeType: 'image/png',
    buffer: Buffer.concat([head, Buffer.alloc(64)]),
  });
  await expect(teacher.getByText('This picture is too large to be shown')).toBeVisible();
  await expectMarks(teacher, 1);
});
