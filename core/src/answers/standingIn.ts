import type { Mark, MarkPatch } from '../marks/mark.js';
import type { Space, StandIn } from '../marks/shared.js';
import { standInId } from '../marks/standIn.js';
import { patchMark } from '../ops/apply.js';
import type { MarkFinder } from './movements.js';

/** A page with rules, as somebody who answers sees it. */
export interface AnsweredPage {
  space: Space;
  author: string;
  /** A mark as it was made, whatever stands for it; also one that is not to be seen. */
  original: MarkFinder;
  /** What there is of it now: itself, or what stands for it. */
  now: MarkFinder;
  /** Things and places by their originals, lowest first. */
  originals: readonly Mark[];
  /** For what is put on top of all there is, what was put there before as well. */
  order(): string;
  newId(): string;
  /** The time, milliseconds since 1970-01-01 UTC. */
  time(): number;
  /** A number by chance, from 0 up to 1. */
  chance(): number;
}

/** How an answer was. */
export type Verdict = 'right' | 'wrong';

/** What an answer comes to: marks to be put, and whether it was right, where that is said. */
export interface Answer {
  marks: Mark[];
  verdict?: Verdict;
  /** Whether a thing went back to where it came from. */
  sentBack?: boolean;
}

/** What is said of a stand-in; what is undefined is not so any more. */
export type Told = { [Key in keyof Omit<StandIn, 'for'>]?: StandIn[Key] | undefined };

/** How often a mark was answered wrongly or tapped. */
export const countsOf = (mark: Mark | undefined): Pick<StandIn, 'tries' | 'taps'> => ({
  tries: mark?.standIn?.tries ?? 0,
  taps: mark?.standIn?.taps ?? 0,
});

/** What stands for a mark once something of it is another. */
export function standInFor(page: AnsweredPage, original: Mark, set: MarkPatch, how: Told = {}): Mark {
  const before = page.now(original.id) ?? original;
  const { at, since = page.time() } = before.standIn ?? {};
  const standIn = { for: original.id, ...(at !== undefined && { at }), ...countsOf(before), since, ...how };
  return {
    ...withoutRule(patchMark(before, set)),
    id: standInId(original.id, page.space),
    space: page.space,
    author: page.author,
    order: page.order(),
    locked: false,
    group: null,
    createdAt: page.time(),
    standIn: withoutGaps(standIn),
  } as Mark;
}

function withoutRule(mark: Mark): object {
  const rest: Partial<Mark> = { ...mark };
  delete rest.rule;
  delete rest.credit;
  return rest;
}

/** The same without what is undefined, which no message can hold. */
function withoutGaps<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, each]) => each !== undefined)) as T;
}
