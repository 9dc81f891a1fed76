import { applyChanges } from './apply.js';
import type { LogView } from './logState.js';
import { draftOf } from './logState.js';
import type { Change } from './operation.js';
import type { Actor } from './permit.js';
import { changeRefusal } from './permit.js';

/**
 * What is left of an inverse now: without what others have removed or brought back already, and without
 * what the actor may not touch any more, such as marks that were locked meanwhile.
 */
export function undoChanges(inverse: readonly Change[], actor: Actor, view: LogView): Change[] {
  const draft = draftOf(view);
  return inverse.filter((change) => {
    if (!hasEffect(change, draft) || changeRefusal(change, actor, draft)) return false;
    applyChanges(draft, [change]);
    return true;
  });
}

function hasEffect(change: Change, { pages, marks }: LogView): boolean {
  switch (change.do) {
    case 'add':
      return !marks.has(change.mark.id);
    case 'patch':
    case 'remove':
      return marks.has(change.mark);
    case 'addPage':
      return !pages.has(change.page.id);
    case 'patchPage':
    case 'removePage':
      return pages.has(change.page);
  }
}

/** Ids of the pages that changes concern, given the state before them. */
export function pagesConcerned(changes: readonly Change[], { marks }: Pick<LogView, 'marks'>): string[] {
  const ids = new Set<string>();
  for (const change of changes) {
    switch (change.do) {
      case 'add':
        ids.add(change.mark.page);
        break;
      case 'patch':
      case 'remove': {
        const mark = marks.get(change.mark);
        if (mark) ids.add(mark.page);
        break;
      }
      case 'addPage':
        ids.add(change.page.id);
        break;
      default:
        ids.add(change.page);
    }
  }
  return [...ids];
}

/** Whether changes are of pages themselves: what is there, in which order, under which name. */
export function concernsPages(changes: readonly Change[]): boolean {
  return changes.some(({ do: kind }) => kind === 'addPage' || kind === 'patchPage' || kind === 'removePage');
}
