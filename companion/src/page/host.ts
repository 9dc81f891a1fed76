import glassCss from './glass.css?inline';
import hostCss from './host.css?inline';

/** A page that takes the glass away again and again gets its way. */
const MOST_RETURNS = 20;

/** An element of ours in the page's top layer; its shadow root is closed, so the page's scripts see nothing of what is in it. */
interface Layer {
  element: HTMLElement;
  root: HTMLElement;
}

/**
 * What everything of ours lies in: over the page, in its top layer, so that the page's styles do not reach in and nothing of it lies
 * over ours. What lets the page show through lies in a layer of its own, which is blended with the page as a whole.
 */
export class Host {
  private readonly tint = layer('tint');
  private readonly glass = layer('glass');
  private readonly watch: MutationObserver;
  private returns = 0;
  /** What of the page lies in the top layer, under us. */
  private under = new Set<Element>();
  /** Called when the page does not let anything lie over it. */
  onTakenAway: () => void = () => undefined;

  constructor() {
    keepToOurselves(this.glass.root);
    this.lay();
    this.watch = new MutationObserver(() => this.comeBack());
    this.watch.observe(document, { childList: true });
    this.watch.observe(document.documentElement, { childList: true });
    for (const { element } of this.layers) {
      this.watch.observe(element, { attributes: true });
      element.addEventListener('toggle', () => this.comeBack());
    }
  }

  /** Where all is put that lies over the page. */
  get root(): HTMLElement {
    return this.glass.root;
  }

  /** What of ours has the keys; undefined where the page has them. */
  get focused(): Element | undefined {
    return (this.root.getRootNode() as ShadowRoot).activeElement ?? undefined;
  }

  /** What of the page's document is ours. */
  get elements(): readonly Element[] {
    return this.layers.map(({ element }) => element);
  }

  /** Where is put what the page shows through. */
  get tintRoot(): HTMLElement {
    return this.tint.root;
  }

  /** Whether what is under us is dark: then what lets it show through is laid on plainly, since nothing makes dark darker. */
  setDark(isDark: boolean): void {
    blending.replaceSync(isDark ? '' : BLENDED);
  }

  /** Looks at the page as if nothing lay over it. */
  aside<T>(look: () => T): T {
    this.root.classList.add('aside');
    try {
      return look();
    } finally {
      this.root.classList.remove('aside');
    }
  }

  /** Makes everything of ours invisible, or all but the ink, for as long as something takes, such as a picture of the page. */
  async away<T>(during: () => Promise<T>, withInk = false): Promise<T> {
    for (const { root } of this.layers) {
      root.classList.add('away');
      root.classList.toggle('inked', withInk);
    }
    await painted();
    try {
      return await during();
    } finally {
      for (const { root } of this.layers) root.classList.remove('away');
    }
  }

  /** Lies above what the page has put on top meanwhile, such as a dialog of its own. */
  rise(): void {
    const own = new Set<Element>(this.layers.map(({ element }) => element));
    const open = [...document.querySelectorAll(':modal, :popover-open, :fullscreen')];
    const isCovered = open.some((other) => !own.has(other) && !this.under.has(other));
    this.under = new Set(open);
    if (isCovered || !this.isThere()) this.lay();
  }

  remove(): void {
    this.watch.disconnect();
    for (const { element } of this.layers) element.remove();
  }

  private get layers(): readonly Layer[] {
    return [this.tint, this.glass];
  }

  private lay(): void {
    const parent = parentNow();
    for (const { element } of this.layers) {
      element.popover = 'manual';
      if (element.parentElement !== parent) parent.append(element);
      if (element.matches(':popover-open')) element.hidePopover();
      element.showPopover();
    }
  }

  private isThere(): boolean {
    const parent = parentNow();
    return this.layers.every(
      ({ element }) => element.parentElement === parent && element.matches(':popover-open'),
    );
  }

  private comeBack(): void {
    if (this.isThere()) return;
    this.returns += 1;
    if (this.returns > MOST_RETURNS) {
      this.watch.disconnect();
      this.onTakenAway();
    } else this.lay();
  }
}

function layer(name: 'tint' | 'glass'): Layer {
  const element = document.createElement('div');
  const shadow = element.attachShadow({ mode: 'closed' });
  shadow.adoptedStyleSheets = [sheetOf(hostCss), name === 'glass' ? sheetOf(glassCss) : blending];
  const root = document.createElement('div');
  root.className = name;
  shadow.append(root);
  return { element, root };
}

/** Blended as a whole: inside of it there is nothing of the page to be blended with. */
const BLENDED = ':host { mix-blend-mode: multiply !important; }';
const blending = sheetOf(BLENDED);

function sheetOf(css: string): CSSStyleSheet {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(css);
  return sheet;
}

/** While a dialog of the page is modal, all outside of it is inert (HTML §6.6.3); then we have to lie in it. */
function parentNow(): Element {
  return [...document.querySelectorAll(':modal')].at(-1) ?? document.documentElement;
}

/** What happens on our tools is not the page's business. */
function keepToOurselves(root: HTMLElement): void {
  const parts = ['pointer', 'mouse'].flatMap((of) =>
    ['down', 'up', 'move', 'over', 'out'].map((what) => of + what),
  );
  for (const kind of [...HAND_AND_KEYS, ...parts])
    root.addEventListener(kind, (event) => event.stopPropagation(), { passive: true });
}

const HAND_AND_KEYS = [
  ...['click', 'dblclick', 'auxclick', 'contextmenu', 'wheel', 'input', 'change', 'focusin', 'focusout'],
  ...['touchstart', 'touchmove', 'touchend', 'touchcancel', 'keydown', 'keyup', 'keypress', 'beforeinput'],
];

/** Resolves when what was changed has been shown. */
export function painted(): Promise<void> {
  return new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve())));
}
