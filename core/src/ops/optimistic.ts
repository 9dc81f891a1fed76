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
  private confirmed: LogState = emptyState();
  private waiting: Operation[] = [];

  get pending(): readonly Operation[] {
    return this.waiting;
  }

  /** Starts over from a confirmed state; pending operations stay on top of it. */
  reset(confirmed: LogState): void {
    this.confirmed = confirmed;
    replace(this.visible.pages, confirmed.pages);
    replace(this.visible.marks, confirmed.marks);
    for (const operation of this.waiting) applyChanges(this.visible, operation.changes);
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
    this.waiting = this.waiting.filter((operation) => operation.id !== logged.operation.id);
    applyChanges(this.confirmed, logged.operation.changes);
    return this.recompute(logged.operation);
  }

  /** Drops an own operation that the server refused. */
  refuse(id: string): Touched {
    const refused = this.waiting.find((operation) => operation.id === id);
    this.waiting = this.waiting.filter((operation) => operation.id !== id);
    return refused ? this.recompute(refused) : { marks: new Set(), pages: new Set() };
  }

  private recompute(operation: Operation): Touched {
    const touched = touchedBy(operation);
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

function replace<T>(target: Map<string, T>, source: Map<string, T>): void {
  target.clear();
  for (const [key, value] of source) target.set(key, value);
}
