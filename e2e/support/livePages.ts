import type { Page } from '@playwright/test';
import { expect, test } from '@playwright/test';
import type { CompanionBrowser } from './companion';
import { browserWithCompanion, Companion } from './companion';
import type { Site } from './sites';
import { DOCUMENTATION, serveSite } from './sites';

/** What a careful site lets a page do: nothing from elsewhere, no frames, no styles or fonts by address. */
const STRICT = "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'";
export const SENTENCES = [
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

/** A browser with the companion, and the pages on which it is tried; as long as the tests of a file run. */
export function livePages(): {
  readonly browser: CompanionBrowser;
  readonly site: Site;
  open(path: string, name?: string): Promise<[Page, Companion]>;
} {
  let browser: CompanionBrowser;
  let site: Site;
  test.beforeAll(async () => {
    browser = await browserWithCompanion();
    site = await serveLivePages();
  });
  test.afterAll(async () => {
    await browser.close();
    await site.close();
  });
  return {
    get browser() {
      return browser;
    },
    get site() {
      return site;
    },
    async open(path, name) {
      const page = await browser.context.newPage();
      await page.goto(path.startsWith('http') ? path : site.at(path, name));
      const companion = await Companion.over(page);
      await companion.open();
      return [page, companion];
    },
  };
}

async function serveLivePages(): Promise<Site> {
  const strict = { 'content-security-policy': STRICT };
  const site: Site = await serveSite(
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
  return site;
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where words of an element stand in the window. */
export function boxOf(page: Page, selector: string, words: string): Promise<Box> {
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

export const middle = ({ x, y, width, height }: Box): [number, number] => [x + width / 2, y + height / 2];

/** Waits until marked words lie where the page has them. */
export async function expectOn(
  companion: Companion,
  page: Page,
  mark: number,
  selector: string,
  words: string,
) {
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

export async function highlight(companion: Companion, page: Page, selector: string, from: string, to = from) {
  await companion.click('Highlighter');
  const [start, end] = [await boxOf(page, selector, from), await boxOf(page, selector, to)];
  await companion.draw([start.x + 2, middle(start)[1]], [end.x + end.width - 2, middle(end)[1]]);
}

/** Takes all marks off the page. */
export async function wipe(companion: Companion): Promise<void> {
  await companion.click('Wipe');
  await companion.click('Wipe it all off');
  await companion.waitUntil('tab.log.all().length === 0');
}

export const kinds = async (companion: Companion) => (await companion.marks()).map(({ kind }) => kind);

/** Types into the frame that has come. */
export async function typed(page: Page, text: string): Promise<void> {
  const isTyping = () => page.frames().find((frame) => frame.url().includes('typing.html'));
  await expect.poll(() => isTyping() !== undefined).toBe(true);
  await isTyping()!.waitForFunction(() => document.activeElement?.id === 'text');
  await page.keyboard.type(text);
}
