import type { SnippetPart } from '@doodla/core';
import { wordsFound } from '@doodla/core';
import { SNIPPET_WORDS } from './wordIndex.js';

/** Words that are told before the first hit. */
const BEFORE = 3;

/** What is told of the text that has most of the words that are looked for: some words round the first of them. */
export function snippetOf(texts: readonly string[], words: readonly string[]): SnippetPart[] {
  const found = texts.map((text) => ({ text, hits: wordsFound(text, words) }));
  const { text, hits } = found.reduce((best, one) => (one.hits.length > best.hits.length ? one : best));
  const all = [...text.matchAll(/[\p{L}\p{N}\p{M}]+/gu)].map(({ 0: word, index }) => [
    index,
    index + word.length,
  ]);
  const first = Math.max(0, all.findIndex(([from]) => from === hits[0]?.[0]) - BEFORE);
  const told = all.slice(first, first + SNIPPET_WORDS);
  if (told.length === 0) return [];
  const [start, end] = [first === 0 ? 0 : told[0]![0]!, told.at(-1)![1]!];
  const isCut = first + told.length < all.length;
  const parts: SnippetPart[] = first === 0 ? [] : [{ words: '…', hit: false }];
  let at = start;
  for (const [from, to] of hits.filter(([, last]) => last <= end)) {
    if (from < at) continue;
    parts.push({ words: text.slice(at, from), hit: false }, { words: text.slice(from, to), hit: true });
    at = to;
  }
  parts.push({ words: isCut ? `${text.slice(at, end)}…` : text.slice(at), hit: false });
  return parts.filter((part) => part.words !== '');
}
