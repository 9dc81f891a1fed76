import type { Mark } from '@doodla/core';
import { orderOnTop } from '@doodla/core';
import { randomUUID } from 'node:crypto';

interface CopyOptions {
  author: string;
  /** The page that they go to; their own if not given. */
  page?: string;
  /** New ids of pictures by old. */
  pictures?: ReadonlyMap<string, string>;
  /** The order of the mark under which all of them lie above. */
  above?: string | null;
}

/** Copies of marks as prepared ones, in the same pile; what is joined to one that comes along stays joined. */
export function preparedCopies(
  marks: readonly Mark[],
  { author, page, pictures, above = null }: CopyOptions,
): Mark[] {
  const ids = new Map(marks.map((mark) => [mark.id, randomUUID()]));
  let order = above;
  return marks.map((mark): Mark => {
    order = orderOnTop(order === null ? [] : [order]);
    const copy: Mark = { ...mark, id: ids.get(mark.id)!, page: page ?? mark.page, author, order };
    if (copy.kind === 'picture') return { ...copy, material: pictures?.get(copy.material) ?? copy.material };
    if (copy.kind !== 'path') return copy;
    const anchor = (end: typeof copy.from) =>
      end && ids.has(end.mark) ? { ...end, mark: ids.get(end.mark)! } : null;
    return { ...copy, from: anchor(copy.from), to: anchor(copy.to) };
  });
}
