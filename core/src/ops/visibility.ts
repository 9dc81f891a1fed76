import type { Space } from '../marks/shared.js';
import type { Change, LoggedOperation } from './operation.js';
import type { Actor } from './permit.js';
import type { Belonging } from './permit.js';
import { maySee } from './permit.js';

/** Whether what is in a space is shown to whoever works in another: what is the class's is shown to all. */
export function isShownIn(working: Space, space: Space): boolean {
  return space === 'class' || space === working;
}

/**
 * The operation as the actor may see it: the same number, without changes in other people's spaces.
 * `inverse` and `known` tell of marks that it removes or patches; what is known to neither is
 * gone since, and shown to nobody but the teacher.
 */
export function visibleTo(
  actor: Actor,
  logged: LoggedOperation,
  inverse: readonly Change[],
  known: (mark: string) => Belonging | undefined,
): LoggedOperation {
  if (actor.role === 'teacher') return logged;
  const removed = new Map<string, Belonging>();
  for (const change of inverse) if (change.do === 'add') removed.set(change.mark.id, change.mark);
  const changes = logged.operation.changes.filter((change) => {
    if (change.do === 'add') return maySee(change.mark, actor);
    if (!('mark' in change)) return true;
    const mark = removed.get(change.mark) ?? known(change.mark);
    return mark !== undefined && maySee(mark, actor);
  });
  if (changes.length === logged.operation.changes.length) return logged;
  return { ...logged, operation: { ...logged.operation, changes } };
}
