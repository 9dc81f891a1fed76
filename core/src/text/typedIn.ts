import type { Mark } from '../marks/mark.js';

/** What a mark says in words: what is typed in it, and what it is said to show. Empty where it says nothing. */
export function typedIn(mark: Mark): string {
  const text = 'text' in mark ? mark.text : '';
  return [text, mark.alt ?? ''].filter((part) => part !== '').join(' ');
}
