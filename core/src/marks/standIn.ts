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

interface Marks {
  has(id: string): boolean;
}

/** Whether a mark is folded away under an idea that is there. */
export const isFoldedAway = ({ folded }: Mark, all: Marks): boolean => folded != null && all.has(folded);

/**
 * Whether a mark is to be seen where somebody works in a space: it is neither hidden nor folded away, and nothing stands for it.
 * `marks` are those that can stand for others, `all` those that can fold others away.
 */
export function isStanding(mark: Mark, space: Space, marks: Marks, all = marks): boolean {
  const { id, hidden, standIn } = mark;
  if (hidden || isFoldedAway(mark, all)) return false;
  if (standIn?.copy) return true;
  const own = standInId(standIn?.for ?? id, space);
  if (own !== id && marks.has(own)) return false;
  return standIn !== undefined || !marks.has(standInId(id, 'class'));
}
