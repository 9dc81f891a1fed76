import { contrast } from '@doodla/core';
import type { Locator } from '@playwright/test';
import { PNG } from 'pngjs';
import { bringIn, expect, joinAs, startClass, surfaceShown, test } from '../support/fixtures';
import { makeHandout } from '../support/handout';
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
    // Read out in its order, with the mark among the words by where it lies.
    const read = wren.getByRole('region', { name: 'What the page says' }).getByRole('paragraph');
    await expect(read.first()).toHaveText('The mill bridge');
    await expect(read.filter({ hasText: 'by the teacher' })).toHaveCount(1);
    await expect(read.last()).toContainText('Nothing held the planks up');
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
