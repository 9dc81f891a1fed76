import { PenCase } from '@web/desk/penCase';

const KEY = 'penCase';

/** The pens of this browser, kept by the extension: a page's own store is the page's to read. */
export async function openPenCase(): Promise<PenCase> {
  const { [KEY]: kept } = await chrome.storage.local.get<Record<string, string>>(KEY);
  return new PenCase(KEY, undefined, {
    getItem: () => kept ?? null,
    // Pens that could not be kept are in hand all the same.
    setItem: (key, state) => void chrome.storage.local.set({ [key]: state }).catch(() => undefined),
  });
}
