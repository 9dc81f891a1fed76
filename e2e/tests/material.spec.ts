import { bringIn, expect, joinAs, startClass, surfaceShown, test } from '../support/fixtures';
import { makeHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState, wave } from '../support/stage';

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

const ARTICLE = `<title>The mill bridge</title><style>body{font:20px serif;margin:40px}</style>
<script>document.title = 'ran'</script><h1>The mill bridge</h1>${'<p>Nothing held the planks up but their own stiffness.</p>'.repeat(60)}`;

test('a web page is brought into a class, scrolls with its ink, and comes out in the handout', async ({
  browser,
  server,
  teacher,
}) => {
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
  const [, second] = handout.geometry().filter((line) => line.includes('size'));
  const [width, height] = /([\d.]+) x ([\d.]+)/.exec(second!)!.slice(1).map(Number);
  expect(width).toBeCloseTo(1024 * 0.75, 0);
  expect(height).toBeGreaterThan(1500);
});

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
  await teacher.getByLabel(/^Which pages/).fill('7');
  await teacher.getByRole('button', { name: 'Put them in' }).click();
  await expect(teacher.getByRole('alert')).toContainText('has 1 pages');
  await teacher.getByLabel(/^Which pages/).fill('');
  await teacher.getByRole('button', { name: 'Put them in' }).click();
  await expect(teacher.getByLabel('Page 2 of 3')).toBeVisible();
  await surfaceShown(wren);
  await draw(teacher, wave(200, 300));
  await expectMarks(wren, 1);
  expect(new OutsideReader(await makeHandout(teacher)).text(2)).toContain('Arches push outwards');
});
