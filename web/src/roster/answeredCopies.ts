import type { Mark, Space } from '@doodla/core';
import { isStanding } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';

/** What something stands for on any of several copies. */
export function answeredOn(copies: readonly { marks: readonly Mark[] }[]): ReadonlySet<string> {
  return new Set(copies.flatMap(({ marks }) => marks.flatMap(({ standIn }) => standIn?.for ?? [])));
}

/** Whether a mark that all have is seen otherwise on some copy, by what something stands for there. */
export function isAnswered({ id, standIn }: Mark, answered: ReadonlySet<string>): boolean {
  return answered.has(standIn?.for ?? id);
}

/** What is seen of the things that all have, and what is on one copy. */
export function seenOn(
  { space, marks }: { space: Space; marks: readonly Mark[] },
  things: readonly Mark[],
): readonly Mark[] {
  if (things.length === 0) return marks;
  const all = [...things, ...marks];
  const ids = new Set(all.map(({ id }) => id));
  return all.filter((mark) => isStanding(mark, space, ids));
}

/** All that is seen of a page on a copy of it, what all have lowest. */
export function pageOn(
  { layers }: Pick<PageDesk, 'layers'>,
  page: string,
  copy: { space: Space; marks: readonly Mark[] },
): readonly Mark[] {
  const all = layers.flatMap((layer) => layer.on(page).all()).filter(({ space }) => space === 'class');
  return seenOn(copy, all);
}
