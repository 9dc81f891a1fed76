import type { Mark, Space } from '@doodla/core';
import { byOrder, orderOnTop, standInId } from '@doodla/core';
import type { AnsweredPage } from '@doodla/core/answers';
import { nanoid } from 'nanoid';
import type { PageDesk } from '../room/pageDesk';

/** What answering needs of a desk. */
export type AnswerDesk = Pick<PageDesk, 'pageId' | 'space' | 'newMark'> & {
  layers: readonly { log: { state: { marks: ReadonlyMap<string, Mark> } } }[];
  target: Pick<PageDesk['target'], 'actor' | 'perform'> & { state: { marks: ReadonlyMap<string, Mark> } };
};

/** The marks of the shown page that rules are about, as they were made, whatever stands for them. */
export function originalsOn({ layers, pageId }: Pick<AnswerDesk, 'layers' | 'pageId'>): Mark[] {
  const page = pageId.get();
  const all = layers.flatMap(({ log }) => [...log.state.marks.values()].filter((mark) => mark.page === page));
  const groups = new Set(all.flatMap(({ rule, group }) => (rule && group !== null ? [group] : [])));
  const isPart = ({ rule, hidden, group, standIn }: Mark) =>
    !standIn && (rule ?? (hidden || (group !== null && groups.has(group))));
  return all.filter(isPart).sort(byOrder);
}

/** What was pulled from piles on the shown page, as it is seen in a space. */
export function copiesOn({ target, pageId }: Pick<AnswerDesk, 'target' | 'pageId'>, space: Space): Mark[] {
  const page = pageId.get();
  return [...target.state.marks.values()].filter(
    (mark) => mark.standIn?.copy && mark.page === page && (mark.space === space || mark.space === 'class'),
  );
}

/** The shown page as whoever works here answers it, by the rules that its originals have. */
export function answeredPage(desk: AnswerDesk, originals: readonly Mark[]): AnsweredPage {
  const { layers, target, space } = desk;
  const ruled = new Map(originals.map((mark) => [mark.id, mark]));
  const original = (id: string): Mark | undefined => {
    const known = ruled.get(id);
    if (known) return known;
    const mark = layers.map(({ log }) => log.state.marks.get(id)).find((one) => one !== undefined);
    return mark?.standIn ? undefined : mark;
  };
  const { marks } = target.state;
  let top: string | undefined;
  return {
    space,
    author: target.actor?.id ?? '',
    originals,
    original,
    now: (id) => marks.get(standInId(id, space)) ?? marks.get(standInId(id, 'class')) ?? original(id),
    order: () => (top = top === undefined ? (desk.newMark()?.order ?? 'a0') : orderOnTop([top])),
    newId: () => nanoid(),
    time: () => Date.now(),
    chance: byChance,
  };
}

/** Lets the shown page be as it was before it was answered, as far as it was answered in the space worked in. One step. */
export function startAgain({ target, pageId, space }: AnswerDesk): void {
  const page = pageId.get();
  const answers = [...target.state.marks.values()].filter(
    (mark) => mark.standIn && mark.page === page && mark.space === space,
  );
  if (answers.length > 0) target.perform(answers.map(({ id }) => ({ do: 'remove', mark: id })));
}

/** A number by chance from 0 up to 1, from the browser's source for secrets: nobody can guess it. */
function byChance(): number {
  const [number] = crypto.getRandomValues(new Uint32Array(1));
  return number! / 2 ** 32;
}
