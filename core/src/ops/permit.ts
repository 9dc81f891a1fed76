import type { IdeaRules } from '../ideas/ideaRules.js';
import { isGrouping, isIdea } from '../ideas/ideaRules.js';
import { isMark, isMarkPatch } from '../marks/check.js';
import type { Freedom } from '../marks/kind.js';
import { FREEDOMS } from '../marks/kind.js';
import type { Mark, MarkKind, MarkPatch } from '../marks/mark.js';
import { KINDS } from '../marks/kinds.js';
import type { Space } from '../marks/shared.js';
import { isPage, isPagePatch } from '../pages/check.js';
import { applyChanges } from './apply.js';
import type { LogView } from './logState.js';
import { draftOf } from './logState.js';
import type { Change, Operation } from './operation.js';
import type { RefusalCode } from './refusal.js';

/** Who acts on a log. */
export interface Actor {
  id: string;
  role: 'teacher' | 'student';
  /** Spaces a student may write in, beside the class. */
  tables: readonly string[];
  /** Whose marks a student sees of what is the class's; everybody's where it is left out. */
  reads?: { only: readonly string[] } | { not: readonly string[] };
  /** A copy that is shown to all, beside one's own. */
  shown?: { page: string; space: Space };
  /** What a student may do on pages on which ideas are collected. */
  ideas?: Readonly<Record<string, Pick<IdeaRules, 'adding' | 'grouping'>>>;
}

/** What the state of a class allows. */
export interface Situation {
  pensUp: boolean;
  ended: boolean;
  /** Whether the log holds as many marks as it may. */
  full: boolean;
  /** What students may put on a page. */
  freedom: Freedom;
}

/** Where nothing stands against writing. */
export const FREE: Situation = { pensUp: true, ended: false, full: false, freedom: 'everything' };

/** Most marks on one log; keeps a runaway client from filling the disk. */
export const MAX_MARKS = 200_000;

/**
 * Whether the actor may do this now: undefined if so, else the reason. The client asks the same
 * function before it applies, the server before it stores.
 */
export function refusalOf(
  operation: Operation,
  actor: Actor,
  view: LogView,
  situation: Situation,
): RefusalCode | undefined {
  if (situation.ended) return 'ended';
  if (actor.role === 'student' && !situation.pensUp) return 'pens-down';
  const draft = draftOf(view);
  for (const change of operation.changes) {
    const reason = changeRefusal(change, actor, draft);
    if (reason) return reason;
    if (change.do === 'add') {
      if (situation.full) return 'too-many';
      if (isKeptFrom(change.mark, operation, actor, situation)) return 'tool-away';
    }
    applyChanges(draft, [change]);
  }
  return leavesNoPage(view, draft) ? 'last-page' : undefined;
}

/** What is only put back was placed when it was allowed. */
function isKeptFrom(
  mark: Mark,
  { undoes }: Operation,
  { role, ideas }: Actor,
  { freedom }: Situation,
): boolean {
  if (role === 'teacher' || undoes !== undefined || mark.standIn) return false;
  const collected = ideas?.[mark.page];
  if (collected && mark.kind === 'note') return !collected.adding;
  if (collected?.grouping && isIdea(mark)) return false;
  return !mayPut(mark.kind, freedom);
}

/** Whether the actor may make one change, given the state before it. */
export function changeRefusal(change: Change, actor: Actor, view: LogView): RefusalCode | undefined {
  switch (change.do) {
    case 'add':
      return addRefusal(change.mark, actor, view);
    case 'patch': {
      const mark = view.marks.get(change.mark);
      if (!mark) return 'no-such-mark';
      if (!isMarkPatch(mark.kind, change.set)) return 'bad-mark';
      return touchRefusal(mark, actor, view, change.set);
    }
    case 'remove': {
      const mark = view.marks.get(change.mark);
      return mark ? touchRefusal(mark, actor, view) : undefined;
    }
    case 'addPage':
      if (actor.role !== 'teacher') return 'not-allowed';
      if (!isPage(change.page)) return 'bad-mark';
      return view.pages.has(change.page.id) ? 'already-there' : undefined;
    case 'patchPage':
      if (actor.role !== 'teacher') return 'not-allowed';
      if (!view.pages.has(change.page)) return 'no-such-page';
      return isPagePatch(change.set) ? undefined : 'bad-mark';
    case 'removePage':
      return actor.role === 'teacher' ? undefined : 'not-allowed';
  }
}

function leavesNoPage(before: LogView, after: LogView): boolean {
  return isAnyShown(before) && !isAnyShown(after);
}

function isAnyShown({ pages }: LogView): boolean {
  for (const page of pages.values()) if (!page.removed) return true;
  return false;
}

function isThere({ pages }: LogView, id: string): boolean {
  return pages.get(id)?.removed === false;
}

function addRefusal(mark: Mark, actor: Actor, view: LogView): RefusalCode | undefined {
  if (!isMark(mark)) return 'bad-mark';
  if (!isThere(view, mark.page)) return 'no-such-page';
  // Who answers anew, answers in the place of before.
  if (view.marks.has(mark.id) && !mark.standIn) return 'already-there';
  if (actor.role === 'teacher') return undefined;
  if (mark.author !== actor.id || !mayWriteIn(mark.space, actor)) return 'not-yours';
  return mark.locked || mark.credit !== undefined ? 'not-allowed' : undefined;
}

function touchRefusal(mark: Mark, actor: Actor, view: LogView, set: MarkPatch = {}): RefusalCode | undefined {
  if (!isThere(view, mark.page)) return 'no-such-page';
  const changesLock = set.locked !== undefined;
  if (actor.role === 'teacher') return mark.locked && !changesLock ? 'locked' : undefined;
  if (mark.author !== actor.id && mayGroup(mark, actor, set)) return mark.locked ? 'locked' : undefined;
  if (mark.author !== actor.id || !mayWriteIn(mark.space, actor)) return 'not-yours';
  if (changesLock) return 'not-allowed';
  return mark.locked ? 'locked' : undefined;
}

/** Whether a student may do something with another's note because they may put notes together. */
function mayGroup(mark: Mark, { ideas }: Actor, set: MarkPatch): boolean {
  return ideas?.[mark.page]?.grouping === true && isIdea(mark) && isGrouping(set);
}

/** Whether somebody's ink may go into a space. */
export function mayDrawIn(space: Space, actor: Actor): boolean {
  return actor.role === 'teacher' || mayWriteIn(space, actor);
}

function mayWriteIn(space: Space, actor: Actor): boolean {
  if (space === 'class' || space === `student:${actor.id}`) return true;
  return actor.tables.some((table) => space === `table:${table}`);
}

/** Whether who is allowed so much may put a mark of a kind. */
export function mayPut(kind: MarkKind, freedom: Freedom): boolean {
  return isWithin(KINDS[kind].needs, freedom);
}

/** Whether what has to be allowed is. */
export function isWithin(needed: Freedom, freedom: Freedom): boolean {
  return FREEDOMS.indexOf(needed) <= FREEDOMS.indexOf(freedom);
}

/** What decides who sees a mark. */
export type Belonging = Pick<Mark, 'page' | 'space' | 'author'>;

/**
 * Whether a person sees a mark: the teacher all; students their own copy, their table, and of what is the class's
 * what the teacher lets them.
 */
export function maySee({ page, space, author }: Belonging, actor: Actor): boolean {
  if (actor.role === 'teacher' || (actor.shown?.space === space && actor.shown.page === page)) return true;
  if (!mayWriteIn(space, actor)) return false;
  const { reads } = actor;
  if (!reads || space !== 'class' || author === actor.id) return true;
  return 'only' in reads ? reads.only.includes(author) : !reads.not.includes(author);
}
