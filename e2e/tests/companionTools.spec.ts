import { expect, test } from '@playwright/test';
import type { ShownMark } from '../support/companion';
import { boxOf, highlight, kinds, livePages, middle, typed, wipe } from '../support/livePages';

const live = livePages();

test('every tool does its work by mouse, touch and keys, and undo takes it back', async () => {
  const [page, companion] = await live.open('/other');
  await wipe(companion);
  // On this page the divs of its style are hidden, which ours do not mind.
  await companion.click('Shape');
  await companion.draw([1000, 120], [1120, 220]);
  await companion.click('Line');
  await companion.draw([1000, 300], [1200, 340]);
  await page.keyboard.press('m');
  await page.mouse.click(1050, 420);
  await page.keyboard.press('n');
  await page.mouse.click(1080, 560);
  await typed(page, 'A question');
  await page.keyboard.press('Escape');
  await expect.poll(() => kinds(companion)).toEqual(['shape', 'path', 'stamp', 'note']);
  expect((await companion.marks())[3]).toMatchObject({ text: 'A question' });
  // Poured into the shape, what is seen bounds it: it becomes the shape's filling.
  await companion.click('Pour');
  await page.mouse.click(1060, 170);
  await companion.waitUntil(
    `tab.log.all().some(({ glued }) => glued.mark.kind === 'fill' || glued.mark.style.fill)`,
  );
  await page.keyboard.press('v');
  await page.mouse.click(1100, 318);
  await companion.waitUntil('tab.desk.selection.ids.get().size === 1');
  const [, line] = await companion.marks();
  await page.keyboard.press('ArrowRight');
  const moved = (await companion.marks()).find(({ kind }) => kind === 'path')!;
  expect(moved.shown!.points![0]! - line!.shown!.points![0]!).toBeCloseTo(1, 1);
  await page.keyboard.press('Delete');
  expect(await kinds(companion)).not.toContain('path');
  await page.keyboard.press('Control+z');
  expect(await kinds(companion)).toContain('path');
  // A finger writes as long as no pen has been used.
  await companion.click('Pen');
  const touch = await page.context().newCDPSession(page);
  const points = (x: number, y: number) => ({ touchPoints: [{ x, y, radiusX: 5, radiusY: 5 }] });
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', ...points(900, 650) });
  for (let i = 1; i <= 8; i++)
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', ...points(900 + i * 10, 650 + i * 3) });
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expect.poll(() => kinds(companion)).toContain('stroke');
  await companion.click('Eraser');
  await companion.draw([940, 640], [940, 690]);
  expect(await kinds(companion)).not.toContain('stroke');
  // A colour that the page has.
  await companion.click('Pen');
  await page.evaluate(() => (document.querySelector('h1')!.style.background = 'rgb(18, 52, 86)'));
  await companion.click('Options');
  await companion.click('Take a colour from the page');
  const title = (await page.locator('h1').boundingBox())!;
  await page.mouse.click(title.x + title.width - 8, title.y + 6);
  await companion.waitUntil(`tab.desk.penCase.colour === '#123456'`);
  // Used, the page works as ever; written on, its keys and clicks are ours.
  await page.evaluate(() => {
    const button = document.createElement('button');
    button.textContent = 'Press';
    button.style.cssText = 'position:fixed;right:20px;bottom:20px';
    button.onclick = () => (document.title = 'pressed');
    document.body.append(button);
  });
  const button = (await page.locator('button', { hasText: 'Press' }).boundingBox())!;
  await page.mouse.click(button.x + 5, button.y + 5);
  expect(await page.title()).toBe('Bridges');
  await page.keyboard.press('w');
  await page.mouse.click(button.x + 5, button.y + 5);
  expect(await page.title()).toBe('pressed');
  await page.close();
});

test('spotlight, cover, magnifier and time lie over the page and are put away', async () => {
  const [page, companion] = await live.open('/other');
  await companion.click('Focus');
  for (const [name, id] of [
    ['Spotlight', 'spotlight'],
    ['Cover', 'cover'],
    ['Magnifier', 'magnifier'],
  ] as const) {
    await companion.click(name);
    await companion.waitUntil(`find('[data-testid="${id}"]')`);
  }
  // One at a time; the glass shows what lies under it.
  await companion.waitUntil(
    `!find('[data-testid="cover"]') && find('[data-testid="magnifier"] canvas').width > 100`,
  );
  await companion.click('Put Magnifier away');
  await companion.click('3 min');
  await companion.waitUntil(`/^[23]:/.test(find('[role="timer"]').textContent)`);
  await companion.click('Pause');
  const held = await companion.look<string>(`find('[role="timer"]').textContent`);
  await companion.click('Start');
  await companion.waitUntil(`find('[role="timer"]').textContent !== ${JSON.stringify(held)}`);
  await companion.click('Put Timer away');
  await companion.waitUntil(`!find('[role="timer"]')`);
  await page.close();
});

test('marks are saved as Web Annotations and come back from the file', async () => {
  const [page, companion] = await live.open('/story');
  await wipe(companion);
  await highlight(companion, page, '#p4', 'children');
  await companion.click('Pen');
  const [x, y] = middle(await boxOf(page, '#p4', 'water'));
  await companion.draw([x - 20, y], [x + 20, y]);
  await companion.click('List');
  const download = page.waitForEvent('download');
  await companion.click('Save a file');
  const file = await (await download).path();
  const before = await companion.marks();
  await wipe(companion);
  await companion.click('List');
  const chooser = page.waitForEvent('filechooser');
  await companion.click('Open a file');
  await (await chooser).setFiles(file);
  await expect.poll(async () => sorted(await companion.marks())).toEqual(sorted(before));
  await companion.waitUntil(`root.textContent.includes('2 marks were put on the page.')`);
  await wipe(companion);
  await page.close();
});

const sorted = (marks: ShownMark[]) => [...marks].sort((a, b) => a.kind.localeCompare(b.kind));

test('what is being typed is there after the page was loaded again in the middle of it', async () => {
  const [page, companion] = await live.open('/other', 'four');
  await companion.click('Text');
  await page.mouse.click(900, 300);
  await typed(page, 'Half a thought');
  // Kept letter by letter, before it is put on the page.
  const isKept = `chrome.storage.local.get(null).then((all) => JSON.stringify(all).includes('Half a thought'))`;
  await companion.waitUntil(`tab && true`);
  await expect.poll(() => companion.look<boolean>(isKept)).toBe(true);
  await page.reload();
  await companion.waitUntil(`tab && tab.log.all().some(({ glued }) => glued.mark.text === 'Half a thought')`);
  await wipe(companion);
  await page.close();
});

test('what is dragged is moved by keys too, and sliders keep theirs', async () => {
  const [page, companion] = await live.open('/other', 'four');
  const focus = (name: string) => companion.look(`named(${JSON.stringify(name)}).focus()`);
  const left = (name: string) =>
    companion.look<number>(`Math.round(named(${JSON.stringify(name)}).getBoundingClientRect().x)`);
  await companion.click('Focus');
  await companion.click('Spotlight');
  const before = await left('Move the spotlight');
  await focus('Move the spotlight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => left('Move the spotlight')).toBe(before + 40);
  await companion.click('Put Spotlight away');

  await companion.click('Shape');
  await companion.draw([900, 200], [1000, 260]);
  await page.keyboard.press('v');
  await page.mouse.click(901, 230);
  await companion.waitUntil('tab.desk.selection.ids.get().size === 1');
  await focus('Turn');
  await page.keyboard.press('ArrowRight');
  await companion.waitUntil('tab.log.all()[0].shown.rotation === 5');
  const { x } = (await companion.marks())[0]!.shown!;
  await companion.click('Pen');
  await companion.click('Options');
  await companion.waitUntil(`find('input[type=range]')`);
  await companion.look(`(tab.desk.selection.selectAll(), find('input[type=range]').focus())`);
  const width = await companion.look<string>(`find('input[type=range]').value`);
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => companion.look<string>(`find('input[type=range]').value`)).not.toBe(width);
  expect((await companion.marks())[0]!.shown!.x).toBe(x);

  // A part of the window is pictured by keys alone.
  await companion.click('Picture');
  await companion.click('A part of it');
  await companion.waitUntil(`find('[data-testid="region"]')`);
  await page.keyboard.press('Control+ArrowLeft');
  await page.keyboard.press('ArrowDown');
  const opened = live.browser.context.waitForEvent('page');
  await page.keyboard.press('Enter');
  const picture = await opened;
  const size = () =>
    picture.locator('[data-testid=sheet] canvas').evaluate((one) => (one as HTMLCanvasElement).width);
  await expect.poll(size).toBe(620);
  await picture.close();
  await page.bringToFront();
  await wipe(companion);
  await page.close();
});
