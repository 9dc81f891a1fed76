import type { PlacedQuote } from '@doodla/core';
import type { ShownWords } from '@web/tools/toolWork';
import type { Host } from './host';
import type { PageWords } from './pageWords';
import { onPage, spotAt } from './surroundings';

/** Farther than this from a letter is beside the text, CSS pixels. */
const REACH = 12;

/** The words that can be marked from a place of the page on; undefined where none are near it. */
export function shownWordsAt(
  words: PageWords,
  host: Host,
  at: { x: number; y: number },
): ShownWords | undefined {
  const { document: shown, x, y } = spotAt(at.x, at.y, document);
  if (!shown.body) return undefined;
  const text = words.of(shown);
  const there = text.between({ x, y }, { x, y });
  if (!there || !isNear(there, x, y)) return undefined;
  return {
    between: (a, b) =>
      host.aside(() => {
        const [from, to] = [spotAt(a.x, a.y, document), spotAt(b.x, b.y, document)];
        // Words of two documents cannot be marked together.
        const end = to.document === shown ? to : from;
        const quote = text.between(from, end);
        return quote && laidOnPage(quote, shown);
      }),
  };
}

function isNear({ rects }: PlacedQuote, x: number, y: number): boolean {
  for (let i = 0; i < rects.length; i += 4) {
    const [left, top, width, height] = rects.slice(i, i + 4) as [number, number, number, number];
    const isBeside =
      x < left - REACH || x > left + width + REACH || y < top - REACH || y > top + height + REACH;
    if (!isBeside) return true;
  }
  return false;
}

function laidOnPage(quote: PlacedQuote, shown: Document): PlacedQuote {
  const { x, y } = onPage({ x: 0, y: 0, width: 0, height: 0 }, shown, document);
  const rects = quote.rects.map((value, i) => (i % 4 === 0 ? value + x : i % 4 === 1 ? value + y : value));
  return { ...quote, rects };
}
