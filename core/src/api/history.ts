import type { WireChange } from '../live/wire.js';
import type { Space } from '../marks/shared.js';
import type { LoggedOperation } from '../ops/operation.js';

/** What was done to a page, oldest first. */
export interface HistoryReply {
  steps: LoggedOperation<WireChange>[];
}

/** Asks for a page as it was after an operation, as far as the marks of a space go. */
export interface RestoreRequest {
  space: Space;
  /** The operation's number; 0 for before all. */
  seq: number;
}

/** What was done in a log comes in lines, oldest first: this one first, then some of its operations in each. */
export interface ReplayHead {
  /** How many operations there are. */
  count: number;
  /** Where the class was when; none of a lesson. */
  turns: { at: number; page: string }[];
}
