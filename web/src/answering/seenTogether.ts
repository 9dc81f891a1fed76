import type { Mark } from '@doodla/core';
import type { AnsweredPage } from '@doodla/core/answers';
import { movedTogether } from '@doodla/core/answers';

/** A thing, or what was pulled from it, on a page at a scale. */
interface Shown {
  thing: Mark;
  copy?: Mark | undefined;
  page: AnsweredPage;
  scale: number;
}

/** What is seen of a thing and of what moves with it. A cover keeps what it was, so that whoever works by keys does not lose their place. */
export function seenTogether({ page, thing, copy }: Omit<Shown, 'scale'>): Mark[] {
  const { moves, pair } = thing.rule ?? {};
  if (copy) return [copy];
  if (pair) return [thing];
  const all = moves && !moves.copies ? movedTogether(page, thing) : [thing];
  const first = moves?.copies ? thing : page.now(thing.id);
  const others = all.flatMap((mark) => (mark.id === thing.id ? [] : (page.now(mark.id) ?? [])));
  return [...(first ? [first] : []), ...others].filter((mark) => !mark.hidden);
}

/** Whether a thing looks as it did, so that it need not be drawn again: most do when another is answered. */
export function looksSame(
  before: Shown & { seen: readonly Mark[] },
  after: Shown & { seen: readonly Mark[] },
): boolean {
  return (
    before.thing === after.thing &&
    before.copy === after.copy &&
    before.scale === after.scale &&
    before.page.space === after.page.space &&
    before.seen.length === after.seen.length &&
    before.seen.every((mark, i) => mark === after.seen[i])
  );
}
