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
  turns: ClassTurn[];
  /** In the order of their times. */
  stops: ReplayStop[];
}

/** A class came to a page, with which a chapter of it begins. */
export interface ClassTurn {
  id: number;
  at: number;
  page: string;
  /** What the chapter is called; null where it is called as its page is. */
  name: string | null;
}

/** Names a chapter; an empty name is that of its page. */
export interface ChapterName {
  name: string;
}

/** Most characters that a chapter's name has. */
export const MOST_CHAPTER_NAME = 120;

/** Most stops that one lesson or class has, and most characters that each says. */
export const MOST_STOPS = 200;
export const MOST_STOP_TEXT = 300;
/** Longest time that a stop counts down, seconds. */
export const MOST_STOP_SECONDS = 3600;

/** Where playing again waits until whoever watches goes on. */
export interface StopPlace {
  /** The server's time of what is seen then; milliseconds since 1970. */
  at: number;
  page: string;
  /** What is to be done meanwhile; may be empty. */
  text: string;
  /** How long there is for it; null where no time is counted. */
  seconds: number | null;
}

export interface ReplayStop extends StopPlace {
  id: string;
}
