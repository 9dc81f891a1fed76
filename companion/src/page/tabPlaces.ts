import type { Pane } from '@doodla/core';
import { MAX_PANES } from '@doodla/core';
import { addressOf } from '@doodla/core/glue';
import type { TabPlaces } from '../shared/messages';

/** Parts of a page that scroll by themselves and take less of the window than this are left to lie where they lie. */
const LEAST_SHARE = 0.05;
/** Places of the window at which is looked for parts that scroll, as shares of its sides. */
const SHARES = [0.1, 0.3, 0.5, 0.7, 0.9];

/** Knows the parts of a page that scroll, by numbers that stay theirs. */
export class ScrolledParts {
  private readonly numbers = new Map<Element, number>();

  /** Where the page's parts lie now: content of a part lies where it would if nothing was scrolled. */
  places(page: Document): TabPlaces {
    const { innerWidth: width, innerHeight: height, scrollX, scrollY } = page.defaultView!;
    const root: Pane = {
      id: 1,
      region: { x: 0, y: 0, width, height },
      place: { x: -scrollX, y: -scrollY, scale: 1 },
    };
    const own = this.find(page).map((part): Pane => {
      const { x, y } = part.getBoundingClientRect();
      const region = {
        x: x + part.clientLeft,
        y: y + part.clientTop,
        width: part.clientWidth,
        height: part.clientHeight,
      };
      const place = { x: -scrollX - part.scrollLeft, y: -scrollY - part.scrollTop, scale: 1 };
      return { id: this.numbers.get(part)!, region, place };
    });
    const panes = [root, ...own].slice(0, MAX_PANES);
    return {
      title: page.title,
      address: addressOf(page.location.href),
      width,
      height,
      panes,
      at: Date.now(),
    };
  }

  /** How far the content of a part has been scrolled within the page. */
  scrollOf(number: number): { x: number; y: number } {
    const [part] = [...this.numbers].find(([, own]) => own === number) ?? [];
    return { x: part?.scrollLeft ?? 0, y: part?.scrollTop ?? 0 };
  }

  private find(page: Document): Element[] {
    const { innerWidth, innerHeight } = page.defaultView!;
    for (const u of SHARES)
      for (const v of SHARES) {
        const part = scrollerAt(page, u * innerWidth, v * innerHeight);
        if (part && !this.numbers.has(part)) this.numbers.set(part, this.numbers.size + 2);
      }
    return [...this.numbers.keys()].filter(({ isConnected }) => isConnected);
  }
}

function scrollerAt(page: Document, x: number, y: number): Element | undefined {
  const { innerWidth, innerHeight } = page.defaultView!;
  for (let at = page.elementFromPoint(x, y); at && at !== page.body; at = at.parentElement) {
    const isLong = at.scrollHeight > at.clientHeight + 1 || at.scrollWidth > at.clientWidth + 1;
    if (!isLong || at === page.scrollingElement) continue;
    const { overflowX, overflowY } = page.defaultView!.getComputedStyle(at);
    const scrolls = /auto|scroll/.test(overflowX + overflowY);
    if (scrolls && at.clientWidth * at.clientHeight > LEAST_SHARE * innerWidth * innerHeight) return at;
  }
  return undefined;
}
