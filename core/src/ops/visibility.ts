import type { Space } from '../marks/shared.js';
import type { Change, LoggedOperation } from './operation.js';
import type { Actor } from './permit.js';
import { maySee } from './permit.js';

/** Whether what is in a space is shown to whoever works in another: what is the class's is shown to all. */
export function isShownIn(working: Space, space: Space): boolean {
  return space === 'class' || space === working;
}

/**
 * The operation as the actor may see it: the same number, without changes in other people's spaces.
 * `inverse` and `spaceOf` tell the space of marks that it removes or patches; what is known to neither is
 * gone since, and shown to nobody but the teacher.
 */
export function visibleTo(
  actor: Actor,
  logged: LoggedOperation,
  inverse: readonly Change[],
  spaceOf: (mark: string) => Space | undefined,
): LoggedOperation {
  if (actor.role === 'teacher') return logged;
  const spaces = new Map<string, Space>();
  for (const change of inverse) if (change.do === 'add') spaces.set(change.mark.id, change.mark.space);
  const changes = logged.operation.changes.filter((change) => {
    if (change.do === 'add') return maySee(change.mark.space, actor);
    if (!('mark' in change)) return true;
    const space = spaces.get(change.mark) ?? spaceOf(change.mark);
    return space !== undefined && maySee(space, actor);
  });
  if (changes.length === logged.operation.changes.length) return logged;
  return { ...logged, operation: { ...logged.operation, changes } };
}
