import { expect, test } from '@playwright/test';
import { PNG } from 'pngjs';
import { boxOf, expectOn, highlight, livePages, SENTENCES, wipe } from '../support/livePages';
import type { Box } from '../support/livePages';

const live = livePages();

test('marks stay with their words: scrolling, another width, larger letters, new content, a reload, another visit', async () => {
  const [page, companion] = await live.open('/story#p3');
  await page.evaluate(() => scrollTo(0, 0));
  await highlight(companion, page, '#p2', 'ninety', 'footbridge');
  const [marked] = await companion.marks();
  // Whole words, whatever was begun and ended within them, by what they say.
  expect(marked).toMatchObject({ kind: 'quote', to: 'words', exact: 'ninety years the footbridge' });
  await companion.click('Pen');
  const word = await boxOf(page, '#p2', 'people');
  await companion.draw([word.x, word.y + word.height], [word.x + word.width, word.y + word.height + 2]);
  expect((await companion.marks())[1]).toMatchObject({ kind: 'stroke', to: 'words', words: 'people' });
  const under = async () => {
    const box = await boxOf(page, '#p2', 'people');
    const { points } = (await companion.marks())[1]!.shown!;
    const [sx, sy] = await page.evaluate(() => [scrollX, scrollY]);
    return Math.max(Math.abs(points![0]! - box.x - sx), Math.abs(points![1]! - box.y - box.height - sy));
  };
  const stays = async () => {
    await expectOn(companion, page, 0, '#p2', 'ninety years');
    await expect.poll(under).toBeLessThan(1);
  };
  await stays();
  await page.setViewportSize({ width: 760, height: 700 });
  await stays();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.evaluate(() =>
    document.querySelector('h1')!.insertAdjacentHTML('afterend', '<p>News.</p>'.repeat(9)),
  );
  await stays();
  await page.evaluate(() => (document.body.style.fontSize = '26px'));
  await expectOn(companion, page, 0, '#p2', 'ninety years');
  await page.evaluate(() => (document.querySelector('#p2')!.textContent += ' Since then it is closed.'));
  await expectOn(companion, page, 0, '#p2', 'ninety years');

  // Gone with its paragraph: it waits in the list, and says so; back with it.
  await page.evaluate(() => document.querySelector('#p2')!.remove());
  await expect
    .poll(async () => (await companion.marks()).map(({ isThere }) => isThere))
    .toEqual([false, false]);
  await companion.click('List');
  await companion.waitUntil(`root.textContent.includes('Its place is not on the page now')`);
  await page.evaluate((text) => {
    const again = document.createElement('p');
    again.id = 'p2';
    again.textContent = text!;
    document.querySelector('#p1')!.after(again);
  }, SENTENCES[2]);
  await expectOn(companion, page, 0, '#p2', 'ninety years');

  // After a reload the companion goes on by itself: the button was pressed for this place.
  await page.reload();
  await companion.waitUntil(`tab && tab.log.all().length === 2`);
  await expectOn(companion, page, 0, '#p2', 'ninety years');
  // Another page of the place has marks of its own; coming back finds these.
  await page.goto(live.site.at('/other'));
  await companion.waitUntil(`tab && tab.log.all().length === 0`);
  await page.goto(live.site.at('/story'));
  await companion.waitUntil(`tab && tab.log.all().length === 2`);
  await expectOn(companion, page, 0, '#p2', 'ninety years');
  // A route of a single-page application is another page, without a load.
  await page.evaluate(() => history.pushState(null, '', '#/lesson/2'));
  await companion.waitUntil(`tab.log.all().length === 0`);
  await page.evaluate(() => history.back());
  await companion.waitUntil(`tab.log.all().length === 2`);
  // In another place nobody has pressed the button.
  await page.goto(live.site.at('/story', 'two'));
  await expect(page.locator('[popover]')).toHaveCount(0);
  expect(await companion.isThere()).toBe(false);
  await page.close();
});

test('marks follow parts that scroll by themselves and headers that do not, and hide where these hide them', async () => {
  const [page, companion] = await live.open('/story');
  await companion.waitUntil('tab.log.all().length >= 0');
  await wipe(companion);
  await page.evaluate(() => document.querySelector('section')!.scrollIntoView({ block: 'end' }));
  await highlight(companion, page, '#s1', 'scrolls');
  await highlight(companion, page, 'header', 'header');
  await highlight(companion, page, '#p11', 'brook');
  await page.evaluate(() => document.querySelector('section')!.scrollBy(0, 40));
  await expectOn(companion, page, 0, '#s1', 'scrolls');
  await page.evaluate(() => scrollBy(0, -200));
  await expectOn(companion, page, 0, '#s1', 'scrolls');
  await expectOn(companion, page, 1, 'header', 'header');
  // Scrolled away within its part, it is drawn nowhere.
  await page.evaluate(() => document.querySelector('section')!.scrollBy(0, 300));
  await expectOn(companion, page, 0, '#s1', 'scrolls');
  const clip = await companion.look<Box>('tab.log.all()[0].clip');
  const { shown } = (await companion.marks())[0]!;
  expect(shown!.rects![1]! + shown!.rects![3]!).toBeLessThan(clip.y);
  // What has gone under the header is not seen through it.
  const brook = await boxOf(page, '#p11', 'brook');
  await page.evaluate((y) => scrollBy(0, y - 12), brook.y);
  await expect
    .poll(() =>
      companion.look<string>(`tab.host.tintRoot.querySelector('[data-layer="dry-tint"]').style.clipPath`),
    )
    .toContain('evenodd');
  await page.close();
});

for (const [name, path, selector, words] of [
  ['a manual with tables and lists', '/policy/ch-controlfields.html', 'section p', 'control'],
  [
    'a fixed header over a part that scrolls by itself',
    '/javadoc/nu/xom/Builder.html',
    '#class-description .block',
    'responsible',
  ],
  ['a text from right to left', '/declaration/arb.html', 'header p', 'أساس'],
] as const)
  test(`real documentation, ${name}: whole words, found again at another width and after a reload`, async () => {
    const [page, companion] = await live.open(path);
    await page.evaluate((css) => document.querySelector(css)!.scrollIntoView({ block: 'center' }), selector);
    await companion.click('Tools to the other side');
    await highlight(companion, page, selector, words);
    const [marked] = await companion.marks();
    expect(marked!.exact).toContain(words);
    expect(marked!.exact!.trim()).toBe(marked!.exact);
    for (const width of [900, 1600, 1280]) {
      await page.setViewportSize({ width, height: 800 });
      await expectOn(companion, page, 0, selector, marked!.exact!);
    }
    await page.mouse.move(500, 400);
    await page.mouse.wheel(0, 250);
    await expectOn(companion, page, 0, selector, marked!.exact!);
    await page.reload();
    await companion.waitUntil('tab && tab.log.all().length === 1');
    await expectOn(companion, page, 0, selector, marked!.exact!);
    await wipe(companion);
    await companion.click('Tools to the other side');
    await page.close();
  });

test('frames of the same place are looked into, those of others written over as a whole', async () => {
  const [page, companion] = await live.open('/frames');
  const frame = page.frames().find((one) => one.url().includes('ch-scope'))!;
  const inFrame = await frame.evaluate(() => {
    const range = document.createRange();
    const p = document.querySelector('section p')!.firstChild!;
    range.setStart(p, 0);
    range.setEnd(p, 12);
    const { x, y, height } = range.getBoundingClientRect();
    return { x, y: y + height / 2 };
  });
  const box = (await page.locator('iframe').first().boundingBox())!;
  const [x, y] = [box.x + 2 + inFrame.x, box.y + 2 + inFrame.y];
  await companion.click('Highlighter');
  await companion.draw([x + 3, y], [x + 60, y]);
  expect((await companion.marks())[0]).toMatchObject({ kind: 'quote', to: 'words' });
  const before = (await companion.marks())[0]!.shown!.rects![1]!;
  await frame.evaluate(() => scrollBy(0, 30));
  await expect.poll(async () => (await companion.marks())[0]!.shown!.rects![1]! - before).toBeCloseTo(-30, 0);
  await companion.click('Pen');
  const foreign = (await page.locator('iframe').last().boundingBox())!;
  await companion.draw([foreign.x + 300, foreign.y + 60], [foreign.x + 380, foreign.y + 120]);
  expect((await companion.marks())[1]).toMatchObject({ kind: 'stroke', to: 'element' });
  await page.close();
});

test('marked words can be read on light and on dark pages', async () => {
  for (const [path, isDark] of [
    ['/other', false],
    ['/dark', true],
  ] as const) {
    const [page, companion] = await live.open(path, 'three');
    await highlight(companion, page, '#p5', 'drawings');
    await companion.click('Tools to the other side');
    await companion.click('Tools to the other side');
    const { x, y, width, height } = await boxOf(page, '#p5', 'drawings');
    // Twice as soon as it is drawn: the second picture has what the first frame had.
    await companion.waitUntil(
      `tab.host.tintRoot.querySelector('[data-layer="dry-tint"]').style.display === ''`,
    );
    const clip = { x, y: y + 4, width, height: height - 8 };
    await expect
      .poll(async () => lightness(PNG.sync.read(await page.screenshot({ clip }))))
      .toEqual(isDark ? { ground: 'lit', letters: 'light' } : { ground: 'yellow', letters: 'dark' });
    await wipe(companion);
    await page.close();
  }
});

/** What the ground and the letters of a picture are like: most of it is ground, the letters are what differs most from it. */
function lightness({ data }: PNG): { ground: string; letters: string } {
  const levels: number[] = [];
  const counts = new Map<string, number>();
  for (let at = 0; at < data.length; at += 4) {
    const [r, g, b] = [data[at]!, data[at + 1]!, data[at + 2]!];
    levels.push(0.3 * r + 0.6 * g + 0.1 * b);
    const key = `${r},${g},${b}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const [ground] = [...counts].sort((a, b) => b[1] - a[1])[0]!;
  const [r, g, b] = ground.split(',').map(Number) as [number, number, number];
  const level = 0.3 * r + 0.6 * g + 0.1 * b;
  const yellow = r - b > 40 && g - b > 40;
  const isDark = level < 160;
  const letters = isDark ? Math.max(...levels) : Math.min(...levels);
  return {
    ground: !yellow ? 'plain' : isDark ? 'lit' : 'yellow',
    letters: letters > 180 ? 'light' : letters < 90 ? 'dark' : 'lost',
  };
}
