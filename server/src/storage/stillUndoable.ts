/** One of a person's own operations. */
interface OwnOperation {
  id: string;
  undoes: string | null;
}

/**
 * What is left to undo after a person's own operations, oldest first. An undo takes its operation off the
 * list; a redo, which takes back an undo, is itself something to undo. What undoes something older than the
 * list begins with is taken for an undo.
 */
export function stillUndoable<Row extends OwnOperation>(own: readonly Row[]): Row[] {
  const undoing = new Map<string, boolean>();
  const entries: Row[] = [];
  for (const row of own) {
    const isUndo = row.undoes !== null && undoing.get(row.undoes) !== true;
    undoing.set(row.id, isUndo);
    if (!isUndo) entries.push(row);
    const undone = entries.findLastIndex(({ id }) => id === row.undoes);
    if (isUndo && undone >= 0) entries.splice(undone, 1);
  }
  return entries;
}
