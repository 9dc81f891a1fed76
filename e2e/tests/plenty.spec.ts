import { bringIn, expect, test } from '../support/fixtures';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, wave } from '../support/stage';

const LESSONS = 48;

test('of many lessons only those in sight are made and fetched', async ({ teacher }) => {
  const buffer = Buffer.from(await plainPdf(1));
  for (let i = 1; i <= LESSONS; i++) {
    const file = { name: `Lesson ${i}.pdf`, mimeType: 'application/pdf', buffer };
    expect((await teacher.request.post('/api/lessons', { multipart: { file } })).ok()).toBe(true);
  }
  const covers = new Set<string>();
  teacher.on('request', (request) => {
    if (request.url().endsWith('/cover')) covers.add(request.url());
  });
  await teacher.reload();
  const cards = teacher.getByRole('listitem');
  await expect(cards.first()).toContainText(`Lesson ${LESSONS}`);
  const made = await cards.count();
  expect(made).toBeGreaterThan(3);
  expect(made).toBeLessThan(LESSONS / 2);
  expect(covers.size).toBeLessThanOrEqual(made);

  // The last one is reached by the wheel, and tells a screen reader which of how many it is.
  await teacher.mouse.move(640, 500);
  await expect(async () => {
    await teacher.mouse.wheel(0, 2000);
    await expect(cards.filter({ hasText: /^Lesson 1Used/ })).toBeInViewport({ timeout: 500 });
  }).toPass();
  const last = cards.last();
  await expect(last).toHaveAttribute('aria-posinset', String(LESSONS));
  await expect(last).toHaveAttribute('aria-setsize', String(LESSONS));
  expect(await cards.count()).toBeLessThan(LESSONS / 2);
});

test('of many marks the list makes those in sight, and all can be reached', async ({ teacher }) => {
  await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(1) });
  await draw(teacher, wave(100, 200));
  await expectMarks(teacher, 1);
  for (let count = 2; count <= 256; count *= 2) {
    await teacher.keyboard.press('Control+a');
    await teacher.keyboard.press('Control+d');
    await expectMarks(teacher, count);
  }
  await teacher.keyboard.press('k');
  const list = teacher.getByRole('complementary', { name: 'What is on this page' });
  await expect(list.getByRole('heading', { name: 'On this page: 256' })).toBeVisible();
  const rows = list.getByRole('listitem');
  await expect(rows.first()).toHaveAttribute('aria-posinset', '1');
  expect(await rows.count()).toBeLessThan(60);
  await list.hover();
  await expect(async () => {
    await teacher.mouse.wheel(0, 4000);
    await expect(rows.last()).toHaveAttribute('aria-posinset', '256', { timeout: 500 });
  }).toPass();
  expect(await rows.count()).toBeLessThan(60);
  await rows.last().getByRole('button').click();
  await expect(rows.last().getByRole('button')).toHaveAttribute('aria-pressed', 'true');
});
