import type { Mark } from '../marks/mark.js';
import type { Page } from '../pages/page.js';
import { applyChanges } from './apply.js';
import { invertChanges } from './invert.js';
import type { LogState } from './logState.js';
import { emptyState } from './logState.js';
import type { Change, LoggedOperation, Operation } from './operation.js';

/** Ids of what an operation touched, so that a view redraws only that. */
export interface Touched {
  marks: Set<string>;
  pages: Set<string>;
}

/**
 * A log as its author sees it: what the server confirmed, with the author's own unconfirmed
 * operations on top. When the server's order differs from the author's, whatever both touched is
 * computed anew from the confirmed state, so that all clients end up with the same.
 */
export class OptimisticLog {
  /** What is shown. */
  readonly visible: LogState = emptyState();
  private readonly confirmed: LogState = emptyState();
  private readonly waiting: Operation[] = [];

  get pending(): readonly Operation[] {
    return this.waiting;
  }

  /** Applies an own operation at once. Returns the changes that would take it back. */
  applyOwn(operation: Operation): Change[] {
    const inverse = invertChanges(this.visible, operation.changes);
    this.waiting.push(operation);
    applyChanges(this.visible, operation.changes);
    return inverse;
  }

  /** Takes in an operation that the server has stored, one's own or another's. */
  confirm(logged: LoggedOperation): Touched {
    const own = this.takeOut(logged.operation.id);
    applyChanges(this.confirmed, logged.operation.changes);
    // The server may have made something else of an own one than was done here.
    return this.recompute(own ? [logged.operation, own] : [logged.operation]);
  }

  /** Drops an own operation that the confirmed state holds already, or that the server refused. */
  drop(id: string): Touched {
    const own = this.takeOut(id);
    return this.recompute(own ? [own] : []);
  }

  /** Takes in marks as the server has them now, and drops those that are gone there. */
  load(marks: readonly Mark[], gone: readonly string[] = []): Touched {
    for (const mark of marks) this.confirmed.marks.set(mark.id, mark);
    for (const id of gone) this.confirmed.marks.delete(id);
    const ids = new Set([...marks.map(({ id }) => id), ...gone]);
    return this.restoreAll({ marks: ids, pages: new Set() });
  }

  /** Takes the server's pages in the place of all that were known. */
  loadPages(pages: readonly Page[]): Touched {
    const ids = new Set([...this.confirmed.pages.keys(), ...pages.map(({ id }) => id)]);
    this.confirmed.pages.clear();
    for (const page of pages) this.confirmed.pages.set(page.id, page);
    return this.restoreAll({ marks: new Set(), pages: ids });
  }

  /** What the server has confirmed of a page's marks, by id. */
  confirmedOn(page: string): string[] {
    return [...this.confirmed.marks.values()].filter((mark) => mark.page === page).map(({ id }) => id);
  }

  private takeOut(id: string): Operation | undefined {
    const at = this.waiting.findIndex((operation) => operation.id === id);
    return at < 0 ? undefined : this.waiting.splice(at, 1)[0];
  }

  private recompute(operations: readonly Operation[]): Touched {
    const touched: Touched = { marks: new Set(), pages: new Set() };
    for (const operation of operations) {
      const own = touchedBy(operation);
      for (const id of own.marks) touched.marks.add(id);
      for (const id of own.pages) touched.pages.add(id);
    }
    return this.restoreAll(touched);
  }

  /** Computes anew what is touched: the confirmed state with what waits on top. */
  private restoreAll(touched: Touched): Touched {
    for (const id of touched.marks) restore(this.visible.marks, this.confirmed.marks, id);
    for (const id of touched.pages) restore(this.visible.pages, this.confirmed.pages, id);
    for (const { changes } of this.waiting) {
      applyChanges(
        this.visible,
        changes.filter((change) => touches(change, touched)),
      );
    }
    return touched;
  }
}

export function touchedBy(operation: Operation): Touched {
  const touched: Touched = { marks: new Set(), pages: new Set() };
  for (const change of operation.changes) {
    const [set, id] = target(change);
    touched[set].add(id);
  }
  return touched;
}

function target(change: Change): ['marks' | 'pages', string] {
  switch (change.do) {
    case 'add':
      return ['marks', change.mark.id];
    case 'patch':
    case 'remove':
      return ['marks', change.mark];
    case 'addPage':
      return ['pages', change.page.id];
    case 'patchPage':
    case 'removePage':
      return ['pages', change.page];
  }
}

function touches(change: Change, touched: Touched): boolean {
  const [set, id] = target(change);
  return touched[set].has(id);
}

function restore<T>(visible: Map<string, T>, confirmed: Map<string, T>, id: string): void {
  const value = confirmed.get(id);
  if (value === undefined) visible.delete(id);
  else visible.set(id, value);
}
