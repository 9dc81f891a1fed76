import type { Rect } from '@doodla/core';

/** What is dragged further than this from every edge lies on the page because somebody wants it there, CSS pixels. */
const AT_EDGE = 24;

/** The bars that lie over a window: those marked with `data-bar`, as they come, go and change their size. */
export class Bars {
  private readonly mutations: MutationObserver;
  private readonly sizes: ResizeObserver;
  private readonly root: Element;
  private known: readonly Element[] = [];

  constructor(
    private readonly host: HTMLElement,
    onChange: () => void,
  ) {
    this.root = host.closest('[data-view]') ?? host;
    this.sizes = new ResizeObserver(onChange);
    this.mutations = new MutationObserver(() => {
      if (this.find()) onChange();
    });
    this.mutations.observe(this.root, { childList: true, subtree: true });
    this.find();
  }

  /** Where they are in the window, CSS pixels. */
  rects(): Rect[] {
    const box = this.host.getBoundingClientRect();
    return this.known.flatMap((bar) => {
      const { left, top, right, bottom, width, height } = bar.getBoundingClientRect();
      const isOver = left < box.right && right > box.left && top < box.bottom && bottom > box.top;
      const distance = Math.min(left - box.left, box.right - right, top - box.top, box.bottom - bottom);
      if (width === 0 || !isOver || (bar.getAttribute('data-bar') === 'tools' && distance > AT_EDGE))
        return [];
      return [{ x: left - box.left, y: top - box.top, width, height }];
    });
  }

  stop(): void {
    this.mutations.disconnect();
    this.sizes.disconnect();
  }

  /** Looks for bars. Returns whether they are others than before. */
  private find(): boolean {
    const found = [...this.root.querySelectorAll('[data-bar]')];
    if (found.length === this.known.length && found.every((bar, i) => bar === this.known[i])) return false;
    for (const gone of this.known) if (!found.includes(gone)) this.sizes.unobserve(gone);
    for (const bar of found) if (!this.known.includes(bar)) this.sizes.observe(bar);
    this.known = found;
    return true;
  }
}
