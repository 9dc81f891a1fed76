import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { strFromU8, unzipSync } from 'fflate';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, stageState } from '../support/stage';

type Place = [number, number];

/** A sailing boat as a hand draws it: hull, mast and a sail, none of them quite straight. */
const BOAT: Place[][] = [
  [[200, 420], [260, 424], [330, 417], [402, 421], [388, 455], [352, 468], [300, 471], [244, 466], [214, 452], [199, 419]], // prettier-ignore
  [[282, 196], [285, 270], [279, 340], [283, 416]], // prettier-ignore
  [[286, 200], [330, 268], [372, 330], [398, 366], [340, 372], [262, 366], [206, 370], [240, 290], [279, 204]], // prettier-ignore
];

test('a rough drawing becomes a clean one, another one, and itself again; it leaves in the handout as lines', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('p');
  for (const line of BOAT) await draw(teacher, line);
  await expectMarks(wren, 3);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Clean drawing' }).click();
  const offered = teacher.getByRole('group', { name: 'Drawings that this can be' }).getByRole('button');
  await expect(offered).toHaveCount(12);
  await expectMarks(wren, 3);

  const drawn = (await stageState(wren)).marks.map(({ id }) => id).sort();
  await offered.and(teacher.getByRole('button', { name: 'sailboat' })).click();
  const kinds = async () => (await stageState(wren)).marks.map(({ kind }) => kind).sort();
  await expect.poll(kinds).toContain('path');
  const clean = await stageState(wren);
  for (const { bounds } of clean.marks) {
    expect(bounds.x).toBeGreaterThan(150);
    expect(bounds.y + bounds.height).toBeLessThan(520);
  }
  // Another reading in its place, then what was drawn.
  await offered.last().click();
  await expect(offered.last()).toHaveAttribute('aria-pressed', 'true');
  await expect
    .poll(async () => (await stageState(wren)).marks.map(({ id }) => id))
    .not.toContain(clean.marks[0]!.id);
  await teacher.getByRole('button', { name: 'As drawn' }).click();
  await expect.poll(async () => (await stageState(wren)).marks.map(({ id }) => id).sort()).toEqual(drawn);

  // Taken once more, and undone.
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Clean drawing' }).click();
  await offered.and(teacher.getByRole('button', { name: 'sailboat' })).click();
  await expect.poll(kinds).toContain('path');
  await teacher.keyboard.press('Control+z');
  await expect.poll(kinds).toEqual(['stroke', 'stroke', 'stroke']);
  await teacher.keyboard.press('Control+y');
  await expect.poll(kinds).toContain('path');
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const { bytes } = await saveAs(teacher, 'Drawings (SVG)');
  const [svg] = Object.values(unzipSync(bytes)).map((file) => strFromU8(file));
  expect(svg!.match(/<path/g)!.length).toBeGreaterThanOrEqual(clean.marks.length);
});

test('a line drawing is found by word and put on the page, where it is ordinary ink and paths', async ({
  teacher,
}) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  await teacher.getByRole('button', { name: 'Shelf' }).click();
  await teacher.getByRole('tab', { name: 'Pictures' }).click();
  await teacher.getByRole('searchbox', { name: 'Search the pictures' }).fill('sailing');
  const drawings = teacher.getByRole('list', { name: 'Line drawings' });
  await drawings.getByRole('button', { name: 'sailboat' }).click();
  await expect
    .poll(async () => new Set((await stageState(teacher)).marks.map(({ kind }) => kind)))
    .toContain('path');
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 0);
});
