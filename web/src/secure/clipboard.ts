import { t } from '../words';
/** Puts text on the system's clipboard. Rejects with a sentence where the browser does not let us. */
export async function copyText(text: string): Promise<void> {
  if (window.isSecureContext && 'clipboard' in navigator) {
    try {
      return await navigator.clipboard.writeText(text);
    } catch {
      // Refused, for instance since the window is not in front; the old way may still be open.
    }
  }
  if (!copyBySelection(text)) throw new Error(t('secure.thisBrowserDoesNotLet'));
}

/** Whether a picture can be put on the system's clipboard. */
export function canCopyPictures(): boolean {
  return window.isSecureContext && 'clipboard' in navigator && typeof ClipboardItem === 'function';
}

/** Puts a PNG on the system's clipboard. Rejects with a sentence that says what to do instead. */
export async function copyPng(png: Blob | Promise<Blob>): Promise<void> {
  if (!canCopyPictures()) throw new Error(t('secure.picturesCanBeCopiedOnly'));
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]);
  } catch {
    throw new Error(t('secure.theBrowserDidNotLet'));
  }
}

/** The way that works without a secure context: an invisible field whose text is copied. */
function copyBySelection(text: string): boolean {
  const field = document.createElement('textarea');
  field.value = text;
  field.style.position = 'fixed';
  field.style.opacity = '0';
  const host = document.querySelector('[role=dialog]') ?? document.body;
  host.append(field);
  const before = document.activeElement;
  field.select();
  const done = document.execCommand('copy');
  field.remove();
  if (before instanceof HTMLElement) before.focus();
  return done;
}
