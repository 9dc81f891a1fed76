/**
 * Words of a document by what they say and where they stand (W3C Web Annotation Data Model §4.2.4,
 * TextQuoteSelector, and §4.2.5, TextPositionSelector). Positions count UTF-16 code units from 0.
 */
export interface TextQuote {
  exact: string;
  prefix: string;
  suffix: string;
  start: number;
}

/** How much before and after the words is kept to know them by. */
const CONTEXT = 32;
/** Longest words that can be marked at once. */
export const MAX_QUOTE = 2000;

/** The quote of a part of a text. */
export function quoteOf(text: string, start: number, end: number): TextQuote {
  return {
    exact: text.slice(start, end),
    prefix: text.slice(Math.max(0, start - CONTEXT), start),
    suffix: text.slice(end, end + CONTEXT),
    start,
  };
}

/**
 * Where a quote stands in a text that may have changed: at its position if it still says the same
 * there, else the occurrence whose surroundings are most alike, the nearest of equals; undefined
 * where the words are gone.
 */
export function findQuote(text: string, quote: TextQuote): { start: number; end: number } | undefined {
  const { exact, start } = quote;
  if (exact === '') return undefined;
  let best: { start: number; score: number } | undefined;
  for (let at = text.indexOf(exact); at >= 0; at = text.indexOf(exact, at + 1)) {
    const alike = likenessAt(text, at, quote);
    const score = alike - Math.min(1, Math.abs(at - start) / Math.max(1, text.length)) / 2;
    if (!best || score > best.score) best = { start: at, score };
  }
  return best && { start: best.start, end: best.start + exact.length };
}

/** Letters that agree before and after an occurrence, going outwards. */
function likenessAt(text: string, at: number, { exact, prefix, suffix }: TextQuote): number {
  let count = 0;
  for (let i = 1; i <= prefix.length && text[at - i] === prefix[prefix.length - i]; i++) count += 1;
  const end = at + exact.length;
  for (let i = 0; i < suffix.length && text[end + i] === suffix[i]; i++) count += 1;
  return count;
}
