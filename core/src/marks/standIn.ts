import type { Mark } from './mark.js';
import type { Space } from './shared.js';

/** Of a mark that stands for another: what answering has made of that one, in its space. */
export interface StandIn {
  /** The mark that it stands for. */
  for: string;
  /** Whether it was pulled from that one, which stays where it is. */
  copy?: boolean;
  /** The mark by whose rule it is as it is, where that is not the one that it stands for. */
  by?: string;
  /** The place that it lies in. */
  at?: string;
  /** How often it was put where it does not belong, or filled in wrongly. */
  tries: number;
  /** How often it was tapped, where that is counted. */
  taps: number;
}

/** Id of what stands for a mark in a space: there is one at most, so whoever answers last has answered. */
export function standInId(mark: string, space: Space): string {
  return `${mark}--${space.replace(/[^a-z\d]/gi, '0').slice(-12)}`;
}

/** The mark that an id stands for, if it is that of a stand-in. */
export function stoodFor(id: string): string | undefined {
  const at = id.lastIndexOf('--');
  return at > 0 ? id.slice(0, at) : undefined;
}

/** Whether a mark is to be seen where somebody works in a space: it is not hidden, and nothing stands for it. */
export function isStanding(
  { id, hidden, standIn }: Mark,
  space: Space,
  marks: { has(id: string): boolean },
): boolean {
  if (hidden) return false;
  if (standIn?.copy) return true;
  const mark = standIn?.for ?? id;
  return [space, 'class' as const].every((one) => {
    const other = standInId(mark, one);
    return other === id || (standIn !== undefined && one === 'class') || !marks.has(other);
  });
}
