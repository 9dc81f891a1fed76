import type { Mark } from './mark.js';
import type { Space } from './shared.js';

/** Id of what stands for a mark in a space: there is one at most, so whoever answers last has answered. */
export function standInId(mark: string, space: Space): string {
  return `${mark}--${space.replace(/[^a-z\d]/gi, '0').slice(-12)}`;
}

/** The mark that an id stands for, if it is that of a stand-in. */
export function stoodFor(id: string): string | undefined {
  return /^(.+)--/.exec(id)?.[1];
}

/** Whether a mark is to be seen where somebody works in a space: it is not hidden, and nothing stands for it. */
export function isStanding(
  { id, hidden, standIn }: Mark,
  space: Space,
  marks: { has(id: string): boolean },
): boolean {
  if (hidden) return false;
  if (standIn?.copy) return true;
  const own = standInId(standIn?.for ?? id, space);
  if (own !== id && marks.has(own)) return false;
  return standIn !== undefined || !marks.has(standInId(id, 'class'));
}
