import type { AnswerRule } from './answerRule.js';
import type { Mark } from './mark.js';

/**
 * Copies of marks under new ids, in groups of their own; what is joined to one of them is joined to its copy, and to
 * nothing else; what stands for a mark becomes a mark of its own. All other fields stay as they are.
 */
export function copiesOf(marks: readonly Mark[], newId: () => string): Mark[] {
  const ids = new Map(marks.map(({ id }) => [id, newId()]));
  const groups = new Map(marks.flatMap(({ group }) => (group === null ? [] : [[group, newId()] as const])));
  return marks.map((mark): Mark => {
    const copy: Mark = { ...mark, id: ids.get(mark.id)!, group: mark.group && groups.get(mark.group)! };
    delete copy.standIn;
    if (copy.rule) copy.rule = renamedIn(copy.rule, ids);
    if (copy.folded) copy.folded = ids.get(copy.folded) ?? null;
    if (copy.kind !== 'path') return copy;
    const joined = (end: typeof copy.from) =>
      end && ids.has(end.mark) ? { ...end, mark: ids.get(end.mark)! } : null;
    return { ...copy, from: joined(copy.from), to: joined(copy.to) };
  });
}

/** The same rule, of the copies where it was of what they are copies of. */
const renamedIn = (rule: AnswerRule, ids: ReadonlyMap<unknown, string>): AnswerRule =>
  JSON.parse(JSON.stringify(rule), (_, value: unknown) => ids.get(value) ?? value) as AnswerRule;
