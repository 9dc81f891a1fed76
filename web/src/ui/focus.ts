/** What is in front of the page for a while. */
const PASSING = '[role=dialog], [role=menu], [role=alertdialog]';

/** What last had the focus and was not in front of the page for a while only, like a menu. */
let last: HTMLElement | undefined;

document.addEventListener('focusin', ({ target }) => {
  if (target instanceof HTMLElement && !target.closest(PASSING)) last = target;
});

/** Whether the last control was gone to by the keyboard: one that was clicked keeps the focus without being meant by keys. */
let byKey = false;

document.addEventListener('pointerdown', () => (byKey = false), { capture: true });
document.addEventListener('keydown', ({ key }) => (byKey ||= key === 'Tab'), { capture: true });

export function isFocusByKey(): boolean {
  return byKey;
}

/** What has the focus now and should have it again; to be asked for before something opens. */
export function focusNow(): HTMLElement | undefined {
  const { activeElement: active } = document;
  return active instanceof HTMLElement && active !== document.body ? active : last;
}

/** Gives the focus back to where it was; where that is gone, as an item of a menu is, to what last had it before. */
export function giveFocusBack(to: HTMLElement | undefined): void {
  const wanted = [to, last].find((element) => element?.isConnected && !element.closest('[role=menu]'));
  wanted?.focus();
}

/**
 * For a panel that has closed: it gives the focus back a moment later, and on a busy machine somebody may have gone on to something
 * else by then, such as typing. There it stays.
 */
export function keepNewFocus(event: Event): void {
  if (document.activeElement !== document.body) event.preventDefault();
}
