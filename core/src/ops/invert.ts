import type { Mark, MarkPatch } from '../marks/mark.js';
import type { Page, PagePatch } from '../pages/page.js';
import { applyChanges } from './apply.js';
import type { LogView } from './logState.js';
import { draftOf } from './logState.js';
import type { Change } from './operation.js';

/**
 * The changes that take `changes` back, given the state before them. Only fields that were changed
 * are put back, so that what others changed meanwhile stays.
 */
export function invertChanges(before: LogView, changes: readonly Change[]): Change[] {
  const state = draftOf(before);
  const inverse: Change[] = [];
  for (const change of changes) {
    const back = invertChange(state, change);
    if (back) inverse.unshift(back);
    applyChanges(state, [change]);
  }
  return inverse;
}

function invertChange(state: LogView, change: Change): Change | undefined {
  switch (change.do) {
    case 'add': {
      const before = state.marks.get(change.mark.id);
      return before ? { do: 'add', mark: before } : { do: 'remove', mark: change.mark.id };
    }
    case 'patch': {
      const mark = state.marks.get(change.mark);
      return mark && { do: 'patch', mark: mark.id, set: oldMarkFields(mark, change.set) };
    }
    case 'remove': {
      const mark = state.marks.get(change.mark);
      return mark && { do: 'add', mark };
    }
    case 'addPage':
      return { do: 'removePage', page: change.page.id };
    case 'patchPage': {
      const page = state.pages.get(change.page);
      return page && { do: 'patchPage', page: page.id, set: oldPageFields(page, change.set) };
    }
    case 'removePage': {
      const page = state.pages.get(change.page);
      return page && { do: 'addPage', page };
    }
  }
}

function oldPageFields(page: Page, set: PagePatch): PagePatch {
  const old = oldFields<Page, PagePatch>(page, set);
  if ('gauge' in set) old.gauge ??= null;
  return old;
}

function oldMarkFields(mark: Mark, set: MarkPatch): MarkPatch {
  const { style, ...rest } = set;
  const old = oldFields<Mark, MarkPatch>(mark, rest);
  // A text that never had parts, and a shape that showed no measures, has none again.
  if (rest.parts) old.parts ??= [];
  if (rest.measures) old.measures ??= { ...rest.measures, shown: [] };
  if ('rule' in set) old.rule ??= null;
  if ('hidden' in set) old.hidden ??= false;
  if ('folded' in set) old.folded ??= null;
  if (style) old.style = oldFields<Mark['style'], object>(mark.style, style);
  return old;
}

function oldFields<Whole extends object, Part extends object>(whole: Whole, set: Part): Part {
  return Object.fromEntries(Object.keys(set).map((key) => [key, whole[key as keyof Whole]])) as Part;
}
