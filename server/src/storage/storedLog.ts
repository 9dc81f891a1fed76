import type { Change, LoggedOperation, Mark, Page } from '@doodla/core';

/** A stored operation with what takes it back. */
export interface AppendedOperation {
  logged: LoggedOperation;
  inverse: Change[];
}

/** An operation to be stored, with what becomes of what it touches. */
export interface Append extends AppendedOperation {
  /** Ids of the pages that it concerns. */
  pages: string[];
  /** Touched marks as they are afterwards; undefined for those that are gone. */
  marks: ReadonlyMap<string, Mark | undefined>;
  /** How many marks more there are afterwards. */
  markCountChange: number;
  touchedPages: ReadonlyMap<string, Page | undefined>;
}

/** A part of a log: so many operations after a number. */
export interface Stretch {
  after: number;
  count: number;
}

/** What is known of a log without its marks. */
export interface LogHead {
  seq: number;
  pages: Map<string, Page>;
  markCount: number;
}
