import { writeFile } from 'node:fs/promises';
import { PNG } from 'pngjs';
import type { Locator, Page } from '@playwright/test';
import { FIGURE_IDS } from '@doodla/core/figures';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { makeHandout } from '../support/handout';
import { at, draw, expectMarks, stageState } from '../support/stage';

test('a drawing for a subject is put on the page, changed, and set by a student where the class may', async ({
  browser,
  server,
  teacher,
}) => {
  await bringIn(teacher, { name: 'water.pdf', bytes: await plainPdf(1) });
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A drawing for a subject' }).click();
  const sheet = teacher.getByRole('dialog', { name: 'A drawing for a subject' });
  await sheet.getByLabel('Which').selectOption('Equation, balanced');
  await sheet.getByLabel('Equation', { exact: true }).fill('H2 + -> H2O');
  await expect(sheet.getByRole('alert')).toContainText('This is no formula');
  await sheet.getByLabel('Which').selectOption('Beaker, cylinder, flask');
  await sheet.getByRole('spinbutton', { name: 'Filled, ml' }).fill('150');
  await expect(sheet.getByTestId('figure-preview').locator('path').first()).toBeVisible();
  if (process.env.LOOK) await teacher.screenshot({ path: '/tmp/look/f-sheet.png' });
  await sheet.getByRole('button', { name: 'Put on the page' }).click();
  await expect(sheet).toBeHidden();
  await expect.poll(async () => (await stageState(teacher)).marks.length).toBe(1);
  const { bounds } = (await stageState(teacher)).marks[0]!;

  await teacher.getByRole('button', { name: 'Change the drawing' }).click();
  const change = teacher.getByRole('dialog', { name: 'Change the drawing' });
  await change.getByLabel('Vessel').selectOption('flask');
  await change.getByRole('button', { name: 'Keep' }).click();
  await expect(change).toBeHidden();
  await teacher.getByRole('button', { name: 'More for these marks' }).click();
  await teacher.getByRole('menuitem', { name: 'What it does in class' }).click();
  const rule = teacher.getByRole('dialog', { name: 'What it does in class' });
  await rule.getByLabel('Filled, ml').check();
  await rule.getByRole('button', { name: 'Keep this' }).click();
  await expect(teacher.getByRole('img', { name: 'The class sets it' })).toBeVisible();

  const code = await startClass(teacher);
  await penState(teacher, true);
  await teacher.keyboard.press('p');
  const wren = await joinAs(browser, server.url, code, 'Wren', { width: 390, height: 844 });
  await wren.getByRole('button', { name: /^Set: .*Filled, ml 150/ }).click();
  await expect(wren.getByLabel('Vessel', { exact: true })).toHaveCount(0);
  await wren.getByRole('spinbutton', { name: 'Filled, ml' }).fill('225');
  await expect(teacher.getByRole('button', { name: /^Set: .*Vessel flask.*Filled, ml 225/ })).toBeVisible();
  if (process.env.LOOK) {
    await wren.screenshot({ path: '/tmp/look/f-phone.png' });
    await teacher.screenshot({ path: '/tmp/look/f-class.png' });
  }
  // It is one mark, where it was.
  const there = await stageState(teacher);
  expect(there.marks.map((mark) => mark.bounds.width)).toEqual([bounds.width]);
});

test('circuit symbols are joined by wires at their ends, and stay so', async ({ teacher }) => {
  await bringIn(teacher, { name: 'current.pdf', bytes: await plainPdf(1) });
  await teacher.getByRole('button', { name: 'Bring in' }).click();
  await teacher.getByRole('menuitem', { name: 'A drawing for a subject' }).click();
  const sheet = teacher.getByRole('dialog', { name: 'A drawing for a subject' });
  await sheet.getByLabel('Which').selectOption('Circuit symbol');
  await sheet.getByRole('button', { name: 'Put on the page' }).click();
  await expectMarks(teacher, 1);
  const symbol = (await stageState(teacher)).marks[0]!.bounds;
  const end = { x: symbol.x + symbol.width, y: symbol.y + symbol.height / 2 };
  await teacher.keyboard.press('Escape');
  await teacher.getByRole('button', { name: 'Line', exact: true }).click();
  await draw(teacher, [
    [end.x + 6, end.y + 5],
    [end.x + 120, end.y + 150],
  ]);
  await expectMarks(teacher, 2);
  const wire = async () => (await stageState(teacher)).marks.find(({ kind }) => kind === 'path')!.bounds;
  // Bounds reach beyond a line on all sides alike.
  const beyond = ((await wire()).width - 120) / 2;
  expect(Math.abs((await wire()).x + beyond - end.x)).toBeLessThan(1.5);
  expect(Math.abs((await wire()).y + beyond - end.y)).toBeLessThan(1.5);

  const before = await wire();
  await teacher.keyboard.press('v');
  const [x, y] = await at(teacher, symbol.x + symbol.width / 2, symbol.y + symbol.height / 2);
  await teacher.mouse.move(x, y);
  await teacher.mouse.down();
  await teacher.mouse.move(x - 90, y + 40, { steps: 4 });
  await teacher.mouse.up();
  await expect.poll(async () => (await wire()).x).toBeLessThan(before.x - 20);
});

/** Sets something else in the first field that is a number, a choice, or said by a tick. Returns whether there is any. */
async function changeOne(sheet: Locator): Promise<boolean> {
  const numbers = sheet.getByRole('spinbutton');
  const ticks = sheet.getByRole('checkbox');
  const choices = sheet.getByRole('combobox');
  if ((await numbers.count()) > 0) {
    const number = numbers.first();
    const [value, most, step] = await number.evaluate((field: HTMLInputElement) =>
      [field.value, field.max, field.step].map(Number),
    );
    await number.fill(String(value! + step! <= most! ? value! + step! : value! - step!));
  } else if ((await choices.count()) > 0) {
    const other = await choices
      .first()
      .evaluate((field: HTMLSelectElement) => [...field.options].find(({ selected }) => !selected)!.value);
    await choices.first().selectOption(other);
  } else if ((await ticks.count()) > 0) await ticks.first().setChecked(!(await ticks.first().isChecked()));
  else return false;
  return true;
}

const recipesOn = async (page: Page) =>
  (await stageState(page)).marks.filter(({ kind }) => kind === 'plot').map(({ text }) => text);

for (const part of [0, 1])
  test(`each drawing is put on a page, changed, set by a student on a phone, and handed out (${part + 1})`, async ({
    browser,
    server,
    teacher,
  }) => {
    const figures = FIGURE_IDS.filter((_, i) => i % 2 === part);
    await bringIn(teacher, { name: 'drawings.pdf', bytes: await plainPdf(1) });
    let set = 0;
    for (const [i, figure] of figures.entries()) {
      await teacher.getByRole('button', { name: 'Bring in' }).click();
      await teacher.getByRole('menuitem', { name: 'A drawing for a subject' }).click();
      const sheet = teacher.getByRole('dialog', { name: 'A drawing for a subject' });
      await sheet.getByLabel('Which').selectOption(figure);
      await sheet.getByRole('button', { name: 'Put on the page' }).click();
      await expectMarks(teacher, i + 1);
      const before = await recipesOn(teacher);
      await teacher.getByRole('button', { name: 'Change the drawing' }).click();
      const change = teacher.getByRole('dialog', { name: 'Change the drawing' });
      const isChanged = await changeOne(change);
      await change.getByRole('button', { name: 'Keep' }).click();
      await expect(change).toBeHidden();
      if (!isChanged) continue;
      await expect.poll(() => recipesOn(teacher), { message: figure }).not.toEqual(before);
      set++;
      await teacher.getByRole('button', { name: 'More for these marks' }).click();
      await teacher.getByRole('menuitem', { name: 'What it does in class' }).click();
      const rule = teacher.getByRole('dialog', { name: 'What it does in class' });
      const settable = rule.getByRole('group', { name: 'The class may set' });
      await settable.waitFor();
      for (const tick of await settable.getByRole('checkbox').all()) await tick.check();
      await rule.getByRole('button', { name: 'Keep this' }).click();
      await expect(rule).toBeHidden();
    }
    const code = await startClass(teacher);
    await penState(teacher, true);
    await teacher.keyboard.press('p');
    const wren = await joinAs(browser, server.url, code, 'Wren', { width: 390, height: 844 });
    const handles = wren.getByRole('button', { name: /^Set: / });
    await expect(handles).toHaveCount(set);
    for (let i = 0; i < set; i++) {
      const before = await recipesOn(teacher);
      const handle = handles.nth(i);
      await handle.focus();
      await wren.keyboard.press('Enter');
      if (process.env.LOOK && i % 4 === 0) await wren.screenshot({ path: `/tmp/look/f-set${part}${i}.png` });
      expect(await changeOne(handle.locator('xpath=..')), before[i]).toBe(true);
      await expect
        .poll(() => recipesOn(teacher), { message: String(await handle.getAttribute('aria-label')) })
        .not.toEqual(before);
      await handle.focus();
      await wren.keyboard.press('Enter');
    }
    // They are drawn as lines, not as pictures.
    const reader = new OutsideReader(await makeHandout(teacher));
    reader.check();
    expect(reader.pixelPictures()).toBe(0);
    if (process.env.LOOK)
      await writeFile(`/tmp/look/f-handout${part}.png`, PNG.sync.write(reader.picture(1, 900)));
  });
