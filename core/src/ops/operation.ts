import type { Mark, MarkPatch } from '../marks/mark.js';
import type { Page, PagePatch } from '../pages/page.js';

/** One step of an operation. */
export type Change =
  | { do: 'add'; mark: Mark }
  | { do: 'patch'; mark: string; set: MarkPatch }
  | { do: 'remove'; mark: string }
  | { do: 'addPage'; page: Page }
  | { do: 'patchPage'; page: string; set: PagePatch }
  | { do: 'removePage'; page: string };

/** What a person did in one go: applied, refused, and undone as a whole. */
export interface Operation<C = Change> {
  /** Made by the client; an operation that arrives twice counts once. */
  id: string;
  changes: C[];
  /** Id of the operation that this one takes back. */
  undoes?: string;
}

/** An operation that has its place in a log. */
export interface LoggedOperation<C = Change> {
  /** 1, 2, 3 … without gaps. */
  seq: number;
  author: string;
  /** Server time, milliseconds since 1970-01-01 UTC. */
  at: number;
  operation: Operation<C>;
}
