import type { BrowserContext, CDPSession, Page } from '@playwright/test';
import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const UNPACKED = fileURLToPath(new URL('../../companion/dist/chromium', import.meta.url));

/** A browser with the companion in it. */
export interface CompanionBrowser {
  context: BrowserContext;
  close(): Promise<void>;
}

/** Starts a browser with the unpacked companion, as it is built for schools. */
export async function browserWithCompanion(
  options: { folder?: string; args?: readonly string[] } = {},
): Promise<CompanionBrowser> {
  const profile = mkdtempSync(join(tmpdir(), 'companion-'));
  const folder = options.folder ?? UNPACKED;
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    viewport: { width: 1280, height: 800 },
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--host-resolver-rules=MAP doodla.test 127.0.0.1, MAP *.page.test 127.0.0.1',
      `--disable-extensions-except=${folder}`,
      `--load-extension=${folder}`,
      // Lets a test press the extension's button, so that it has the rights that a press gives, and no others.
      '--enable-unsafe-extension-debugging',
      ...(options.args ?? []),
    ],
  });
  return {
    context,
    async close() {
      await context.close();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}

/** The id under which the browser runs the extension. */
export async function extensionId(context: BrowserContext): Promise<string> {
  const worker = context.serviceWorkers()[0] ?? (await context.waitForEvent('serviceworker'));
  return new URL(worker.url()).host;
}

/** Presses the companion's button while a page is in front. */
export async function pressButton(page: Page): Promise<void> {
  const context = page.context();
  const id = await extensionId(context);
  const session = await context.browser()!.newBrowserCDPSession();
  const own = await context.newCDPSession(page);
  const { targetInfo } = (await own.send('Target.getTargetInfo')) as { targetInfo: { targetId: string } };
  // The browser says of a tab a moment later what its page is called.
  let targetId: string | undefined;
  await expectSoon(async () => {
    targetId = await tabOf(session, targetInfo.targetId);
    return targetId !== undefined;
  }, 'the tab of the page');
  await session.send('Extensions.triggerAction', { id, targetId: targetId! });
  await session.detach();
  await own.detach();
}

/** The tab that shows a page: it has the page's address and title. */
async function tabOf(session: CDPSession, page: string): Promise<string | undefined> {
  const { targetInfos } = await session.send('Target.getTargets', {
    filter: [{ type: 'page' }, { type: 'tab' }],
  });
  const found = targetInfos.find(({ targetId }) => targetId === page);
  const tabs = targetInfos.filter(
    ({ type, url, title }) => type === 'tab' && url === found?.url && title === found.title,
  );
  return tabs.length === 1 ? tabs[0]!.targetId : undefined;
}

/** What lies over a page: its shadow root is closed and its scripts have a world of their own, into which tests look as the browser does. */
export class Companion {
  private constructor(
    readonly page: Page,
    private readonly session: CDPSession,
    /** The extension's worlds in the page itself, not in its frames. */
    private readonly worlds: Set<number>,
  ) {}

  static async over(page: Page): Promise<Companion> {
    const session = await page.context().newCDPSession(page);
    const worlds = new Set<number>();
    const { frameTree } = await session.send('Page.getFrameTree');
    session.on('Runtime.executionContextCreated', ({ context: { id, origin, auxData } }) => {
      const { frameId } = auxData as { frameId: string };
      if (origin.startsWith('chrome-extension://') && frameId === frameTree.frame.id) worlds.add(id);
    });
    session.on('Runtime.executionContextDestroyed', ({ executionContextId }) =>
      worlds.delete(executionContextId),
    );
    session.on('Runtime.executionContextsCleared', () => worlds.clear());
    await session.send('Runtime.enable');
    return new Companion(page, session, worlds);
  }

  /** Presses the button and waits until the tools are there. */
  async open(): Promise<void> {
    await pressButton(this.page);
    await this.waitUntil(`tab !== undefined && find('[role="toolbar"]') !== null`);
  }

  /** The value of an expression in the extension's world: `tab`, `root` (of all that is ours), `find` and `named` are known. */
  async look<T>(expression: string): Promise<T> {
    const id = [...this.worlds].at(-1);
    if (id === undefined) throw new Error('the companion is not on this page');
    const { result, exceptionDetails } = await this.session.send('Runtime.evaluate', {
      contextId: id,
      expression: `(() => {
        const tab = globalThis.doodlaCompanion?.tab;
        const root = tab?.host.root;
        const find = (css) => root?.querySelector(css) ?? null;
        const named = (name) => [...(root?.querySelectorAll('button, [role], iframe, input') ?? [])].find((one) =>
          (one.getAttribute('aria-label') ?? one.title ?? '') === name || one.textContent.trim() === name || one.title === name) ?? null;
        const boxOf = (one) => { const { x, y, width, height } = one.getBoundingClientRect(); return { x, y, width, height }; };
        return (${expression});
      })()`,
      returnByValue: true,
      awaitPromise: true,
    });
    if (exceptionDetails) throw new Error(exceptionDetails.exception?.description ?? exceptionDetails.text);
    return result.value as T;
  }

  /** Whether the companion lies over the page. */
  isThere(): Promise<boolean> {
    // Where it never was there is no place to look into.
    return this.look<boolean>('tab !== undefined').catch(() => false);
  }

  /** Waits until an expression of `look` is true. */
  async waitUntil(expression: string): Promise<void> {
    await expectSoon(() => this.look<boolean>(`Boolean(${expression})`).catch(() => false), expression);
  }

  /** Clicks on something of ours, by its name. */
  async click(name: string): Promise<void> {
    const { x, y } = await this.middleOf(name);
    await this.page.mouse.click(x, y);
  }

  async middleOf(name: string): Promise<{ x: number; y: number }> {
    // While a picture is taken, all of ours is out of sight for a moment.
    await this.waitUntil(`named(${JSON.stringify(name)}) && !root.classList.contains('away')`);
    await this.look(`named(${JSON.stringify(name)}).scrollIntoView({ block: 'nearest' })`);
    const { x, y, width, height } = await this.look<{ x: number; y: number; width: number; height: number }>(
      `boxOf(named(${JSON.stringify(name)}))`,
    );
    return { x: x + width / 2, y: y + height / 2 };
  }

  /** Draws from place to place of the window with the mouse. */
  async draw(...places: readonly (readonly [number, number])[]): Promise<void> {
    const [first, ...rest] = places;
    const { mouse } = this.page;
    await mouse.move(...(first as [number, number]));
    await mouse.down();
    for (const [x, y] of rest) await mouse.move(x, y, { steps: 8 });
    await mouse.up();
  }

  /** The marks on the page as they lie now, and what they are glued to. */
  marks(): Promise<ShownMark[]> {
    return this.look(`tab.log.all().map((one) => ({
      kind: one.glued.mark.kind,
      to: one.glued.glue.to,
      words: one.glued.glue.quote?.exact,
      exact: one.glued.mark.exact,
      text: one.glued.mark.text,
      isThere: one.matrix !== undefined,
      shown: one.shown,
    }))`);
  }
}

export interface ShownMark {
  kind: string;
  to: 'words' | 'element' | 'page';
  words?: string;
  exact?: string;
  text?: string;
  isThere: boolean;
  shown?: Record<string, unknown> & { points?: number[]; rects?: number[]; x?: number; y?: number };
}

/** How often it is looked, milliseconds. */
const LOOK_MS = 50;
const PATIENCE_MS = process.env.LOOK ? 10_000 : 60_000;

async function expectSoon(check: () => Promise<boolean>, what: string): Promise<void> {
  const until = Date.now() + PATIENCE_MS;
  while (!(await check())) {
    if (Date.now() > until) throw new Error(`never came: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}
