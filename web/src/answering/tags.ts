import type { Mark } from '@doodla/core';

/** What a tag says of a mark. */
export type Tag = 'tap' | 'moves' | 'takes' | 'fill' | 'pair' | 'trace' | 'sets' | 'hidden';

/** What is to be said of a mark while preparing. */
export function tagsOf({ rule, hidden }: Pick<Mark, 'rule' | 'hidden'>): Tag[] {
  const parts = (['tap', 'moves', 'takes', 'fill', 'pair', 'trace', 'sets'] as const).filter(
    (part) => rule?.[part],
  );
  return hidden ? [...parts, 'hidden'] : parts;
}

/** The marks that a rule of one names, each once; not what may lie in a column, which may in others as well. */
export function namedBy({ rule }: Pick<Mark, 'rule'>): string[] {
  const steps = rule?.tap?.steps ?? [];
  const tapped = steps.flatMap((step) =>
    step.do === 'pick' ? step.sets.flat() : 'marks' in step ? step.marks : 'mark' in step ? [step.mark] : [],
  );
  const other = rule?.pair ? [rule.pair.with] : [];
  const movement = rule?.moves?.movement;
  const held =
    movement?.how === 'inside' ? [movement.area] : movement?.how === 'along' ? [movement.line] : [];
  const { things = [], stack } = rule?.takes ?? {};
  return [...new Set([...tapped, ...held, ...other, ...(stack ? [] : things)])];
}

/** More tags than that hide the page: then only those of what is selected are shown. */
const MANY = 60;

/** Whether a page has so many marks with rules that not all can be said at a time. */
export const isCrowded = (originals: readonly Mark[]): boolean =>
  originals.filter(({ rule }) => rule).length > MANY;

/** The marks of which it is said what they do: all, or on a crowded page those that are selected and what they name. */
export function taggedMarks(originals: readonly Mark[], selected: ReadonlySet<string>): readonly Mark[] {
  if (!isCrowded(originals)) return originals;
  const chosen = originals.filter(({ id }) => selected.has(id));
  const shown = new Set([...chosen.map(({ id }) => id), ...chosen.flatMap(namedBy)]);
  return originals.filter(({ id }) => shown.has(id));
}
