import type { Change, Mark } from '@doodla/core';
import { standInId } from '@doodla/core';
import { centreOf, placeAt } from '@doodla/core/answers';

/** A mark whose place takes whatever is put there, as while it is shown where things belong. */
export function anythingGoes(mark: Mark): Mark {
  const { takes } = mark.rule ?? {};
  return takes ? { ...mark, rule: { ...mark.rule, takes: { ...takes, sendsBack: false } } } : mark;
}

/** What makes of where things lie now what is right: each place takes what lies in it. Places without anything stay as they are. */
export function solutionIn(originals: readonly Mark[], standIns: ReadonlyMap<string, Mark>): Change[] {
  const now = (mark: Mark) => standIns.get(standInId(mark.id, 'class')) ?? mark;
  const places = originals.filter(({ rule }) => rule?.takes);
  const things = originals.filter(({ rule }) => rule?.moves && !rule.moves.copies);
  const lying = new Map<string, string[]>();
  for (const thing of things) {
    const place = placeAt(
      centreOf(now(thing)),
      places.filter(({ id }) => id !== thing.id),
    );
    if (place) lying.set(place.id, [...(lying.get(place.id) ?? []), thing.id]);
  }
  return places.flatMap(({ id, rule }): Change[] => {
    const lie = lying.get(id);
    return lie
      ? [{ do: 'patch', mark: id, set: { rule: { ...rule, takes: { ...rule!.takes!, things: lie } } } }]
      : [];
  });
}
