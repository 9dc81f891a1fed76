import type { Mark } from '../marks/mark.js';
import type { Page } from '../pages/page.js';

/** What a log amounts to: its pages and marks after all operations so far. */
export interface LogState {
  pages: Map<string, Page>;
  marks: Map<string, Mark>;
}

/** A log's state as it is stored and sent. */
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
