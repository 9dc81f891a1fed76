import type { Change, Mark, Page } from '@doodla/core';
import { copiesOf, ordersBeside } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { PageDesk } from '../room/pageDesk';

/**
 * Puts copies of pages after one, with what is on them as one's own, and shows the first. Returns the step, to be taken
 * back; undefined where it may not be.
 */
export function placePages(
  desk: Pick<PageDesk, 'settle' | 'target' | 'turnTo'>,
  after: string,
  parts: readonly { page: Page; marks: readonly Mark[] }[],
): string | undefined {
  const { target } = desk;
  const author = target.actor?.id;
  if (author === undefined) return undefined;
  const { length: count } = parts;
  const orders = ordersBeside(target.state.pages.values(), after, { where: 'after', count });
  const pages = parts.map(({ page }, i): Page => ({ ...page, id: nanoid(), order: orders[i]! }));
  const changes = parts.flatMap(({ marks }, i): Change[] => {
    const { id: page } = pages[i]!;
    const copies = copiesOf(marks, nanoid).map((mark) => ({ ...mark, page, author }));
    return [{ do: 'addPage', page: pages[i]! }, ...copies.map((mark): Change => ({ do: 'add', mark }))];
  });
  desk.settle();
  const step = target.perform(changes);
  if (step !== undefined) desk.turnTo(pages[0]!.id);
  return step;
}
