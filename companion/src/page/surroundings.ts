import type { Rect } from '@doodla/core';
import type { ElementName } from '@doodla/core/glue';
import { findByName, nameOf } from './elementNames';

/** A place in a document of the page, as that document counts. */
export interface Spot {
  document: Document;
  x: number;
  y: number;
}

/** The document that a frame shows, where its address is of the same origin; others are written over as a whole. */
export function documentOf(element: Element): Document | undefined {
  const { tagName } = element;
  if (tagName !== 'IFRAME' && tagName !== 'FRAME') return undefined;
  try {
    // Of other origins there is none; some browsers throw where others say null.
    return (element as HTMLIFrameElement).contentDocument ?? undefined;
  } catch {
    return undefined;
  }
}

/** The frame that shows a document; undefined for the page itself. */
export function frameOf(document: Document): Element | undefined {
  try {
    return document.defaultView?.frameElement ?? undefined;
  } catch {
    // The page itself lies in a frame of somebody else's, which is none of ours.
    return undefined;
  }
}

/** Which frames lead to a document of the page, from the outermost in. */
export function framesTo(document: Document, top: Document): ElementName[] {
  const names: ElementName[] = [];
  for (let at = document; at !== top;) {
    const frame: Element | undefined = frameOf(at);
    if (!frame) break;
    names.unshift(nameOf(frame));
    at = frame.ownerDocument;
  }
  return names;
}

/** The document that frames lead to; undefined where one of them is gone. */
export function follow(frames: readonly ElementName[], top: Document): Document | undefined {
  let at: Document | undefined = top;
  for (const name of frames) {
    const frame: Element | undefined = at && findByName(at, name);
    at = frame && documentOf(frame);
  }
  return at;
}

/** How far a document's own window is from the corner of the page's window, CSS pixels. */
function offsetOf(document: Document, top: Document): { x: number; y: number } {
  let [x, y] = [0, 0];
  for (let at = document; at !== top;) {
    const frame: Element | undefined = frameOf(at);
    if (!frame) break;
    const box = frame.getBoundingClientRect();
    x += box.left + frame.clientLeft;
    y += box.top + frame.clientTop;
    at = frame.ownerDocument;
  }
  return { x, y };
}

/** A rectangle of a document's window as one of the page: CSS pixels from the top left of what can be scrolled. */
export function onPage(rect: Rect, document: Document, top: Document): Rect {
  const { x, y } = offsetOf(document, top);
  const { scrollX, scrollY } = top.defaultView!;
  return { x: rect.x + x + scrollX, y: rect.y + y + scrollY, width: rect.width, height: rect.height };
}

/** The innermost document under a point of the page, and the point in its window. */
export function spotAt(x: number, y: number, top: Document): Spot {
  const { scrollX, scrollY } = top.defaultView!;
  let spot: Spot = { document: top, x: x - scrollX, y: y - scrollY };
  for (;;) {
    const frame: Element | null = spot.document.elementFromPoint(spot.x, spot.y);
    const inner: Document | undefined = frame ? documentOf(frame) : undefined;
    if (!frame || !inner) return spot;
    const box = frame.getBoundingClientRect();
    spot = {
      document: inner,
      x: spot.x - box.left - frame.clientLeft,
      y: spot.y - box.top - frame.clientTop,
    };
  }
}

/** All documents of the page that can be looked into, the page's own first. */
export function documentsIn(top: Document): Document[] {
  const found = [top];
  for (const document of found)
    for (const frame of document.querySelectorAll('iframe, frame')) {
      const inner = documentOf(frame);
      if (inner?.documentElement) found.push(inner);
    }
  return found;
}
