/** Browsers take two pictures of a window a second, and refuse more. */
const AGAIN_MS = 550;
const MOST_TRIES = 4;

/**
 * A picture of what is in sight of a tab, as the address of its data. Throws where none may be taken: browsers picture whatever is
 * in front, so a tab behind another one is refused.
 */
export async function pictureOf(tab: chrome.tabs.Tab, tries = 0): Promise<string> {
  const { active, windowId } = await chrome.tabs.get(tab.id!);
  if (!active) throw new Error('another tab is in front');
  try {
    return await chrome.tabs.captureVisibleTab(windowId, { format: 'png' });
  } catch (error) {
    const isTooOften = /MAX_CAPTURE|quota|exceeded/i.test(String(error));
    if (!isTooOften || tries >= MOST_TRIES) throw error;
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    return pictureOf(tab, tries + 1);
  }
}
