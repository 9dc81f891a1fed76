import type { Page } from '@playwright/test';
import { expect, test } from '@playwright/test';
import type { CompanionBrowser, ShownMark } from '../support/companion';
import { browserWithCompanion, Companion, pressButton } from '../support/companion';
import { PNG } from 'pngjs';
import type { Site } from '../support/sites';
import { DOCUMENTATION, serveSite } from '../support/sites';

/** What a careful site lets a page do: nothing from elsewhere, no frames, no styles or fonts by address. */
const STRICT = "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'";
const SENTENCES = [
  'A bridge of two planks stood here first, and nobody knows who laid it.',
  'Floods took it away in the wet autumn, so the miller asked for stone.',
  'For ninety years the footbridge carried people over the brook: children, the post, and once a cow.',
  'Oak bends less than pine of the same thickness, which every carpenter will tell.',
  'The school sent its children across in pairs while the water was high.',
  'Three drawings are left of the work; the best one hangs in the mill.',
  'Measured in the middle, the deck gave way by the width of a thumb.',
  'Its piers are rounded against the stream, since square ones gather branches.',
  'Later a handrail of iron was added, painted green and then forgotten.',
  'Nobody counted the steps until a class did so on a sunny afternoon.',
  'Wheels were not allowed, but a cart went over all the same at night.',
  'Today the brook is led through a pipe, and the bridge is a bench.',
];

const story = `<!doctype html><html lang="en"><title>Bridges</title>
<style>
  html { font-size: 9px }
  body { font: 18px/1.6 serif; max-width: 640px; margin: 60px auto; color: #222 }
  header { position: fixed; inset: 0 0 auto; background: #eee; padding: 8px; z-index: 9 }
  div, div * { background: hotpink !important; display: none !important; visibility: hidden !important }
  section { height: 160px; overflow: auto; border: 1px solid }
</style>
<header>A header that stays</header>
<h1>The footbridge</h1>
${Array.from({ length: 12 }, (_, i) => `<p id="p${i}">${SENTENCES[i]}</p>`).join('\n')}
<section>${Array.from({ length: 20 }, (_, i) => `<p id="s${i}">Row ${i} scrolls by itself.</p>`).join('')}</section>`;

let browser: CompanionBrowser;
let site: Site;

test.beforeAll(async () => {
  browser = await browserWithCompanion();
  const strict = { 'content-security-policy': STRICT };
  site = await serveSite(
    {
      '/story': { html: story, headers: strict },
      '/dark': { html: story.replace('color: #222', 'color: #eee; background: #111') },
      '/barred': {
        html: `<!doctype html><title>Barred</title><p>Nothing over me.</p><script>
          new MutationObserver(() => { for (const one of document.querySelectorAll('[popover]')) one.remove(); })
            .observe(document.documentElement, { childList: true });</script>`,
      },
      '/other': { html: story.replace('The footbridge', 'Elsewhere') },
      '/frames': () => ({
        html: `<!doctype html><title>Frames</title><body style="margin:0;padding-left:170px"><p>Outside of all frames.</p>
          <iframe src="/policy/ch-scope.html" width="900" height="330"></iframe>
          <iframe src="${site.at('/story', 'two')}" width="900" height="200"></iframe>`,
      }),
    },
    DOCUMENTATION,
  );
});

test.afterAll(async () => {
  await browser.close();
  await site.close();
});

async function openPage(address: string): Promise<[Page, Companion]> {
  const page = await browser.context.newPage();
  await page.goto(address);
  const companion = await Companion.over(page);
  await companion.open();
  return [page, companion];
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where words of an element stand in the window. */
function boxOf(page: Page, selector: string, words: string): Promise<Box> {
  return page.evaluate(
    ([css, text]) => {
      const element = document.querySelector(css!)!;
      const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const at = node.textContent!.indexOf(text!);
        if (at < 0) continue;
        const range = document.createRange();
        range.setStart(node, at);
        range.setEnd(node, at + text!.length);
        const { x, y, width, height } = range.getBoundingClientRect();
        return { x, y, width, height };
      }
      throw new Error(`no ${text}`);
    },
    [selector, words],
  );
}

const middle = ({ x, y, width, height }: Box): [number, number] => [x + width / 2, y + height / 2];

/** Waits until marked words lie where the page has them. */
async function expectOn(companion: Companion, page: Page, mark: number, selector: string, words: string) {
  await expect
    .poll(async () => {
      const box = await boxOf(page, selector, words);
      const scroll = await page.evaluate(() => [scrollX, scrollY]);
      const { shown } = (await companion.marks())[mark]!;
      const [x, y] = shown?.rects ?? [Infinity, Infinity];
      return Math.max(Math.abs(x! - box.x - scroll[0]!), Math.abs(y! - box.y - scroll[1]!));
    })
    .toBeLessThan(1);
}

async function highlight(companion: Companion, page: Page, selector: string, from: string, to = from) {
  await companion.click('Highlighter');
  const [start, end] = [await boxOf(page, selector, from), await boxOf(page, selector, to)];
  await companion.draw([start.x + 2, middle(start)[1]], [end.x + end.width - 2, middle(end)[1]]);
}

/** Takes all marks off the page. */
async function wipe(companion: Companion): Promise<void> {
  await companion.click('Wipe');
  await companion.click('Wipe it all off');
  await companion.waitUntil('tab.log.all().length === 0');
}

const kinds = async (companion: Companion) => (await companion.marks()).map(({ kind }) => kind);

test('marks stay with their words: scrolling, another width, larger letters, new content, a reload, another visit', async () => {
  const [page, companion] = await openPage(site.at('/story#p3'));
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
  await page.goto(site.at('/other'));
  await companion.waitUntil(`tab && tab.log.all().length === 0`);
  await page.goto(site.at('/story'));
  await companion.waitUntil(`tab && tab.log.all().length === 2`);
  await expectOn(companion, page, 0, '#p2', 'ninety years');
  // A route of a single-page application is another page, without a load.
  await page.evaluate(() => history.pushState(null, '', '#/lesson/2'));
  await companion.waitUntil(`tab.log.all().length === 0`);
  await page.evaluate(() => history.back());
  await companion.waitUntil(`tab.log.all().length === 2`);
  // In another place nobody has pressed the button.
  await page.goto(site.at('/story', 'two'));
  await expect(page.locator('[popover]')).toHaveCount(0);
  expect(await companion.isThere()).toBe(false);
  await page.close();
});

test('marks follow parts that scroll by themselves and headers that do not, and hide where these hide them', async () => {
  const [page, companion] = await openPage(site.at('/story'));
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
    const [page, companion] = await openPage(site.at(path));
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
  const [page, companion] = await openPage(site.at('/frames'));
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
    const [page, companion] = await openPage(site.at(path, 'three'));
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

/** What the extension's button says of the tab that is in front. */
async function titleOfButton({ context }: CompanionBrowser): Promise<string> {
  return context.serviceWorkers()[0]!.evaluate(async () => {
    const { chrome } = globalThis as unknown as {
      chrome: {
        tabs: { query(which: object): Promise<{ id: number }[]> };
        action: { getTitle(of: { tabId: number }): Promise<string> };
      };
    };
    const [tab] = await chrome.tabs.query({ active: true, lastFocusedWindow: true });
    return chrome.action.getTitle({ tabId: tab!.id });
  });
}

test('a page that lets nothing lie over it gets its way, and the button says so', async () => {
  const page = await browser.context.newPage();
  await page.goto(site.at('/barred', 'three'));
  await pressButton(page);
  await expect.poll(() => titleOfButton(browser)).toContain('does not let anything lie over it');
  await page.close();
});

test('every tool does its work by mouse, touch and keys, and undo takes it back', async () => {
  const [page, companion] = await openPage(site.at('/other'));
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

/** Types into the frame that has come. */
async function typed(page: Page, text: string): Promise<void> {
  const isTyping = () => page.frames().find((frame) => frame.url().includes('typing.html'));
  await expect.poll(() => isTyping() !== undefined).toBe(true);
  await isTyping()!.waitForFunction(() => document.activeElement?.id === 'text');
  await page.keyboard.type(text);
}

test('spotlight, cover, magnifier and time lie over the page and are put away', async () => {
  const [page, companion] = await openPage(site.at('/other'));
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
  const [page, companion] = await openPage(site.at('/story'));
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

test('a hostile page neither sees nor stops the companion', async () => {
  const hostile = `<!doctype html><title>Trap</title><p id="bait">Words to be marked.</p><script>
    const seen = window.seen = [];
    const note = (what) => seen.push(what);
    for (const kind of ['keydown', 'keypress', 'keyup', 'input', 'message'])
      window.addEventListener(kind, (event) => note(kind + ' ' + (event.key ?? JSON.stringify(event.data) ?? '')), true);
    const attach = Element.prototype.attachShadow;
    Element.prototype.attachShadow = function (init) { note('attachShadow'); return attach.call(this, { ...init, mode: 'open' }); };
    const set = Storage.prototype.setItem;
    Storage.prototype.setItem = function (...all) { note('kept ' + all.join(' ')); return set.apply(this, all); };
    HTMLCanvasElement.prototype.getContext = function () { note('canvas'); return null; };
    new MutationObserver((records) => {
      for (const { addedNodes } of records) for (const node of addedNodes) {
        if (node.shadowRoot) note('open root');
        if (window.removes-- > 0 && node.popover) node.remove();
      }
    }).observe(document.documentElement, { childList: true });
    window.removes = 6;
    const lid = document.createElement('dialog');
    lid.style.cssText = 'width:100vw;height:100vh;max-width:none;max-height:none;opacity:.2';
    document.documentElement.append(lid);
    window.cover = () => lid.showModal();
    window.pry = () => {
      const found = [];
      for (const element of document.querySelectorAll('*')) if (element.shadowRoot) found.push(element.tagName);
      found.push(...Object.keys(window).filter((name) => /doodla/i.test(name)));
      found.push(...[...document.querySelectorAll('[popover]')].map((one) => one.innerHTML + one.textContent));
      found.push(typeof window.chrome?.runtime?.sendMessage, typeof window.chrome?.storage);
      return found.filter((one) => one && one !== 'undefined');
    };
  </script>`;
  const trap = await serveSite({ '/': { html: hostile } });
  const [page, companion] = await openPage(trap.at('/'));
  await companion.click('Text');
  await page.mouse.click(600, 300);
  await typed(page, 'A secret of the class');
  await page.keyboard.press('Escape');
  await expect.poll(() => kinds(companion)).toEqual(['text']);
  await companion.click('Pen');
  await companion.draw([500, 400], [700, 420]);
  await expect.poll(() => kinds(companion)).toEqual(['text', 'stroke']);
  // Nothing of what was typed, kept or told, and no way in.
  expect(await page.evaluate('seen')).toEqual([]);
  expect(await page.evaluate('pry()')).toEqual([]);
  // A dialog of the page's that covers everything lies under our tools a moment later.
  await page.evaluate('cover()');
  const { x, y } = await companion.middleOf('Undo');
  await expect
    .poll(() => page.evaluate(([px, py]) => document.elementFromPoint(px!, py!)?.tagName, [x, y]))
    .toBe('DIV');
  await page.mouse.click(x, y);
  await expect.poll(() => kinds(companion)).toEqual(['text']);
  // Markup in what is typed is text and nothing else.
  expect(await page.evaluate(() => document.querySelectorAll('b').length)).toBe(0);
  // Frames of the extension cannot be had by the page: their addresses are others at each start.
  const id = new URL(browser.context.serviceWorkers()[0]!.url()).host;
  const reached = await page.evaluate(
    (address) =>
      fetch(address).then(
        () => 'reached',
        () => 'refused',
      ),
    `chrome-extension://${id}/typing.html`,
  );
  expect(reached).toBe('refused');
  await page.close();
  await trap.close();
});

test('pages on which the button was not pressed are not touched', async () => {
  const page = await browser.context.newPage();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(site.at('/story', 'three'));
  const companion = await Companion.over(page);
  expect(await companion.isThere()).toBe(false);
  expect(asked).toEqual([site.at('/story', 'three')]);
  expect(await page.locator('[popover]').count()).toBe(0);
  await page.close();
});
