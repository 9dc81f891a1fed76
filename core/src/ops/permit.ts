import { isMark, isMarkPatch } from '../marks/check.js';
import type { Mark, Space } from '../marks/mark.js';
import { isPage, isPagePatch } from '../pages/check.js';
import type { LogState } from './logState.js';
import type { Change, Operation } from './operation.js';
import type { RefusalCode } from './refusal.js';

/** Who acts on a log. */
export interface Actor {
  id: string;
  role: 'teacher' | 'student';
  /** Spaces a student may write in, beside the class. */
  tables: readonly string[];
}

/** What the state of a class allows. */
export interface Situation {
  pensUp: boolean;
  ended: boolean;
  /** Whether a page is there; in a sitting the pages are those of its lesson. */
  hasPage(id: string): boolean;
}

/** Most marks on one log; keeps a runaway client from filling the disk. */
export const MAX_MARKS = 200_000;

/**
 * Whether the actor may do this now: undefined if so, else the reason. The client asks the same
 * function before it applies, the server before it stores.
 */
export function refusalOf(
  operation: Operation,
  actor: Actor,
  state: LogState,
  situation: Situation,
): RefusalCode | undefined {
  if (situation.ended) return 'ended';
  if (actor.role === 'student' && !situation.pensUp) return 'pens-down';
  for (const change of operation.changes) {
    const reason = changeRefusal(change, actor, state, situation);
    if (reason) return reason;
  }
  return undefined;
}

function changeRefusal(
  change: Change,
  actor: Actor,
  state: LogState,
  situation: Situation,
): RefusalCode | undefined {
  switch (change.do) {
    case 'add':
      return addRefusal(change.mark, actor, state, situation);
    case 'patch': {
      const mark = state.marks.get(change.mark);
      if (!mark) return 'no-such-mark';
      if (!isMarkPatch(mark.kind, change.set)) return 'bad-mark';
      return touchRefusal(mark, actor, situation, change.set.locked !== undefined);
    }
    case 'remove': {
      const mark = state.marks.get(change.mark);
      return mark ? touchRefusal(mark, actor, situation, false) : undefined;
    }
    case 'addPage':
      if (actor.role !== 'teacher') return 'not-allowed';
      if (!isPage(change.page)) return 'bad-mark';
      return state.pages.has(change.page.id) ? 'already-there' : undefined;
    case 'patchPage':
      if (actor.role !== 'teacher') return 'not-allowed';
      if (!state.pages.has(change.page)) return 'no-such-page';
      return isPagePatch(change.set) ? undefined : 'bad-mark';
    case 'removePage':
      return actor.role === 'teacher' ? undefined : 'not-allowed';
  }
}

function addRefusal(
  mark: Mark,
  actor: Actor,
  state: LogState,
  situation: Situation,
): RefusalCode | undefined {
  if (!isMark(mark)) return 'bad-mark';
  if (!situation.hasPage(mark.page)) return 'no-such-page';
  if (state.marks.has(mark.id)) return 'already-there';
  if (state.marks.size >= MAX_MARKS) return 'too-many';
  if (actor.role === 'teacher') return undefined;
  if (mark.author !== actor.id || !mayWriteIn(mark.space, actor)) return 'not-yours';
  return mark.locked ? 'not-allowed' : undefined;
}

function touchRefusal(
  mark: Mark,
  actor: Actor,
  situation: Situation,
  changesLock: boolean,
): RefusalCode | undefined {
  if (!situation.hasPage(mark.page)) return 'no-such-page';
  if (actor.role === 'teacher') return mark.locked && !changesLock ? 'locked' : undefined;
  if (mark.author !== actor.id || !mayWriteIn(mark.space, actor)) return 'not-yours';
  if (changesLock) return 'not-allowed';
  return mark.locked ? 'locked' : undefined;
}

function mayWriteIn(space: Space, actor: Actor): boolean {
  if (space === 'class' || space === `student:${actor.id}`) return true;
  return actor.tables.some((table) => space === `table:${table}`);
}

/** Whether a person sees a space: the teacher all, students the class, their table and their own copy. */
export function maySee(space: Space, actor: Actor): boolean {
  return actor.role === 'teacher' || mayWriteIn(space, actor);
}
