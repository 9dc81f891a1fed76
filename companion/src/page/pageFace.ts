import type { Rect } from '@doodla/core';
import { contrast } from '@doodla/core';

/** Places along the edges of a window at which is looked for what stays there, as parts of a side. */
const ALONG = [0.1, 0.3, 0.5, 0.7, 0.9];
/** How far from an edge it is looked, CSS pixels. */
const IN = 3;
/** What covers more of the window than this is the page itself, or a dialog. */
const MOST_COVERED = 0.6;

/** Parts of the window where something of the page stays while the rest scrolls under it: headers, bars, menus at a side. */
export function barsOf(page: Document): Rect[] {
  const { innerWidth: w, innerHeight: h } = page.defaultView!;
  const places = ALONG.flatMap((share) => [
    [share * w, IN],
    [share * w, h - IN],
    [IN, share * h],
    [w - IN, share * h],
  ]);
  const found = new Set<Element>();
  for (const [x, y] of places) {
    const bar = stayingAt(page, x!, y!);
    if (bar) found.add(bar);
  }
  return [...found]
    .map((bar): Rect => bar.getBoundingClientRect())
    .filter(({ width, height }) => width * height < MOST_COVERED * w * h)
    .map(({ x, y, width, height }) => ({ x, y, width, height }));
}

/** The outermost thing at a place that stays in the window and lets nothing show through. */
function stayingAt(page: Document, x: number, y: number): Element | undefined {
  let found: Element | undefined;
  for (let at = page.elementFromPoint(x, y); at && at !== page.body; at = at.parentElement) {
    const { position, backgroundColor, backgroundImage } = page.defaultView!.getComputedStyle(at);
    const stays = position === 'fixed' || (position === 'sticky' && isStuck(at));
    const isOpaque = !/rgba\(.*, 0\)|transparent/.test(backgroundColor) || backgroundImage !== 'none';
    if (stays && isOpaque) found = at;
  }
  return found;
}

/** Whether something sticks to an edge of the window now, instead of lying where it is in the page. */
function isStuck(element: Element): boolean {
  const { top, bottom } = element.getBoundingClientRect();
  const view = element.ownerDocument.defaultView!;
  const style = view.getComputedStyle(element);
  return (
    Math.abs(top - Number.parseFloat(style.top)) < 2 ||
    Math.abs(view.innerHeight - bottom - Number.parseFloat(style.bottom)) < 2
  );
}

/** Whether a page is dark: white is easier to see on it than black (WCAG 2.2, contrast ratio). */
export function isDark(page: Document): boolean {
  for (const element of [page.body, page.documentElement]) {
    const hex = element && hexOf(page.defaultView!.getComputedStyle(element).backgroundColor);
    if (hex) return contrast(hex, '#ffffff') > contrast(hex, '#000000');
  }
  // What has no colour has the browser's own.
  return /^dark$/.test(page.defaultView!.getComputedStyle(page.documentElement).colorScheme);
}

/** A computed colour as hex; undefined for one that is seen through. */
function hexOf(colour: string): string | undefined {
  const parts = colour.match(/[\d.]+/g)?.map(Number) ?? [];
  if (!colour.startsWith('rgb') || parts.length < 3 || (parts[3] ?? 1) < 0.5) return undefined;
  return `#${parts
    .slice(0, 3)
    .map((part) => Math.round(part).toString(16).padStart(2, '0'))
    .join('')}`;
}
