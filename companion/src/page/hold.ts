import type { Rect } from '@doodla/core';
import type { Glue } from '@doodla/core/glue';
import { linesOf } from '@web/canvas/webText';
import { findByName } from './elementNames';
import type { PageWords } from './pageWords';
import type { Moved } from './scrollers';
import { movedBy } from './scrollers';
import { follow, onPage } from './surroundings';

/** What a mark belongs to as it is on the page now. */
export interface Hold extends Moved {
  /** Where it is; undefined once it is gone or not shown. */
  box(): Rect | undefined;
  /** Where its lines are, for words: flat x, y, width, height. */
  lines?(): number[];
}

/** Finds what a mark belongs to; undefined where that is gone. */
export function takeHold(glue: Glue, words: PageWords, top: Document): Hold | undefined {
  if (glue.to === 'page')
    return { scrollers: [], stays: false, box: () => ({ x: 0, y: 0, width: 1, height: 1 }) };
  const document = follow(glue.frames, top);
  if (!document) return undefined;
  if (glue.to === 'element') {
    const element = findByName(document, glue.name);
    return element && holdElement(element, top);
  }
  const range = words.find(document, glue.quote);
  return range && holdWords(range, top);
}

export function holdElement(element: Element, top: Document): Hold {
  return {
    ...movedBy(element, top),
    box() {
      if (!element.isConnected) return undefined;
      const box = element.getBoundingClientRect();
      return box.width > 0 && box.height > 0 ? onPage(box, element.ownerDocument, top) : undefined;
    },
  };
}

export function holdWords(range: Range, top: Document): Hold {
  const { startContainer } = range;
  const document = startContainer.ownerDocument!;
  return {
    ...movedBy(startContainer.parentElement!, top),
    box() {
      const first = [...range.getClientRects()].find(({ width, height }) => width > 0 && height > 0);
      return first && onPage(first, document, top);
    },
    lines() {
      const { x, y } = onPage({ x: 0, y: 0, width: 0, height: 0 }, document, top);
      return linesOf(range).map((value, i) => (i % 4 === 0 ? value + x : i % 4 === 1 ? value + y : value));
    },
  };
}
