import { hasExactly, isRecord } from '../checks/fields.js';
import { isId } from '../marks/fields.js';
import type { Mark, MarkOf } from '../marks/mark.js';

/** How ideas are collected on a page. */
export interface IdeaRules {
  /** Whether everybody may add notes. */
  adding: boolean;
  /** Whether students, too, may put notes together. */
  grouping: boolean;
  /** How many votes each student has; with none there is no voting. */
  votes: number;
  /** Whether everybody sees how many votes a note has. */
  counted: boolean;
  /** Whether what has most votes stands first. */
  sorted: boolean;
}

/** Pages on which ideas are collected, by id. */
export type Ideas = Readonly<Record<string, IdeaRules>>;

export const IDEAS_AT_FIRST: IdeaRules = {
  adding: true,
  grouping: false,
  votes: 0,
  counted: false,
  sorted: false,
};

/** Most votes that each student can be given. */
export const MOST_VOTES = 20;
/** Most pages of a class on which ideas are collected. */
export const MOST_IDEA_PAGES = 100;

const isFlag = (value: unknown) => typeof value === 'boolean';

/** Whether a value from outside says how ideas are collected. */
export function isIdeaRules(value: unknown): value is IdeaRules {
  return hasExactly(value, {
    adding: isFlag,
    grouping: isFlag,
    votes: (votes) => Number.isInteger(votes) && (votes as number) >= 0 && (votes as number) <= MOST_VOTES,
    counted: isFlag,
    sorted: isFlag,
  });
}

/** Whether a value from outside says of some pages how ideas are collected there, null where they are no more. */
export function areIdeas(value: unknown): value is Record<string, IdeaRules | null> {
  if (!isRecord(value)) return false;
  const pages = Object.entries(value);
  return (
    pages.length <= MOST_IDEA_PAGES &&
    pages.every(([page, rules]) => isId(page) && (rules === null || isIdeaRules(rules)))
  );
}

/** Pages with how ideas are collected there now. */
export function withIdeas(before: Ideas, set: Readonly<Record<string, IdeaRules | null>>): Ideas {
  const all = Object.entries({ ...before, ...set });
  return Object.fromEntries(all.filter((one): one is [string, IdeaRules] => one[1] !== null));
}

/** Whether a mark is a note that is sorted with others, or the title of a group of them. */
export function isIdea(mark: Mark): mark is MarkOf<'note'> | MarkOf<'text'> {
  return mark.space === 'class' && (mark.kind === 'note' || (mark.kind === 'text' && mark.group !== null));
}

/** Whether a change of a mark does no more than put it with others. */
export function isGrouping(set: object): boolean {
  const keys = Object.keys(set);
  return keys.length > 0 && keys.every((key) => key === 'group' || key === 'order');
}
