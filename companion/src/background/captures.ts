/** Browsers take two pictures of a window a second, and refuse more. */
const AGAIN_MS = 550;
const MOST_TRIES = 4;

/** A picture of what is in sight of a window, as the address of its data. Throws where none may be taken. */
export async function pictureOf(windowId: number, tries = 0): Promise<string> {
  try {
    return await chrome.tabs.captureVisibleTab(windowId, { format: 'png' });
  } catch (error) {
    const isTooOften = /MAX_CAPTURE|quota|exceeded/i.test(String(error));
    if (!isTooOften || tries >= MOST_TRIES) throw error;
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    return pictureOf(windowId, tries + 1);
  }
}
