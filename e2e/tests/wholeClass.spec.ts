import type { Page } from '@playwright/test';
import { bringIn, expect, joinAs, penState, startClass, test } from '../support/fixtures';
import { saveHandout } from '../support/handout';
import { OutsideReader, plainPdf } from '../support/pdfs';
import { forStudent, hand, openRoster, setRules } from '../support/roster';
import { draw, expectMarks, stageState, wave } from '../support/stage';

const PHONE = { width: 390, height: 844 };

test('a lesson with five students, from the door to the handout', async ({ browser, server, teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
  const code = await startClass(teacher);
  const names = ['Wren', 'Tove', 'Odo', 'Nash'];
  const early = await Promise.all(
    names.map((name, i) => joinAs(browser, server.url, code, name, i % 2 ? PHONE : undefined)),
  );
  const [wren, tove, odo, nash] = early as [Page, Page, Page, Page];

  await test.step('joining: the fifth waits for the nod', async () => {
    await teacher.getByRole('button', { name: /^Join code/ }).click();
    await teacher.getByRole('switch', { name: 'Whoever comes waits until you let them in' }).click();
    await teacher.getByRole('button', { name: 'Close' }).click();
  });
  const context = await browser.newContext({ baseURL: server.url, viewport: PHONE });
  const iris = await context.newPage();
  await test.step('who asks is let in', async () => {
    await iris.goto(`/join/${code}`);
    await iris.getByLabel('Your name').fill('Iris <b>');
    await iris.getByRole('button', { name: 'Go in' }).click();
    await teacher.getByRole('button', { name: 'Let in', exact: true }).click();
    await iris.locator('[data-testid=stage][data-shown=true]').waitFor();
  });
  const all = [wren, tove, odo, nash, iris];

  await test.step('all write at once, and everybody sees whose each mark is', async () => {
    await penState(teacher, true);
    for (const page of all) await expect(page.getByText('Pens up').first()).toBeVisible();
    await Promise.all(all.map((page, i) => draw(page, wave(60, 100 + 90 * i))));
    for (const page of [...all, teacher]) await expectMarks(page, 5);
    const { marks } = await stageState(teacher);
    expect(new Set(marks.map(({ author }) => author)).size).toBe(5);
    expect(new Set(marks.map(({ colour }) => colour)).size).toBe(5);
    await openRoster(teacher);
    const roster = teacher.getByRole('dialog', { name: 'Students' });
    for (const name of [...names, 'Iris <b>'])
      await expect(roster.getByText(name, { exact: true })).toBeVisible();
    await teacher.keyboard.press('Escape');
  });

  await test.step('permissions: one pen down, ink only for all', async () => {
    await openRoster(teacher);
    await teacher.getByRole('button', { name: "Nash's pen is up: put it down" }).click();
    await teacher.keyboard.press('Escape');
    await expect(nash.getByText('Pens down')).toBeVisible();
    await setRules(teacher, ['Ink only']);
    await expect(wren.getByText('Pens up: ink only')).toBeVisible();
    await penState(teacher, false);
    await penState(teacher, true);
    await setRules(teacher, ['Everything']);
  });

  await test.step('own copies, one of them shown to all, and back', async () => {
    await hand(teacher, 'Own copies');
    for (const page of all) await expect(page.getByText('This is your own copy of the page')).toBeVisible();
    await Promise.all(all.map((page) => draw(page, wave(60, 640))));
    for (const page of all) await expectMarks(page, 6);
    await hand(teacher, 'See all copies');
    const wall = teacher.getByRole('dialog', { name: 'All copies' });
    await expect(wall.getByRole('listitem')).toHaveCount(5);
    await expect(wall.getByText('1 mark', { exact: true })).toHaveCount(5);
    await wall
      .getByRole('listitem')
      .filter({ hasText: 'Odo' })
      .getByRole('button', { name: 'Show to all' })
      .click();
    for (const page of [wren, tove]) await expect(page.getByText('Shown: the copy of Odo')).toBeVisible();
    await hand(teacher, 'All write');
    for (const page of all) await expectMarks(page, 5);
  });

  await test.step('moderation: hidden, wiped, put back', async () => {
    await forStudent(teacher, 'Tove', 'Hide what Tove wrote');
    await expectMarks(wren, 4);
    await forStudent(teacher, 'Tove', 'Show again what Tove wrote');
    await expectMarks(wren, 5);
    await forStudent(teacher, 'Odo', 'Wipe what Odo wrote on all pages');
    await expectMarks(iris, 4);
    await openRoster(teacher);
    await teacher.getByRole('button', { name: 'What was removed' }).click();
    const removed = teacher.getByRole('dialog', { name: 'What was removed' });
    await removed.getByRole('button', { name: 'Put back' }).first().click();
    await expectMarks(iris, 5);
    await removed.getByRole('button', { name: 'Close' }).click();
    await teacher.keyboard.press('Escape');
  });

  await test.step('asking: all answer at once; a hand goes up', async () => {
    await teacher.getByRole('button', { name: 'Ask the class' }).click();
    await teacher.getByLabel('Question (or say it aloud)').fill('Does it bend?');
    const dialog = teacher.getByRole('dialog', { name: 'Ask the class' });
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await Promise.all(
      all.map((page, i) => page.getByRole('radio', { name: i % 2 ? 'No' : 'Yes', exact: true }).click()),
    );
    await expect(dialog).toContainText('5 have answered.');
    await dialog.getByRole('button', { name: 'Put away' }).click();
    await dialog.getByRole('button', { name: 'Close', exact: true }).click();
    await wren.getByRole('button', { name: 'Put your hand up' }).click();
    await expect(teacher.getByRole('button', { name: /Students: 5.*1/ })).toBeVisible();
  });

  await test.step('words: what somebody says is words, whatever they look like', async () => {
    await wren.getByRole('button', { name: /^Chat and notes/ }).click();
    await wren.getByLabel('Your message to everybody').fill('<img src=x onerror=alert(1)> is a beam');
    await wren.getByLabel('Your message to everybody').press('Enter');
    await teacher.getByRole('button', { name: /^Chat and notes/ }).click();
    await expect(teacher.getByRole('log')).toContainText('<img src=x onerror=alert(1)> is a beam');
    await teacher
      .getByRole('region', { name: 'Chat and notes' })
      .getByRole('button', { name: 'Close' })
      .click();
  });

  await test.step('ideas: all add at once', async () => {
    await teacher.getByRole('button', { name: 'Ask the class' }).click();
    await teacher.getByRole('radio', { name: 'Ideas on notes' }).click();
    await teacher.getByRole('dialog').getByRole('button', { name: 'Ask', exact: true }).click();
    await Promise.all(
      all.map(async (page, i) => {
        await page.getByLabel('Your idea').fill(`Idea ${i}`);
        await page.getByLabel('Your idea').press('Enter');
      }),
    );
    for (const page of [...all, teacher])
      await expect(page.getByRole('button', { name: /^Idea of/ })).toHaveCount(5);
  });

  await test.step('the handout has the pages, what was said and what was answered', async () => {
    await teacher.getByRole('button', { name: 'Hand out' }).click();
    for (const part of ['Chat', 'Questions and answers', 'What was removed'])
      await teacher.getByRole('checkbox', { name: part }).check();
    const handout = new OutsideReader(await saveHandout(teacher));
    handout.check();
    const words = handout.text(4);
    expect(words).toContain('Wren: <img src=x onerror=alert(1)> is a beam');
    expect(words).toContain('Does it bend?');
    expect(words).toContain('Yes: 3');
    expect(handout.text(2)).toContain('Idea 3');
  });
});
