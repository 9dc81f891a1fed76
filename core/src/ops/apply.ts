import type { Mark, MarkPatch } from '../marks/mark.js';
import type { LogView } from './logState.js';
import type { Change } from './operation.js';

/**
 * Applies changes to a state in place. Changes to what is no longer there do nothing, so that two
 * people who remove the same mark at once do not get into each other's way.
 */
export function applyChanges(state: LogView, changes: readonly Change[]): void {
  for (const change of changes) applyChange(state, change);
}

function applyChange(state: LogView, change: Change): void {
  switch (change.do) {
    case 'add':
      state.marks.set(change.mark.id, change.mark);
      return;
    case 'patch': {
      const mark = state.marks.get(change.mark);
      if (mark) state.marks.set(mark.id, patchMark(mark, change.set));
      return;
    }
    case 'remove':
      state.marks.delete(change.mark);
      return;
    case 'addPage':
      state.pages.set(change.page.id, change.page);
      return;
    case 'patchPage': {
      const page = state.pages.get(change.page);
      if (page) state.pages.set(page.id, { ...page, ...change.set });
      return;
    }
    case 'removePage':
      state.pages.delete(change.page);
  }
}

/** The mark with some fields changed; style is changed field by field. */
export function patchMark(mark: Mark, set: MarkPatch): Mark {
  const style = set.style ? { ...mark.style, ...set.style } : mark.style;
  return { ...mark, ...set, style } as Mark;
}
