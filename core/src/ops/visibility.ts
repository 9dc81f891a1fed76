import type { Space } from '../marks/mark.js';
import type { LogSnapshot, LogState } from './logState.js';
import type { Change, LoggedOperation } from './operation.js';
import type { Actor } from './permit.js';
import { maySee } from './permit.js';

/**
 * The operation as the actor may see it: the same number, without changes in other people's spaces.
 * `inverse` and `state` (before or after the operation) tell the space of marks that it removes or patches.
 */
export function visibleTo(
  actor: Actor,
  logged: LoggedOperation,
  inverse: readonly Change[],
  state: LogState,
): LoggedOperation {
  if (actor.role === 'teacher') return logged;
  const spaces = new Map<string, Space>();
  for (const change of inverse) if (change.do === 'add') spaces.set(change.mark.id, change.mark.space);
  const spaceOf = (id: string) => spaces.get(id) ?? state.marks.get(id)?.space;
  const changes = logged.operation.changes.filter((change) => {
    const space = change.do === 'add' ? change.mark.space : 'mark' in change ? spaceOf(change.mark) : 'class';
    return space === undefined || maySee(space, actor);
  });
  if (changes.length === logged.operation.changes.length) return logged;
  return { ...logged, operation: { ...logged.operation, changes } };
}

export function visibleSnapshot(actor: Actor, snapshot: LogSnapshot): LogSnapshot {
  return { ...snapshot, marks: snapshot.marks.filter((mark) => maySee(mark.space, actor)) };
}
