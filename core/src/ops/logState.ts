import type { Mark } from '../marks/mark.js';
import type { Page } from '../pages/page.js';

/** What operations need of a map, so that not everything has to be in memory. */
export interface Table<T> {
  get(id: string): T | undefined;
  has(id: string): boolean;
  set(id: string, value: T): unknown;
  delete(id: string): boolean;
}

/** A log as operations see it: all its pages, and at least the marks that they touch. */
export interface LogView {
  pages: ReadonlyMap<string, Page> & Table<Page>;
  marks: Table<Mark>;
}

/** What a log amounts to: its pages and marks after all operations so far. */
export interface LogState extends LogView {
  pages: Map<string, Page>;
  marks: Map<string, Mark>;
}

/** A log's state as a whole. */
export interface LogSnapshot {
  seq: number;
  pages: Page[];
  marks: Mark[];
}

export function emptyState(): LogState {
  return { pages: new Map(), marks: new Map() };
}

export function stateOf(snapshot: Pick<LogSnapshot, 'pages' | 'marks'>): LogState {
  return {
    pages: new Map(snapshot.pages.map((page) => [page.id, page])),
    marks: new Map(snapshot.marks.map((mark) => [mark.id, mark])),
  };
}

export function snapshotOf(state: LogState, seq: number): LogSnapshot {
  return { seq, pages: [...state.pages.values()], marks: [...state.marks.values()] };
}

/** A table with changes of its own over another, which stays as it is. */
export class Overlay<T> implements Table<T> {
  private readonly changed = new Map<string, T | undefined>();

  constructor(private readonly base: Pick<Table<T>, 'get'>) {}

  get(id: string): T | undefined {
    return this.changed.has(id) ? this.changed.get(id) : this.base.get(id);
  }

  has(id: string): boolean {
    return this.get(id) !== undefined;
  }

  set(id: string, value: T): void {
    this.changed.set(id, value);
  }

  delete(id: string): boolean {
    const had = this.has(id);
    this.changed.set(id, undefined);
    return had;
  }
}

/** A view that can be changed without changing what is under it. */
export function draftOf({ pages, marks }: LogView): LogView {
  // Pages are few and have to be counted; marks are many.
  return { pages: new Map(pages), marks: new Overlay(marks) };
}
