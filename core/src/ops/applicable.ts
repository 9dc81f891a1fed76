import type { LogState } from './logState.js';
import type { Change } from './operation.js';

/**
 * Those changes that still have something to change. An undo leaves out what others have removed
 * meanwhile, or brought back already.
 */
export function applicableChanges(changes: readonly Change[], state: LogState): Change[] {
  const present = new Set(state.marks.keys());
  return changes.filter((change) => {
    switch (change.do) {
      case 'add':
        return !present.has(change.mark.id) && present.add(change.mark.id);
      case 'remove':
        return present.delete(change.mark);
      case 'patch':
        return present.has(change.mark);
      case 'addPage':
        return !state.pages.has(change.page.id);
      case 'patchPage':
      case 'removePage':
        return state.pages.has(change.page);
    }
  });
}
