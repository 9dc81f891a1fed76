import type { CDPSession, Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { saveAs } from '../support/handout';
import { option } from '../support/options';
import { plainPdf } from '../support/pdfs';
import { at, draw, drawAndRest, expectMarks, stageState } from '../support/stage';
import { drawByFinger } from '../support/touch';

type Place = [number, number];

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
});

/** Lines between corners as an unsteady hand draws them. */
function shaky(...corners: Place[]): Place[] {
  return corners.slice(1).flatMap(([x, y], i) => {
    const [ax, ay] = corners[i]!;
    return Array.from({ length: 16 }, (_, k): Place => {
      const t = k / 15;
      return [ax + (x - ax) * t + 1.6 * Math.sin(k + i), ay + (y - ay) * t + 1.6 * Math.cos(1.7 * k)];
    });
  });
}

function shakyRound(x: number, y: number, radius: number): Place[] {
  return Array.from({ length: 44 }, (_, i): Place => {
    const angle = 0.3 + (6.35 * i) / 43;
    return [
      x + radius * Math.cos(angle) + 1.6 * Math.sin(i / 3),
      y + radius * Math.sin(angle) + 1.6 * Math.cos(i / 4),
    ];
  });
}

/** Draws with a pen that tells how hard it presses. */
async function drawByPen(page: Page, cdp: CDPSession, line: readonly Place[]): Promise<void> {
  const places = await Promise.all(line.map((place) => at(page, ...place)));
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', [x, y]: Place) =>
    cdp.send('Input.dispatchMouseEvent', {
      ...{ type, x, y, button: 'left', buttons: 1, clickCount: 1 },
      ...{ pointerType: 'pen', force: 0.5 },
    });
  await send('mousePressed', places[0]!);
  for (const place of places.slice(1)) await send('mouseMoved', place);
  await send('mouseReleased', places.at(-1)!);
}

async function neatenWhileDrawing(page: Page): Promise<void> {
  await page.keyboard.press('p');
  await option(page, 'Neaten shapes while I draw', 'switch');
}

const kinds = async (page: Page) => (await stageState(page)).marks.map(({ kind }) => kind).sort();
const readings = (page: Page) => page.getByRole('toolbar', { name: 'What this can be' });

test('what is drawn by mouse, pen and finger becomes what it means, on the students’ screens too', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await neatenWhileDrawing(teacher);

  await draw(teacher, shakyRound(200, 200, 70));
  await expect(readings(teacher).getByRole('button', { name: 'Circle', pressed: true })).toBeVisible();
  await expect.poll(() => kinds(wren)).toEqual(['shape']);
  // The next best reading, then the ink as it was drawn.
  await readings(teacher).getByRole('button', { name: 'Ellipse' }).click();
  await expect(readings(teacher).getByRole('button', { name: 'Ellipse', pressed: true })).toBeVisible();
  await expect.poll(() => kinds(wren)).toEqual(['shape']);
  await readings(teacher).getByRole('button', { name: 'As drawn' }).click();
  await expect(readings(teacher)).toBeHidden();
  await expect.poll(() => kinds(wren)).toEqual(['stroke']);

  // By pen, in three strokes; undo gives all of them back.
  const cdp = await teacher.context().newCDPSession(teacher);
  await drawByPen(teacher, cdp, shaky([400, 300], [600, 310]));
  await drawByPen(teacher, cdp, shaky([598, 308], [480, 140]));
  await drawByPen(teacher, cdp, shaky([482, 142], [402, 298]));
  await expect.poll(() => kinds(wren)).toEqual(['path', 'stroke']);
  await expect(readings(teacher).getByRole('button', { name: /triangle/i, pressed: true })).toBeVisible();
  await teacher.keyboard.press('Control+z');
  await expect.poll(() => kinds(wren)).toEqual(['stroke', 'stroke', 'stroke', 'stroke']);
  await expect(readings(teacher)).toBeHidden();

  // A student by finger; writing stays as it is.
  await neatenWhileDrawing(wren);
  const touch = await wren.context().newCDPSession(wren);
  await drawByFinger(wren, touch, shaky([150, 500], [420, 505], [418, 640], [148, 636], [152, 498]));
  await expect(readings(wren).getByRole('button', { name: 'Rectangle', pressed: true })).toBeVisible();
  await expect.poll(() => kinds(teacher)).toEqual(['path', 'stroke', 'stroke', 'stroke', 'stroke']);
});

test('a selection is made neat in one action, and leaves in the handout as a shape', async ({ teacher }) => {
  await teacher.keyboard.press('p');
  await draw(teacher, shaky([150, 200], [350, 205], [348, 330], [152, 328], [148, 202]));
  await draw(teacher, shakyRound(540, 270, 65));
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'Neaten' }).click();
  await expect.poll(() => kinds(teacher)).toEqual(['path', 'shape']);
  await expect(readings(teacher).getByRole('button')).toHaveText(['As drawn']);
  await expectMarks(teacher, 2);
  await teacher.getByRole('button', { name: 'Hand out' }).click();
  const { bytes } = await saveAs(teacher, 'Drawings (SVG)');
  const [first] = Object.values(unzipSync(bytes)).map((file) => strFromU8(file));
  expect(first!.match(/stroke="#000000"/g)).toHaveLength(2);
  await teacher.getByRole('button', { name: 'Close' }).click();

  // What is no shape stays, and that is said.
  await teacher.keyboard.press('p');
  await draw(
    teacher,
    Array.from({ length: 60 }, (_, i): Place => [400 + 90 * Math.sin(i * 2.1), 600 + 80 * Math.cos(i * 3.7)]),
  );
  await expectMarks(teacher, 3);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'Neaten' }).click();
  await expect(teacher.getByText('There is no shape in this ink')).toBeVisible();
  await expect.poll(() => kinds(teacher)).toEqual(['path', 'shape', 'stroke']);
});

test('holding still at the end of a line makes just that one neat', async ({ teacher }) => {
  await teacher.keyboard.press('p');
  await drawAndRest(teacher, shaky([150, 200], [350, 205], [348, 330], [152, 328], [148, 202]));
  await expect
    .poll(async () => (await stageState(teacher)).marks.length, {
      message: 'nothing is put before the pen is lifted',
    })
    .toBe(0);
  // The shape is in sight while the pen still rests.
  const stage = teacher.getByTestId('stage');
  const drawn = await stage.screenshot();
  await expect.poll(async () => (await stage.screenshot()).equals(drawn)).toBe(false);
  await teacher.mouse.up();
  await expect.poll(() => kinds(teacher)).toEqual(['path']);
  await teacher.keyboard.press('Control+z');
  await expect.poll(() => kinds(teacher)).toEqual(['stroke']);
  await draw(teacher, shakyRound(500, 300, 70));
  await expectMarks(teacher, 2);
  expect(await kinds(teacher)).toEqual(['stroke', 'stroke']);
});

test('writing is evened out in one action, and stays the same hand', async ({ teacher }) => {
  await teacher.keyboard.press('p');
  // Four letters that dance on their line.
  const feet = [400, 416, 392, 409];
  for (const [i, foot] of feet.entries())
    await draw(teacher, shaky([200 + 60 * i, foot - 90], [204 + 60 * i, foot]));
  await expectMarks(teacher, 4);
  const spread = async () => {
    const bottoms = (await stageState(teacher)).marks.map(({ bounds }) => bounds.y + bounds.height);
    return Math.max(...bottoms) - Math.min(...bottoms);
  };
  expect(await spread()).toBeGreaterThan(15);
  await teacher.getByRole('button', { name: /^Colour and options/ }).click();
  await teacher.getByRole('button', { name: 'Even out what I just wrote' }).click();
  await expect.poll(spread).toBeLessThan(3);
  expect(await kinds(teacher)).toEqual(['stroke', 'stroke', 'stroke', 'stroke']);
  await teacher.keyboard.press('Escape');
  await teacher.keyboard.press('Control+z');
  await expect.poll(spread).toBeGreaterThan(15);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'Even out the writing' }).click();
  await expect.poll(spread).toBeLessThan(3);
});
