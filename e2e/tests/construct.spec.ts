import type { Page } from '@playwright/test';
import { leading, strings } from '@doodla/core/construct';
import { bringIn, expect, joinAs, startWriting, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { at, draw, expectMarks, stageState } from '../support/stage';

type Place = [number, number];

test.beforeEach(async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
});

async function construct(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'More for these marks' }).click();
  await page.getByRole('menuitem', { name: 'Construct lines' }).click();
  await page.getByRole('region', { name: 'Construct lines' }).waitFor();
}

/** How far the bounds of the page's marks are from those of lines that were computed, page units. */
async function farFrom(
  page: Page,
  lines: readonly (readonly [readonly number[], readonly number[]])[],
): Promise<number> {
  const { marks } = await stageState(page);
  const off = lines.map(([a, b]) => {
    const [left, top] = [Math.min(a[0]!, b[0]!), Math.min(a[1]!, b[1]!)];
    const [width, height] = [Math.abs(a[0]! - b[0]!), Math.abs(a[1]! - b[1]!)];
    // Bounds reach as far beyond the line as it is wide.
    const offs = marks.map(({ bounds }) => {
      const edge = (bounds.width - width) / 2;
      return Math.max(
        Math.abs(bounds.x + edge - left),
        Math.abs(bounds.y + edge - top),
        Math.abs(bounds.height - 2 * edge - height),
      );
    });
    return Math.min(...offs);
  });
  return Math.max(...off);
}

test('a string pattern and a vanishing point are drawn by hand as they are computed, for the class to see', async ({
  browser,
  server,
  teacher,
}) => {
  const code = await startWriting(teacher);
  const wren = await joinAs(browser, server.url, code, 'Wren');
  await teacher.keyboard.press('l');
  await draw(teacher, [
    [150, 500],
    [140, 300],
    [150, 150],
  ]);
  // The second line begins near the first one's end, and meets it.
  await draw(teacher, [
    [153, 503],
    [300, 505],
    [450, 500],
  ]);
  await expectMarks(teacher, 2);
  await teacher.keyboard.press('v');
  await teacher.keyboard.press('Control+a');
  await construct(teacher);
  await teacher.getByLabel('Equal parts').fill('1');
  await expect(teacher.getByRole('alert')).toBeVisible();
  await teacher.getByLabel('Equal parts').fill('8');
  await teacher.getByRole('button', { name: 'Draw the lines' }).click();
  // Eight parts have nine lines; the first and the last lie on the edges.
  await expectMarks(teacher, 11);
  const corner: Place = [150, 500];
  const computed = strings([corner, [150, 150]], [[450, 500], corner], 8, false);
  expect(await farFrom(teacher, computed)).toBeLessThan(2);
  await expect.poll(() => farFrom(wren, computed)).toBeLessThan(2);
  await teacher.keyboard.press('Control+z');
  await expectMarks(teacher, 2);

  await teacher.keyboard.press('s');
  await draw(teacher, [
    [500, 200],
    [600, 280],
  ]);
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 500, 240)));
  await construct(teacher);
  await teacher.getByRole('radio', { name: 'Lead' }).click();
  await teacher.getByRole('button', { name: 'Choose the vanishing point' }).click();
  await teacher.mouse.click(...(await at(teacher, 700, 700)));
  await expectMarks(teacher, 7);
  const corners: Place[] = [
    [500, 200],
    [600, 200],
    [600, 280],
    [500, 280],
  ];
  expect(await farFrom(teacher, leading(corners, [700, 700]))).toBeLessThan(2);
});

test('a side that is dragged meets the side of another shape where it is near', async ({ teacher }) => {
  await teacher.keyboard.press('s');
  for (const [left, top] of [
    [100, 300],
    [300, 560],
  ] as const)
    await draw(teacher, [
      [left, top],
      [left + 100, top + 160],
    ]);
  await teacher.keyboard.press('v');
  await teacher.mouse.click(...(await at(teacher, 100, 440)));
  const outermost = async () => {
    const { x, width } = (await stageState(teacher)).marks[0]!.bounds;
    return x + width;
  };
  // Bounds reach beyond the side by half the width of its line.
  const edge = (await outermost()) - 200;
  const right = async () => Math.round((await outermost()) - edge);
  const dragTo = async (x: number) => {
    const handle = (await teacher.getByRole('button', { name: 'Resize from the right' }).boundingBox())!;
    const [px, py] = [handle.x + handle.width / 2, handle.y + handle.height / 2];
    const by = (x - (await right())) * (await stageState(teacher)).scale;
    await teacher.mouse.move(px, py);
    await teacher.mouse.down();
    await teacher.mouse.move(px + by, py, { steps: 4 });
    await teacher.mouse.up();
  };
  await dragTo(304);
  await expect.poll(right).toBe(300);
  await dragTo(330);
  await expect.poll(right).toBe(330);
});
