import { expect, test } from '@playwright/test';
import type { CompanionBrowser } from '../support/companion';
import { Companion, pressButton } from '../support/companion';
import { kinds, livePages, typed } from '../support/livePages';
import { serveSite } from '../support/sites';

const live = livePages();

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
  const [page, companion] = await live.open(trap.at('/'));
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
  const id = new URL(live.browser.context.serviceWorkers()[0]!.url()).host;
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
  const page = await live.browser.context.newPage();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(live.site.at('/story', 'three'));
  const companion = await Companion.over(page);
  expect(await companion.isThere()).toBe(false);
  expect(asked).toEqual([live.site.at('/story', 'three')]);
  expect(await page.locator('[popover]').count()).toBe(0);
  await page.close();
});
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
  const page = await live.browser.context.newPage();
  await page.goto(live.site.at('/barred', 'three'));
  await pressButton(page);
  await expect.poll(() => titleOfButton(live.browser)).toContain('does not let anything lie over it');
  await page.close();
});
