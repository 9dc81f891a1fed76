import { PDFDocument } from '@cantoo/pdf-lib';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, startWriting, surfaceShown, test } from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { oddPdf, OutsideReader, plainPdf, samplePdf } from '../support/pdfs';
import { pageOnScreen, similarity } from '../support/pictures';
import { stageState, at, draw, expectMarks, typeAt, wave } from '../support/stage';

/** Two engines smooth letters and edges differently; a wrong place, colour or size costs far more than this. */
const SAME = 0.9;

test(
  'the handout has the same pages as the original, and looks like the screen (ISO 32000-1 §8.3, §11.3.5)',
  { tag: '@plain' },
  async ({ teacher }) => {
    const original = await oddPdf();
    await bringIn(teacher, { name: 'odd.pdf', bytes: original });
    const count = (await PDFDocument.load(original)).getPageCount();
    const screens = [];
    for (let n = 1; n <= count; n++) {
      await expect(teacher.getByLabel(`Page ${n} of ${count}`)).toBeVisible();
      await surfaceShown(teacher);
      await teacher.keyboard.press('p');
      await draw(teacher, wave(80, 60));
      await teacher.keyboard.press('h');
      await draw(teacher, [
        [60, 130],
        [200, 130],
      ]);
      await typeAt(teacher, 60, 270, `Typed ${n}`);
      await expectMarks(teacher, 3);
      screens.push(await pageOnScreen(teacher, ...(await pageSize(original, n))));
      await teacher.keyboard.press('PageDown');
    }
    const bytes = await makeHandout(teacher);
    const handout = new OutsideReader(bytes);
    handout.check();
    expect(handout.geometry()).toEqual(new OutsideReader(original).geometry());
    for (let n = 1; n <= count; n++) {
      const screen = screens[n - 1]!;
      expect(handout.text(n)).toContain(`Typed ${n}`);
      const likeness = similarity(screen, handout.picture(n, Math.max(screen.width, screen.height)));
      expect.soft(likeness, `page ${n}`).toBeGreaterThan(SAME);
    }
    for (const [n, words] of [
      [1, 'Small page'],
      [3, 'Turned by 90'],
      [6, 'Cropped page'],
      [9, 'Filled in before'],
      [10, 'Größe żółć Привет'],
      [11, '桥梁'],
    ] as const) {
      expect(handout.text(n)).toContain(words);
    }
  },
);

/** Displayed size in page units. */
async function pageSize(pdf: Uint8Array, n: number): Promise<[number, number]> {
  const page = (await PDFDocument.load(pdf)).getPage(n - 1);
  const { width, height } = page.getCropBox();
  const unit = n === 7 ? 2 : 1;
  const [w, h] = page.getRotation().angle % 180 === 0 ? [width, height] : [height, width];
  return [(w * unit * 96) / 72, (h * unit * 96) / 72];
}

test('whole words of a document are marked by what they say, where another reader finds them', async ({
  teacher,
}) => {
  const bytes = await plainPdf(1);
  await bringIn(teacher, { name: 'plain.pdf', bytes });
  const reader = new OutsideReader(bytes);
  const [first, last] = ['Bridges,', 'sheet'].map((word) => reader.boxOf(1, word));
  const unit = 96 / 72;
  await teacher.keyboard.press('h');
  const middle = ((first!.y + first!.bottom) / 2) * unit;
  // From inside of the one to inside of the other.
  await draw(teacher, [
    [(first!.x + 30) * unit, middle],
    [(last!.x + 12) * unit, middle],
  ]);
  await expectMarks(teacher, 1);
  const [mark] = (await stageState(teacher)).marks;
  expect(mark).toMatchObject({ kind: 'quote', text: 'Bridges, sheet' });
  expect(Math.abs(mark!.bounds.x - first!.x * unit)).toBeLessThan(2);
  expect(Math.abs(mark!.bounds.x + mark!.bounds.width - last!.right * unit)).toBeLessThan(3);
  expect(mark!.bounds.y).toBeLessThan(middle);
  // Beside what is printed it is an ordinary highlighter.
  await draw(teacher, wave(200, 800));
  await expectMarks(teacher, 2);
  expect((await stageState(teacher)).marks[1]!.kind).toBe('stroke');
});

test('a scanned page is read when it is asked for, and its words are marked like any others, also by the class', async ({
  browser,
  server,
  teacher,
}) => {
  const bytes = await plainPdf(1);
  const reader = new OutsideReader(bytes);
  const scan = await PDFDocument.create();
  const png = await scan.embedPng(PNG.sync.write(reader.picture(1, 1600)));
  scan.addPage([595.28, 841.89]).drawImage(png, { x: 0, y: 0, width: 595.28, height: 841.89 });
  await bringIn(teacher, { name: 'scan.pdf', bytes: await scan.save() });
  await teacher.keyboard.press('h');
  await teacher.getByRole('button', { name: 'Options' }).click();
  await expect(teacher.getByText('This page is a picture.')).toBeVisible();
  await teacher.getByRole('button', { name: 'Read the words' }).click();
  // It goes on while something else is done.
  await teacher.keyboard.press('Escape');
  await expect(teacher.getByText('The words of this page have been read.')).toBeVisible();
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await surfaceShown(wren);
  const [first, last] = ['Bridges,', 'sheet'].map((word) => reader.boxOf(1, word));
  const unit = 96 / 72;
  const middle = ((first!.y + first!.bottom) / 2) * unit;
  for (const [page, count] of [
    [teacher, 1],
    [wren, 2],
  ] as const) {
    await page.keyboard.press('h');
    await draw(page, [
      [(first!.x + 30) * unit, middle],
      [(last!.x + 12) * unit, middle],
    ]);
    await expectMarks(teacher, count);
    expect((await stageState(teacher)).marks[count - 1]).toMatchObject({
      kind: 'quote',
      text: 'Bridges, sheet',
    });
  }
});

test('what others have written on a document becomes marks, and undo takes that back', async ({
  teacher,
}) => {
  const doc = await PDFDocument.load(await plainPdf(1));
  const square = {
    Type: 'Annot',
    Subtype: 'Square',
    Rect: [100, 350, 300, 500],
    C: [1, 0, 0],
    IC: [0, 0, 1],
  };
  doc.getPage(0).node.addAnnot(doc.context.register(doc.context.obj(square)));
  await bringIn(teacher, { name: 'reviewed.pdf', bytes: await doc.save() });
  const middle = async () => {
    const { data, width } = await pageOnScreen(teacher, 794, 1123);
    const at =
      4 * (Math.round((841.89 - 425) * (width / 595.28)) * width + Math.round(200 * (width / 595.28)));
    return [...data.subarray(at, at + 3)];
  };
  await teacher.getByRole('button', { name: 'All pages' }).click();
  await teacher.getByRole('button', { name: 'What to do with page 1' }).click();
  await teacher.getByRole('menuitem', { name: 'Make the document’s annotations marks' }).click();
  await expectMarks(teacher, 1);
  await surfaceShown(teacher);
  expect((await stageState(teacher)).marks[0]).toMatchObject({ kind: 'shape', fill: '#0000ff' });
  await expect.poll(middle).toEqual([0, 0, 255]);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.keyboard.press('Delete');
  await expectMarks(teacher, 0);
  await expect.poll(middle).toEqual([255, 255, 255]);
  await teacher.keyboard.press('Control+z');
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 0);
  await surfaceShown(teacher);
});

test('words under the highlighter stay readable, on screen and in the handout', async ({ teacher }) => {
  await bringIn(teacher, { name: 'plain.pdf', bytes: await plainPdf(1) });
  const before = await pageOnScreen(teacher, 794, 1123);
  await teacher.keyboard.press('h');
  await draw(teacher, [
    [70, 100],
    [350, 100],
  ]);
  await expectMarks(teacher, 1);
  const after = await pageOnScreen(teacher, 794, 1123);
  const handout = new OutsideReader(await makeHandout(teacher)).picture(1, after.height);
  for (const picture of [after, handout]) {
    let [yellow, dark] = [0, 0];
    for (let y = 0; y < before.height; y++)
      for (let x = 0; x < Math.min(before.width, picture.width); x++) {
        const [i, j] = [4 * (y * before.width + x), 4 * (y * picture.width + x)];
        if (picture.data[j]! > 200 && picture.data[j + 2]! < 180) yellow += 1;
        if (before.data[i]! < 60 && picture.data[j]! < 80) dark += 1;
      }
    expect(yellow).toBeGreaterThan(1000);
    // Multiply leaves black black: nearly every dark pixel of the letters is still dark.
    expect(dark).toBeGreaterThan(250);
  }
});

for (const name of ['01-valid.pdf', '02-valid.pdf', '04-valid.pdf', '05-versions-space.pdf']) {
  test(`a file that nobody here wrote, ${name} of the pdf-parse package, goes in and out`, async ({
    teacher,
  }) => {
    const original = samplePdf(name);
    await bringIn(teacher, { name, bytes: original });
    await draw(teacher, wave(100, 100));
    await typeAt(teacher, 100, 300, 'Typed on it');
    await expectMarks(teacher, 2);
    const handout = new OutsideReader(await makeHandout(teacher));
    handout.check();
    const source = new OutsideReader(original);
    expect(handout.geometry()).toEqual(source.geometry());
    expect(handout.text(1)).toContain('Typed on it');
    const words = source
      .text(1)
      .split(/\s+/)
      .filter((word) => /^[A-Za-z]{5,}$/.test(word))
      .slice(0, 20);
    for (const word of words) expect(handout.text(1)).toContain(word);
  });
}

test('a page is sharp at every size', async ({ teacher }) => {
  await bringIn(teacher, { name: 'plain.pdf', bytes: await plainPdf(1) });
  for (let i = 0; i < 12; i++) await teacher.keyboard.press('+');
  await teacher.mouse.move(640, 400);
  const [x, y] = await at(teacher, 130, 95);
  await teacher.mouse.wheel(x - 640, y - 400);
  // At this size an edge of a letter that was only stretched would be grey over many pixels.
  await expect.poll(() => greyShare(teacher)).toBeLessThan(0.25);
});

/** Part of the letters' pixels that is neither paper nor ink. */
async function greyShare(page: import('@playwright/test').Page): Promise<number> {
  return page.locator('canvas[data-layer=dry]').evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let [grey, ink] = [0, 0];
    for (let i = 0; i < data.length; i += 4) {
      if (data[i + 3]! < 255 || Math.abs(data[i]! - data[i + 2]!) > 30) continue;
      if (data[i]! < 40) ink += 1;
      else if (data[i]! < 225) grey += 1;
    }
    return ink === 0 ? 1 : grey / ink;
  });
}
