import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';

const CONTROLS =
  'button, a[href], input, select, textarea, [role=button], [role=slider], [role=switch], [role=menuitem], [role=radio]';

/** So long may bars and sheets take until they lie still; milliseconds. */
const SETTLED = 60_000;

/** What is wrong with the controls that are shown: each has to lie inside the window and be what is hit there. */
export function faults(page: Page): Promise<string[]> {
  return page.evaluate((selector) => {
    const visible = (element: Element) => {
      const { width, height } = element.getBoundingClientRect();
      // One pixel is for screen readers alone.
      return (
        width > 2 &&
        height > 2 &&
        element.checkVisibility({ opacityProperty: true, visibilityProperty: true })
      );
    };
    const scrolls = (element: Element) => {
      if (document.documentElement.scrollHeight > innerHeight) return true;
      for (let at = element.parentElement; at; at = at.parentElement) {
        const { overflowY } = getComputedStyle(at);
        if (at !== document.body && /auto|scroll/.test(overflowY) && at.scrollHeight > at.clientHeight)
          return true;
      }
      return false;
    };
    const nameOf = (element: Element) =>
      element.getAttribute('aria-label') ?? element.textContent?.trim().slice(0, 40) ?? element.tagName;
    const wrong: string[] = [];
    // While something is open in front of the rest, only that can be reached.
    const layers = [...document.querySelectorAll('[role=dialog], [role=menu]')].filter(visible);
    const root = layers.at(-1) ?? document.body;
    for (const control of root.querySelectorAll(selector)) {
      if (!visible(control)) continue;
      const isScrolled = scrolls(control);
      if (isScrolled) control.scrollIntoView({ block: 'center', inline: 'center' });
      const { left, top, right, bottom, width, height } = control.getBoundingClientRect();
      const isOutAcross = left < -1 || right > innerWidth + 1;
      // What is higher than the window is seen by scrolling.
      const isOutDown = (top < -1 || bottom > innerHeight + 1) && !(isScrolled && height > innerHeight);
      if (isOutAcross || isOutDown) {
        wrong.push(`${nameOf(control)}: reaches out of the window`);
        continue;
      }
      const hit = document.elementFromPoint(left + width / 2, top + height / 2);
      const label = control.closest('label');
      const isIt = hit && (control.contains(hit) || hit.contains(control) || label?.contains(hit));
      if (!isIt) wrong.push(`${nameOf(control)}: is covered by ${hit ? nameOf(hit) : 'nothing'}`);
    }
    return wrong;
  }, CONTROLS);
}

/** Waits until every control that is shown lies inside the window and can be hit. */
export async function expectReachable(page: Page): Promise<void> {
  await expect.poll(() => faults(page), { timeout: SETTLED }).toEqual([]);
}
