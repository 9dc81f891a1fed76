import type { Change, UndoEntry } from '@doodla/core';

interface OwnOperation {
  id: string;
  undoes: string | null;
  inverse: Change[];
}

/**
 * What is left to undo after a person's own operations, oldest first. An undo takes its operation
 * off the list; a redo, which takes back an undo, is itself something to undo.
 */
export function undoableOf(own: readonly OwnOperation[]): UndoEntry[] {
  const entries: UndoEntry[] = [];
  for (const { id, undoes, inverse } of own) {
    const undone = entries.findIndex((entry) => entry.id === undoes);
    if (undone >= 0) entries.splice(undone, 1);
    else entries.push({ id, inverse });
  }
  return entries;
}
