import { documentsIn } from './surroundings';

/** What may have moved what marks belong to. */
export interface LayoutChange {
  /** Only what this scrolls has moved; all may have where it is left out. */
  scroller?: Element | Document;
  /** Whether there may be other content. */
  content?: boolean;
  /** Whether the window or a page has another size, as after enlarging. */
  size?: boolean;
  /** Whether nothing says that anything has moved: what is in sight is looked at all the same. */
  idle?: boolean;
}

/** So often it is looked, where nothing said so, whether things have moved: animations, other programs' scripts. */
const LOOK_MS = 500;

/** Hears of everything after which things may lie elsewhere on a page and in its frames. */
export class LayoutWatch {
  private readonly abort = new AbortController();
  private readonly watched = new WeakSet<Document>();
  private readonly mutations: MutationObserver;
  private readonly sizes: ResizeObserver;
  private readonly timer: ReturnType<typeof setInterval>;

  constructor(
    private readonly top: Document,
    private readonly onChange: (change: LayoutChange) => void,
  ) {
    this.mutations = new MutationObserver((records) => {
      onChange({ content: records.some(({ type }) => type !== 'attributes') });
    });
    this.sizes = new ResizeObserver(() => onChange({ size: true }));
    const { signal } = this.abort;
    window.addEventListener('resize', () => onChange({ size: true }), { signal });
    window.visualViewport?.addEventListener('resize', () => onChange({ size: true }), { signal });
    this.timer = setInterval(() => onChange({ idle: true }), LOOK_MS);
    this.lookForFrames();
  }

  stop(): void {
    this.abort.abort();
    this.mutations.disconnect();
    this.sizes.disconnect();
    clearInterval(this.timer);
  }

  /** Watches what has come into frames since. */
  lookForFrames(): void {
    for (const document of documentsIn(this.top)) if (!this.watched.has(document)) this.watch(document);
  }

  private watch(document: Document): void {
    this.watched.add(document);
    const options = { signal: this.abort.signal, capture: true, passive: true };
    document.addEventListener('scroll', ({ target }) => this.scrolled(target, document), options);
    for (const moved of ['load', 'transitionend', 'animationend', 'toggle'])
      document.addEventListener(moved, () => this.onChange({ content: moved === 'load' }), options);
    this.mutations.observe(document.documentElement, {
      childList: true,
      characterData: true,
      attributes: true,
      subtree: true,
    });
    this.sizes.observe(document.documentElement);
  }

  private scrolled(target: EventTarget | null, document: Document): void {
    const isPage = target === this.top || target === this.top.scrollingElement;
    const scroller = target === document.scrollingElement ? document : (target as Element | Document);
    this.onChange({ scroller: isPage ? this.top : scroller });
  }
}
