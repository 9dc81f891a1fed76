import { Resvg } from '@resvg/resvg-js';
import type { Page } from '@playwright/test';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { similarity } from '../support/pictures';
import { draw, expectMarks, stageState, typeAt, wave } from '../support/stage';

/** Two programs smooth letters and edges differently; a wrong place, colour or size costs far more than this. */
const SAME = 0.9;
/** More than are worked out where everything else is. */
const STROKES = 240;

test('pages go out in every format, and other programs show what the screen shows', async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await draw(teacher, wave(80, 500, 300));
  await typeAt(teacher, 100, 700, 'Arches push outwards');
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Hand out' }).click();

  const flat = new OutsideReader((await saveAs(teacher, 'PDF')).bytes);
  flat.check();
  const reference = flat.picture(1, 1123);
  const sameAs = (picture: PNG) => expect(similarity(reference, picture)).toBeGreaterThan(SAME);

  // ISO 32000-1 §12.5.6: Ink and FreeText, by pdf.js; drawn by poppler.
  const annotated = (await saveAs(teacher, 'PDF with marks that other programs can change')).bytes;
  new OutsideReader(annotated).check();
  sameAs(new OutsideReader(annotated).picture(1, 1123));
  const doc = await getDocument({ data: new Uint8Array(annotated), verbosity: 0 }).promise;
  const found = (await (await doc.getPage(1)).getAnnotations()) as { subtype: string }[];
  expect(found.map(({ subtype }) => subtype)).toEqual(['Ink', 'FreeText']);

  const pictures = await saveAs(teacher, 'Pictures (PNG)');
  expect(pictures.name).toBe('bridges.zip');
  const unpacked = unzipSync(pictures.bytes);
  expect(Object.keys(unpacked)).toEqual(['01.png', '02.png']);
  const png = PNG.sync.read(Buffer.from(unpacked['01.png']!));
  expect(png.height).toBe(2245);
  sameAs(halved(png));
  const small = unzipSync((await saveAs(teacher, 'Small pictures (WebP)')).bytes);
  expect(strFromU8(small['01.webp']!.slice(8, 12), true)).toBe('WEBP');

  const drawings = unzipSync((await saveAs(teacher, 'Drawings (SVG)')).bytes);
  const svg = strFromU8(drawings['01.svg']!);
  expect(svg).toContain('>Arches push outwards</text>');
  sameAs(PNG.sync.read(new Resvg(svg, { fitTo: { mode: 'height', value: 1123 } }).render().asPng()));

  const slides = (await saveAs(teacher, 'Slides (PPTX)')).bytes;
  const shown = new OutsideReader(asPdf(slides, 'pptx'));
  expect(shown.text(1)).toContain('Arches push outwards');
  sameAs(shown.picture(1, 1123));

  const ink = strFromU8((await saveAs(teacher, 'Ink (InkML)')).bytes);
  expect(ink.match(/<trace /g)).toHaveLength(1);

  const html = strFromU8((await saveAs(teacher, 'One web page (HTML)')).bytes);
  const offline = await teacher.context().newPage();
  await offline.route('**', (route) => route.abort());
  await offline.setContent(html);
  await expect(offline.getByText('Arches push outwards')).toBeVisible();
  await expect(offline.getByText(/Bridges, sheet 2/)).toBeAttached();
  await offline.close();
});

test('paper gets as many pages on a sheet as wanted, with words at the foot', async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(5) });
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const dialog = teacher.getByRole('dialog');
  await dialog.getByLabel('Title', { exact: true }).check();
  await dialog.getByLabel('Page numbers').check();
  await dialog.getByLabel('On each sheet').selectOption({ label: '4 pages' });
  const sheets = new OutsideReader((await saveAs(teacher, 'PDF')).bytes);
  sheets.check();
  expect(sheets.geometry().filter((line) => line.includes('size'))).toHaveLength(2);
  expect(sheets.text(1)).toContain('Page 4 of 5');
  expect(sheets.text(2)).toContain('bridges · Page 5 of 5');

  await teacher.evaluate(() => {
    const seen = new MutationObserver(() => {
      const frame = document.querySelector<HTMLIFrameElement>('body > iframe');
      frame?.addEventListener('load', () => {
        const { contentWindow } = frame;
        if (!contentWindow) return;
        contentWindow.print = () => {
          document.body.dataset['printed'] = String(
            contentWindow.document.querySelectorAll('section').length,
          );
        };
      });
    });
    seen.observe(document.body, { childList: true });
  });
  await dialog.getByLabel('Hand out as').selectOption({ label: 'On paper' });
  await dialog.getByRole('button', { name: 'Print' }).click();
  await expect(teacher.locator('body[data-printed="5"]')).toBeAttached();
});

test('each student gets their own, called by their initials where that is wanted', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  const code = await startClass(teacher);
  await penState(teacher, true);
  const wren = await joinAs(browser, server.url, code, 'Wren Ashby');
  const tove = await joinAs(browser, server.url, code, 'Tove Lind');
  await draw(wren, wave(100, 300));
  await draw(tove, wave(100, 500));
  await typeAt(tove, 120, 700, 'by Tove');
  for (const page of [teacher, wren]) await expectMarks(page, 3);

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const dialog = teacher.getByRole('dialog');
  await dialog.getByLabel('Whose marks').selectOption({ label: 'Each student’s, as files of their own' });
  const named = unzipSync((await saveAs(teacher, 'PDF')).bytes);
  const names = Object.keys(named);
  expect(names.map((name) => name.split(', ').at(-1))).toEqual(['Tove Lind.pdf', 'Wren Ashby.pdf']);
  expect(new OutsideReader(named[names[0]!]!).text(1)).toContain('by Tove');
  expect(new OutsideReader(named[names[1]!]!).text(1)).not.toContain('by Tove');

  await dialog.getByLabel('Initials instead of students’ names').check();
  const short = unzipSync((await saveAs(teacher, 'PDF with marks that other programs can change')).bytes);
  expect(Object.keys(short).map((name) => name.split(', ').at(-1))).toEqual(['T. L..pdf', 'W. A..pdf']);
  for (const bytes of Object.values(short)) {
    const doc = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    const found = (await (await doc.getPage(1)).getAnnotations()) as { titleObj: { str: string } }[];
    expect(found.length).toBeGreaterThan(0);
    for (const { titleObj } of found) expect(titleObj.str).toMatch(/^[TW]\. [LA]\.$/);
  }
});

test('what was handed out comes in again: the archive, annotations, ink and drawings', async ({
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  await draw(teacher, wave(80, 500, 300));
  await typeAt(teacher, 100, 700, 'Arches push outwards');
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const archive = await saveAs(teacher, 'Lesson archive (everything)');
  expect(archive.name).toBe('bridges.lesson.zip');
  const annotated = await saveAs(teacher, 'PDF with marks that other programs can change');
  const ink = await saveAs(teacher, 'Ink (InkML)');
  const drawing = await saveAs(teacher, 'Drawings (SVG)');
  await teacher.getByRole('button', { name: 'Close' }).click();

  // Ink and a drawing of others become marks that are selected, and undo takes them away.
  await bringInDrawing(teacher, ink);
  await expectMarks(teacher, 3);
  const svg = { name: 'bridges.svg', bytes: unzipSync(drawing.bytes)['01.svg']! };
  await bringInDrawing(teacher, svg);
  await expect.poll(async () => (await stageState(teacher)).marks.length).toBeGreaterThan(4);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 3);
  await chooseDrawing(teacher, { name: 'notes.svg', bytes: strToU8('just words') });
  await expect(teacher.getByRole('alert')).toContainText('There is no ink and no drawing in this file');
  await teacher.getByRole('button', { name: 'Close' }).click();

  // The archive is a lesson of its own, with the same marks.
  await teacher.goto('/');
  await bringIn(teacher, archive);
  await expectMarks(teacher, 2);
  await expect(teacher.getByText('Page 1 of 2').first()).toBeAttached();

  // Annotations of the PDF are marks again, by whoever made them.
  await teacher.goto('/');
  await bringIn(teacher, annotated);
  await expectMarks(teacher, 0);
  await teacher.getByRole('button', { name: 'All pages' }).click();
  await teacher.getByRole('button', { name: 'What to do with page 1' }).click();
  await teacher.getByRole('menuitem', { name: 'Make the document’s annotations marks' }).click();
  await expectMarks(teacher, 2);
});

test('much ink is worked out by workers of its own', async ({ teacher }) => {
  test.skip(cpus().length < 2, 'nothing is left for another worker');
  const traceOf = (n: number) => {
    const [x, y] = [40 + (n % 20) * 35, 60 + Math.floor(n / 20) * 70];
    return Array.from({ length: 20 }, (_, i) => `${x + i} ${y + 9 * Math.sin(i + n)}`).join(', ');
  };
  const traces = Array.from({ length: STROKES }, (_, n) => `<trace>${traceOf(n)}</trace>`);
  const ink = `<ink xmlns="http://www.w3.org/2003/InkML">${traces.join('')}</ink>`;
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  await bringInDrawing(teacher, { name: 'much.inkml', bytes: strToU8(ink) });
  await expectMarks(teacher, STROKES);
  await teacher.keyboard.press('Escape');

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const fetched = teacher.context().waitForEvent('response', (response) => {
    return /\/ink\.worker-/.test(response.url());
  });
  const { bytes } = await saveAs(teacher, 'PDF');
  expect((await fetched).ok()).toBe(true);
  const reader = new OutsideReader(bytes);
  reader.check();
  expect(await fillsOn(bytes)).toBe(STROKES);
  const picture = PNG.sync.read(Buffer.from((await saveAs(teacher, 'Pictures (PNG)')).bytes));
  expect(similarity(reader.picture(1, 1123), halved(picture))).toBeGreaterThan(SAME);
});

/** How many paths are filled on the first page, by pdf.js. */
async function fillsOn(bytes: Uint8Array): Promise<number> {
  const doc = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const { fnArray, argsArray } = await (await doc.getPage(1)).getOperatorList();
  return fnArray.filter((fn, i) => fn === OPS.constructPath && (argsArray[i] as number[])[0] === OPS.fill)
    .length;
}

const asFile = ({ name, bytes }: { name: string; bytes: Uint8Array }) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(bytes),
});

async function chooseDrawing(page: Page, file: { name: string; bytes: Uint8Array }): Promise<void> {
  await page.getByRole('button', { name: 'Bring in' }).click();
  await page.getByRole('menuitem', { name: 'A drawing or ink' }).click();
  await page.getByLabel('Choose a drawing').setInputFiles(asFile(file));
}

async function bringInDrawing(page: Page, file: { name: string; bytes: Uint8Array }): Promise<void> {
  await chooseDrawing(page, file);
  await expect(page.getByText(/put on the page/).last()).toBeVisible();
}

/** A document as LibreOffice shows it. */
function asPdf(bytes: Uint8Array, ending: string): Uint8Array {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-office-'));
  writeFileSync(join(folder, `file.${ending}`), bytes);
  const profile = `-env:UserInstallation=file://${join(folder, 'profile')}`;
  execFileSync(
    'soffice',
    [profile, '--headless', '--convert-to', 'pdf', '--outdir', folder, join(folder, `file.${ending}`)],
    { stdio: 'ignore' },
  );
  return readFileSync(join(folder, 'file.pdf'));
}

/** A picture at half its size, four pixels to one. */
function halved(picture: PNG): PNG {
  const half = new PNG({ width: Math.floor(picture.width / 2), height: Math.floor(picture.height / 2) });
  for (let y = 0; y < half.height; y++)
    for (let x = 0; x < half.width; x++)
      for (let c = 0; c < 4; c++) {
        const at = (dx: number, dy: number) =>
          picture.data[4 * ((2 * y + dy) * picture.width + 2 * x + dx) + c]!;
        half.data[4 * (y * half.width + x) + c] = (at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4;
      }
  return half;
}
