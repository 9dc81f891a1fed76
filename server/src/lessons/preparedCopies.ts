import type { AnswerRule, Mark } from '@doodla/core';
import { copiesOf, orderOnTop } from '@doodla/core';
import { randomUUID } from 'node:crypto';

interface CopyOptions {
  author: string;
  /** The page that they go to; their own if not given. */
  page?: string;
  /** New ids of pictures by old. */
  pictures?: ReadonlyMap<string, string>;
  /** New ids of pages by old, which taps go to or play. */
  pages?: ReadonlyMap<string, string>;
  /** The order of the mark under which all of them lie above. */
  above?: string | null;
}

/** Copies of marks as prepared ones, in the same pile; what is joined to one that comes along stays joined. */
export function preparedCopies(
  marks: readonly Mark[],
  { author, page, pictures, pages, above = null }: CopyOptions,
): Mark[] {
  let order = above;
  return copiesOf(marks, randomUUID).map((mark): Mark => {
    order = orderOnTop(order === null ? [] : [order]);
    const copy: Mark = { ...mark, page: page ?? mark.page, author, order };
    if (copy.rule && pages) copy.rule = withPages(copy.rule, pages);
    return copy.kind === 'picture'
      ? { ...copy, material: pictures?.get(copy.material) ?? copy.material }
      : copy;
  });
}

/** The same rule, whose taps go to the copies of pages. */
function withPages(rule: AnswerRule, pages: ReadonlyMap<string, string>): AnswerRule {
  if (!rule.tap) return rule;
  const steps = rule.tap.steps.map((step) =>
    'page' in step ? { ...step, page: pages.get(step.page) ?? step.page } : step,
  );
  return { ...rule, tap: { ...rule.tap, steps } };
}
