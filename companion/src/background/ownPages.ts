import type { Pictured } from '../shared/messages';

const WINDOW = 'classWindow';
const SIZE = { width: 460, height: 760 };
/** Pictures that wait for the tab that shows them. */
const waiting = new Map<string, Pictured>();

/** Opens the page from which a tab is brought into a class, in a small window beside it; there is one at most. */
export async function openClassPage(tab: number): Promise<void> {
  const url = chrome.runtime.getURL(`pages/class.html#tab=${tab}`);
  const { [WINDOW]: known } = await chrome.storage.session.get<Record<string, number>>(WINDOW);
  // The one of before belongs to another tab, or was closed already.
  if (known !== undefined) await chrome.windows.remove(known).catch(() => undefined);
  const opened = await chrome.windows.create({ url, type: 'popup', ...SIZE });
  await chrome.storage.session.set({ [WINDOW]: opened?.id });
}

/** Opens a picture in a tab beside the one that it is of. */
export async function openPicture(pictured: Pictured, tab: chrome.tabs.Tab): Promise<void> {
  const id = crypto.randomUUID();
  waiting.set(id, pictured);
  const { windowId, index } = tab;
  await chrome.tabs.create({
    url: chrome.runtime.getURL(`pages/picture.html#${id}`),
    windowId,
    index: index + 1,
  });
}

/** A picture that waits; given once. */
export function picturedAs(id: string): Pictured | undefined {
  const pictured = waiting.get(id);
  waiting.delete(id);
  return pictured;
}
