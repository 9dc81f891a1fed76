import type { UndoEntry } from '../live/messages.js';
import type { Change, Operation } from '../ops/operation.js';

/** An own step that is being taken back or done again. */
export interface Taking {
  entry: UndoEntry;
  from: UndoEntry[];
  to: UndoEntry[];
  /** Where it lay. */
  at: number;
}

/** What a person can undo and redo, by the page in sight. */
export class UndoStacks {
  private undos: UndoEntry[] = [];
  private redos: UndoEntry[] = [];
  /** Steps back that the server has not acknowledged, by the id of the operation that takes them. */
  private readonly taking = new Map<string, Taking>();

  /** Notes a new step, after which nothing can be done again. */
  did(entry: UndoEntry): void {
    this.undos.push(entry);
    this.redos = [];
  }

  /** Begins with what the server says can be undone. */
  restore(entries: readonly UndoEntry[]): void {
    this.undos = [...entries];
  }

  /** Puts what an earlier load of this page could not send on top. */
  replay({ undoes }: Operation, entry: UndoEntry): void {
    if (this.undos.some(({ id }) => id === entry.id)) return;
    if (undoes === undefined) return this.did(entry);
    const [from, to] = this.undos.some(({ id }) => id === undoes)
      ? [this.undos, this.redos]
      : [this.redos, this.undos];
    const at = from.findIndex(({ id }) => id === undoes);
    const [undone] = at < 0 ? [] : from.splice(at, 1);
    if (undone) this.took({ entry: undone, from, to, at }, entry.id, entry.inverse);
  }

  canUndo(page: string | undefined): boolean {
    return lastOn(this.undos, page) >= 0;
  }

  canRedo(page: string | undefined): boolean {
    return lastOn(this.redos, page) >= 0;
  }

  /** Takes the last step that concerns a page off the stack. */
  take(which: 'undo' | 'redo', page: string | undefined): Taking | undefined {
    const [from, to] = which === 'undo' ? [this.undos, this.redos] : [this.redos, this.undos];
    const at = lastOn(from, page);
    const [entry] = at < 0 ? [] : from.splice(at, 1);
    return entry && { entry, from, to, at };
  }

  /** Takes a certain step off the undo stack. */
  takeStep(id: string): Taking | undefined {
    const { undos: from, redos: to } = this;
    const at = from.findIndex((entry) => entry.id === id);
    const [entry] = at < 0 ? [] : from.splice(at, 1);
    return entry && { entry, from, to, at };
  }

  /** Puts a step back that could not be taken. */
  putBack({ entry, from, at }: Taking): void {
    from.splice(at, 0, entry);
  }

  /** Notes what was done to take a step. */
  took(taken: Taking, operation: string, inverse: Change[] | undefined): void {
    const { pages, ofPages } = taken.entry;
    taken.to.push({ id: operation, pages, ofPages, ...(inverse && { inverse }) });
    this.taking.set(operation, taken);
  }

  /** The server has stored an operation. */
  stored(operation: string): void {
    this.taking.delete(operation);
  }

  /** The server has refused an operation: it is no step, and what it should have taken back still is one. */
  refused(operation: string): void {
    const taken = this.taking.get(operation);
    if (taken) this.putBack(taken);
    this.taking.delete(operation);
    this.undos = this.undos.filter(({ id }) => id !== operation);
    this.redos = this.redos.filter(({ id }) => id !== operation);
  }
}

/** Steps of pages themselves can be undone from every page: the page may be out of sight. */
function lastOn(entries: readonly UndoEntry[], page: string | undefined): number {
  return entries.findLastIndex(
    ({ ofPages, pages }) => ofPages || (page !== undefined && pages.includes(page)),
  );
}
