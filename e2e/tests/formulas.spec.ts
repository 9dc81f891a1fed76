import { strFromU8 } from 'fflate';
import katex from 'katex';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, startClass, startWriting, surfaceShown, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, stageState } from '../support/stage';

async function openField(page: Page): Promise<void> {
  await page.keyboard.press('t');
  await page.getByRole('button', { name: 'Options' }).click();
  await page.getByRole('button', { name: 'Formula', exact: true }).click();
  await expect(page.locator('math-field')).toBeFocused();
}

/** A class with a page of a document, and a student in it. */
async function classWithWren(browser: Browser, server: { url: string }, teacher: Page): Promise<Page> {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  return joinAs(browser, server.url, await startWriting(teacher), 'Wren');
}

const tex = (page: Page) => page.getByLabel('The same as TeX');
const put = (page: Page) => page.getByRole('button', { name: 'Put it on the page' }).click();

test('a formula is typed as it is written, worked out, changed, and seen by the class', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await classWithWren(browser, server, teacher);
  await openField(teacher);
  await put(teacher);
  await expect(teacher.getByRole('alert')).toContainText('no formula yet');
  await teacher.locator('math-field').focus();
  await teacher.keyboard.type('1/2');
  await teacher.keyboard.press('ArrowRight');
  await teacher.keyboard.type('+3');
  await expect(tex(teacher)).toHaveValue('\\frac12+3');
  // Keys on the glass go where the cursor is.
  await teacher.getByRole('button', { name: '·', exact: true }).click();
  await teacher.getByRole('button', { name: 'Root', exact: true }).click();
  await teacher.getByRole('button', { name: '4', exact: true }).click();
  await expect(tex(teacher)).toHaveValue(/\\frac12\+3\\cdot ?\\sqrt\{?4\}?/);
  await put(teacher);
  await expectMarks(wren, 1);
  const [formula] = (await stageState(wren)).marks;
  expect(formula!.kind).toBe('formula');

  await teacher.getByRole('button', { name: 'For this formula' }).click();
  await teacher.getByRole('menuitem', { name: 'Work it out step by step' }).click();
  await expectMarks(wren, 5);
  // A change of the first keeps it where it is.
  await teacher.getByRole('button', { name: 'For this formula' }).click();
  await teacher.getByRole('menuitem', { name: 'Change the formula' }).click();
  await tex(teacher).fill('\\frac{1}{');
  await teacher.getByRole('button', { name: 'Keep the change' }).click();
  await expect(teacher.getByRole('alert')).toContainText('cannot be read');
  await tex(teacher).fill('x^2+1');
  await teacher.getByRole('button', { name: 'Keep the change' }).click();
  const changed = async () => (await stageState(wren)).marks.find(({ id }) => id === formula!.id)!.bounds;
  await expect.poll(async () => (await changed()).height).toBeLessThan(formula!.bounds.height * 0.8);
  expect(Math.abs((await changed()).x - formula!.bounds.x)).toBeLessThan(6);

  // What has a letter in it is said not to be a calculation.
  await teacher.getByRole('button', { name: 'For this formula' }).click();
  await teacher.getByRole('menuitem', { name: 'Work it out', exact: true }).click();
  await expect(teacher.getByText('x is a letter')).toBeVisible();

  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const { bytes } = await saveAs(teacher, 'Drawings (SVG)');
  const text = strFromU8(bytes);
  expect(/<title>x squared plus 1<.title><path d="M/.test(text)).toBe(true);
});

test('a student types one by touch where words are allowed, and changes it with the text tool', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await classWithWren(browser, server, teacher);
  await openField(wren);
  await wren.getByRole('radio', { name: 'Greek' }).click();
  await wren.getByRole('button', { name: 'π', exact: true }).click();
  await wren.getByRole('radio', { name: 'Numbers and signs' }).click();
  await wren.getByRole('button', { name: 'Power' }).click();
  await wren.getByRole('button', { name: '2', exact: true }).click();
  // What was typed is there again after the page was loaded anew.
  await expect(tex(wren)).toHaveValue('\\pi^2');
  await wren.reload();
  await surfaceShown(wren);
  await openField(wren);
  await expect(tex(wren)).toHaveValue('\\pi^2');
  await put(wren);
  await expectMarks(teacher, 1);
  await wren.keyboard.press('t');
  const { x, y, scale, marks } = await stageState(wren);
  const { bounds } = marks[0]!;
  await wren.mouse.click(x + (bounds.x + 8) * scale, y + (bounds.y + 12) * scale);
  await expect(tex(wren)).toHaveValue('\\pi^2');
});

/** KaTeX's own page of a formula, at a size. */
async function byKatex(page: Page, text: string, size: number): Promise<PNG> {
  const folder = dirname(createRequire(import.meta.url).resolve('katex'));
  const style = readFileSync(`${folder}/katex.css`, 'utf8').replace(
    /url\((fonts\/[^)]+\.woff2)\)/g,
    (_, file: string) =>
      `url(data:font/woff2;base64,${readFileSync(`${folder}/${file}`).toString('base64')})`,
  );
  const html = katex.renderToString(text, { displayMode: true, output: 'html' });
  await page.setContent(
    `<style>${style} body{margin:60px;background:#fff} .katex-display{margin:0;text-align:left} .katex{font-size:${size}px!important}</style>${html}`,
  );
  await page.evaluate(() => document.fonts.ready.then(() => undefined));
  return PNG.sync.read(await page.screenshot());
}

const darkness = ({ data }: PNG, i: number) => 255 - (data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!) / 3;

/** The box of all that is dark. */
function inkBox(png: PNG): { left: number; top: number; width: number; height: number } {
  let [left, top, right, bottom] = [Infinity, Infinity, 0, 0];
  for (let i = 0; i < png.width * png.height; i++) {
    if (darkness(png, i) < 100) continue;
    const [x, y] = [i % png.width, Math.floor(i / png.width)];
    [left, top, right, bottom] = [
      Math.min(left, x),
      Math.min(top, y),
      Math.max(right, x),
      Math.max(bottom, y),
    ];
  }
  return { left, top, width: right - left + 1, height: bottom - top + 1 };
}

/** How much of the ink of two pictures is not in both, at the best of a few small shifts; 0 is the same. */
function unlike(a: PNG, b: PNG): number {
  const [p, q] = [inkBox(a), inkBox(b)];
  let best = Infinity;
  for (const dx of [-1, 0, 1])
    for (const dy of [-1, 0, 1]) {
      let [ink, off] = [0, 0];
      for (let v = -2; v < p.height + 2; v++)
        for (let u = -2; u < p.width + 2; u++) {
          const [one, two] = [
            darkness(a, (p.top + v) * a.width + p.left + u),
            darkness(b, (q.top + v + dy) * b.width + q.left + u + dx),
          ];
          [ink, off] = [ink + Math.max(one, two), off + Math.abs(one - two)];
        }
      best = Math.min(best, off / ink);
    }
  return best;
}

test('a formula on the page looks as KaTeX itself draws it', async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  await startClass(teacher);
  const page = await teacher.context().newPage();
  for (const text of [
    'x=\\frac{-b\\pm\\sqrt{b^2-4ac}}{2a}',
    '\\sum_{i=1}^{n}i^3\\ne\\left(\\int_0^{\\pi}\\sin\\alpha\\right)^2',
    '\\begin{pmatrix}1&\\vec{a}\\\\\\overline{AB}&\\sqrt[3]{\\Omega}\\end{pmatrix}',
  ]) {
    await openField(teacher);
    await tex(teacher).fill(text);
    await put(teacher);
    await expectMarks(teacher, 1);
    const { scale, x, y, marks } = await stageState(teacher);
    await teacher.keyboard.press('Escape');
    await expect(teacher.getByRole('toolbar', { name: 'Selected marks' })).toBeHidden();
    const { bounds } = marks[0]!;
    const ours = PNG.sync.read(
      await teacher.screenshot({
        clip: {
          x: x + bounds.x * scale - 12,
          y: y + bounds.y * scale - 12,
          width: bounds.width * scale + 24,
          height: bounds.height * scale + 24,
        },
      }),
    );
    const theirs = await byKatex(page, text, 28 * 1.21 * scale);
    const [own, reference] = [inkBox(ours), inkBox(theirs)];
    expect(Math.abs(own.width - reference.width)).toBeLessThanOrEqual(2);
    expect(Math.abs(own.height - reference.height)).toBeLessThanOrEqual(2);
    expect(unlike(theirs, ours)).toBeLessThan(0.45);
    await teacher.keyboard.press('Control+z');
    await expectMarks(teacher, 0);
  }
});

type Place = [number, number];

/** x² + 1 over 2, as a hand writes it. */
const WRITTEN: Place[][] = [
  [[200, 210], [215, 232], [236, 262]], [[238, 208], [220, 234], [198, 264]], // x
  [[249, 176], [251, 170], [256, 166], [263, 166], [268, 170], [269, 176], [266, 182], [260, 190], [249, 201], [271, 200]], // squared
  [[306, 210], [306, 258]], [[284, 234], [330, 233]], // plus
  [[352, 196], [364, 184], [364, 262]], // one
  [[190, 290], [280, 288], [378, 291]], // the bar
  [[265, 320], [267, 311], [273, 306], [282, 305], [290, 309], [293, 317], [291, 327], [284, 338], [264, 364], [298, 363]], // two
]; // prettier-ignore

test('a formula written by hand is typeset; another reading and the ink are a tap away, and undo gives it back', async ({
  browser,
  server,
  teacher,
}) => {
  const wren = await classWithWren(browser, server, teacher);
  await teacher.keyboard.press('p');
  for (const line of WRITTEN) await draw(teacher, line);
  await expectMarks(wren, WRITTEN.length);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'To a formula' }).click();
  const readings = teacher.getByRole('group', { name: 'What this formula can be' }).getByRole('button');
  await expect(readings.first()).toHaveAttribute('aria-pressed', 'true');
  await expect(readings.first()).toHaveAttribute(
    'aria-label',
    'fraction x squared plus 1, over, 2, end of fraction',
  );
  const kinds = async () => (await stageState(wren)).marks.map(({ kind }) => kind);
  await expect.poll(kinds).toEqual(['formula']);
  const { id, bounds } = (await stageState(wren)).marks[0]!;
  expect(bounds.x).toBeGreaterThan(150);
  expect(bounds.y).toBeGreaterThan(140);

  await readings.nth(1).click();
  await expect(readings.nth(1)).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(async () => (await stageState(wren)).marks.map((mark) => mark.id)).not.toContain(id);
  await teacher.getByRole('button', { name: 'As written' }).click();
  await expectMarks(wren, WRITTEN.length);

  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'To a formula' }).click();
  await expect.poll(kinds).toEqual(['formula']);
  await teacher.keyboard.press('Control+z');
  await expectMarks(wren, WRITTEN.length);
});
