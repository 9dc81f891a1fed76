import { beforeEach, expect, it, vi } from 'vitest';
import { reopen, toggle } from '../src/background/tabs';

const ID = 7;
const PAGE = 'https://docs.example/bridges';
const REFUSED = new Error('Cannot access contents of the page.');

/** A browser with one tab, as far as it is used. */
class FakeBrowser {
  refusals = 0;
  isThere = false;
  isShown = false;
  url: string | undefined = PAGE;
  badge = '';
  private kept: Record<string, unknown> = {};

  readonly chrome = {
    storage: {
      session: {
        get: () => Promise.resolve(this.kept),
        set: (values: Record<string, unknown>) => Promise.resolve(void (this.kept = values)),
      },
    },
    tabs: {
      get: () => Promise.resolve({ id: ID, url: this.url }),
      sendMessage: () => Promise.resolve(void (this.isShown = !this.isShown)),
    },
    scripting: { executeScript: (injection: { files?: string[] }) => this.execute(injection) },
    action: {
      setBadgeText: ({ text }: { text: string }) => Promise.resolve(void (this.badge = text)),
      setBadgeBackgroundColor: () => Promise.resolve(),
      setTitle: () => Promise.resolve(),
    },
    i18n: { getUILanguage: () => 'en', getMessage: (name: string) => name },
  };

  /** A page that is loaded has nothing of ours on it. */
  load(): Promise<void> {
    this.isThere = this.isShown = false;
    return reopen(ID);
  }

  press = () => toggle({ id: ID, url: this.url } as chrome.tabs.Tab);

  private execute({ files }: { files?: string[] }) {
    if (this.refusals-- > 0) return Promise.reject(REFUSED);
    if (files && !this.isThere) this.isThere = this.isShown = true;
    return Promise.resolve([{ result: this.isThere }]);
  }
}

let browser: FakeBrowser;

beforeEach(() => {
  browser = new FakeBrowser();
  vi.stubGlobal('chrome', browser.chrome);
  return () => vi.unstubAllGlobals();
});

it('begins, ends and begins again as the button is pressed', async () => {
  const shown = [];
  for (let n = 0; n < 3; n++) {
    await browser.press();
    shown.push(browser.isShown);
  }
  expect(shown).toEqual([true, false, true]);
});

it('begins although the browser refuses for a moment', async () => {
  browser.refusals = 3;
  await browser.press();
  expect(browser).toMatchObject({ isShown: true, badge: '' });
  browser.refusals = 2;
  await browser.load();
  expect(browser.isShown).toBe(true);
});

it('says at the button where the browser refuses for good', async () => {
  browser.refusals = Infinity;
  await browser.press();
  expect(browser).toMatchObject({ isShown: false, badge: '!' });
});

it('goes on after a reload at the same place, nowhere else, and not where it was ended', async () => {
  await browser.press();
  await browser.load();
  expect(browser.isShown).toBe(true);
  browser.url = 'https://elsewhere.example/';
  await browser.load();
  expect(browser.isShown).toBe(false);
  browser.url = PAGE;
  await browser.press();
  await browser.press();
  await browser.load();
  expect(browser.isShown).toBe(false);
});

it('leaves alone what is no page of the web', async () => {
  browser.url = 'about:blank';
  await browser.press();
  expect(browser).toMatchObject({ isThere: false, badge: '!' });
});
