import { isWritable } from '@doodla/core/glue';

/** Tabs that are written on, each with the origin for which the button was pressed, so that they are after a reload. */
const OPEN = 'openTabs';
const TRIES = 6;
const TRY_AGAIN_MS = 100;

async function openTabs(): Promise<Map<number, string>> {
  const { [OPEN]: tabs } = await chrome.storage.session.get<Record<string, [number, string][]>>(OPEN);
  return new Map(tabs ?? []);
}

/** Notes that a tab is written on at an origin; undefined where it is no longer. */
async function note(id: number, origin: string | undefined): Promise<void> {
  const tabs = await openTabs();
  if (origin === undefined) tabs.delete(id);
  else tabs.set(id, origin);
  await chrome.storage.session.set({ [OPEN]: [...tabs] });
}

/** The button was pressed: begins to write on a page, or ends. */
export async function toggle(tab: chrome.tabs.Tab): Promise<void> {
  const { id, url } = tab;
  if (id === undefined) return;
  if (url === undefined || !isWritable(url)) return sayCannot(id);
  try {
    const isOpen = (await openTabs()).has(id);
    if (isOpen && (await isThere(id))) {
      await chrome.tabs.sendMessage(id, { tell: 'toggle' }, { frameId: 0 });
      return await note(id, undefined);
    }
    await putOver(id);
    await note(id, new URL(url).origin);
    await chrome.action.setBadgeText({ tabId: id, text: '' });
  } catch {
    // The browser keeps some pages for itself, such as its own store and settings.
    await sayCannot(id);
  }
}

/** A page was loaded: goes on writing on it, as far as the browser still lets us. */
export async function reopen(id: number): Promise<void> {
  const origin = (await openTabs()).get(id);
  if (origin === undefined) return;
  try {
    // Of a place for which nobody has pressed the button, browsers say no address, or one that is another.
    const { url } = await chrome.tabs.get(id);
    if (url === undefined || new URL(url).origin !== origin) return await note(id, undefined);
    if (!(await isThere(id))) await putOver(id);
  } catch {
    // The tab is gone.
    await note(id, undefined);
  }
}

/** Whether the companion is over a page and shown. */
async function isThere(id: number): Promise<boolean> {
  const [answer] = await inject({
    target: { tabId: id },
    func: () => 'doodlaCompanion' in globalThis,
  });
  return answer?.result === true;
}

async function putOver(id: number): Promise<void> {
  if (await isThere(id)) return void (await chrome.tabs.sendMessage(id, { tell: 'toggle' }, { frameId: 0 }));
  const language = chrome.i18n.getUILanguage().startsWith('de') ? 'de' : 'en';
  const files = [`words.${language}.js`, 'page.js'];
  await inject({ target: { tabId: id }, files });
}

/** Runs something in a tab; tries again for a moment what browsers refuse: just after a page came, they do so although the button was pressed. */
async function inject<Args extends unknown[], Result>(
  injection: chrome.scripting.ScriptInjection<Args, Result>,
  tries = TRIES,
): Promise<chrome.scripting.InjectionResult<Awaited<Result>>[]> {
  try {
    return await chrome.scripting.executeScript(injection);
  } catch (error) {
    if (tries === 1) throw error;
    await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
    return inject(injection, tries - 1);
  }
}

const sayCannot = (id: number): Promise<void> => sayAtButton(id, chrome.i18n.getMessage('cannotWrite'));

/** Marks the button of a tab with a sign, whose words are seen where the pointer rests on it. */
export async function sayAtButton(tabId: number, title: string): Promise<void> {
  await chrome.action.setBadgeBackgroundColor({ tabId, color: '#a3281b' });
  await chrome.action.setBadgeText({ tabId, text: '!' });
  await chrome.action.setTitle({ tabId, title });
}
