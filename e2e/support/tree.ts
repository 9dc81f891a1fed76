import type { CDPSession, Page } from '@playwright/test';
import { expect } from '@playwright/test';

interface TreeNode {
  ignored: boolean;
  role?: { value: string };
  name?: { value: string };
  properties?: { name: string; value: { value: unknown } }[];
}

/** More stops than any screen has. */
const MOST_STOPS = 150;

/**
 * Somebody who has only the keys, and for whom the accessibility tree is all there is to know where they are: what has
 * the focus is asked of the browser's own tree, never of the page.
 */
export class KeysOnly {
  private constructor(
    readonly page: Page,
    private readonly cdp: CDPSession,
  ) {}

  static async at(page: Page): Promise<KeysOnly> {
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Accessibility.enable');
    return new KeysOnly(page, cdp);
  }

  /** Role and name of what has the focus. */
  async focused(): Promise<{ role: string; name: string }> {
    const { nodes } = (await this.cdp.send('Accessibility.getFullAXTree')) as unknown as {
      nodes: TreeNode[];
    };
    const found = nodes.filter(
      ({ ignored, properties }) =>
        !ignored && properties?.some(({ name, value }) => name === 'focused' && value.value === true),
    );
    const { role, name } = found.at(-1) ?? {};
    return { role: role?.value ?? '', name: name?.value ?? '' };
  }

  /** Goes on with the Tab key until something of that role and name has the focus. */
  async tabTo(role: string, name: RegExp, back = false): Promise<void> {
    const seen: string[] = [];
    for (let i = 0; i < MOST_STOPS; i++) {
      const at = await this.focused();
      if (at.role === role && name.test(at.name)) return;
      seen.push(`${at.role} ${at.name}`);
      await this.page.keyboard.press(back ? 'Shift+Tab' : 'Tab');
    }
    throw new Error(`no ${role} ${String(name)} among ${[...new Set(seen)].join(' · ')}`);
  }

  async press(name: RegExp, role = 'button'): Promise<void> {
    await this.tabTo(role, name);
    await this.page.keyboard.press('Enter');
  }

  /** What the tree says of live regions, headings and texts: everything that is read out. */
  async hears(text: RegExp): Promise<void> {
    await expect
      .poll(async () => {
        const { nodes } = (await this.cdp.send('Accessibility.getFullAXTree')) as unknown as {
          nodes: TreeNode[];
        };
        return nodes.some(({ ignored, name }) => !ignored && text.test(name?.value ?? ''));
      })
      .toBe(true);
  }
}
