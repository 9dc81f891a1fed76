import type { Rect } from '@doodla/core';
import { frameOf, onPage } from './surroundings';

/** What moves an element of the page beside the page's own scrolling. */
export interface Moved {
  /** Elements and frames' documents that scroll it, the nearest first. */
  scrollers: readonly (Element | Document)[];
  /** Whether it stays in the window, or sticks to its edge, while the page scrolls. */
  stays: boolean;
}

/** What moves an element: parts of the page that scroll by themselves, and whether it is fixed in one of them. */
export function movedBy(element: Element, top: Document): Moved {
  const scrollers: (Element | Document)[] = [];
  let stays = false;
  for (let at: Element | null = element; at;) {
    const document: Document = at.ownerDocument;
    const { position, overflowX, overflowY } = document.defaultView!.getComputedStyle(at);
    stays ||= (position === 'fixed' || position === 'sticky') && document === top;
    const clips = overflowX !== 'visible' || overflowY !== 'visible';
    if (clips && at !== document.scrollingElement && at !== document.documentElement && !isBodyOfPage(at))
      scrollers.push(at);
    if (at.parentElement) at = at.parentElement;
    else {
      const root = at.getRootNode();
      const frame = frameOf(document);
      if (document !== top && frame) scrollers.push(document);
      at = root instanceof ShadowRoot ? root.host : document === top ? null : (frame ?? null);
    }
  }
  return { scrollers, stays };
}

/** What a body hides is hidden by the window, unless the root has overflow of its own (CSS Overflow 3 §3.3). */
function isBodyOfPage(element: Element): boolean {
  const { ownerDocument: document } = element;
  if (element !== document.body) return false;
  const { overflowX, overflowY } = document.defaultView!.getComputedStyle(document.documentElement);
  return overflowX === 'visible' && overflowY === 'visible';
}

/** The part of the page in which what these scroll can be seen; undefined where nothing hides it. */
export function shownWithin(scrollers: readonly (Element | Document)[], top: Document): Rect | undefined {
  return scrollers
    .map((scroller) => roomOf(scroller, top))
    .reduce<Rect | undefined>((all, one) => (all ? common(all, one) : one), undefined);
}

function roomOf(scroller: Element | Document, top: Document): Rect {
  if ('defaultView' in scroller) {
    const { innerWidth: width, innerHeight: height } = scroller.defaultView!;
    return onPage({ x: 0, y: 0, width, height }, scroller, top);
  }
  const { left, top: y } = scroller.getBoundingClientRect();
  const { clientLeft, clientTop, clientWidth: width, clientHeight: height } = scroller;
  return onPage({ x: left + clientLeft, y: y + clientTop, width, height }, scroller.ownerDocument, top);
}

function common(a: Rect, b: Rect): Rect {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const width = Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x);
  const height = Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y);
  return { x, y, width, height };
}
