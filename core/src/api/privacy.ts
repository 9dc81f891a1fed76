import type { PollValue } from '../live/poll.js';
import type { Mark } from '../marks/mark.js';

export interface StudentNameRequest {
  name: string;
}

/** How much of somebody is in one class. */
export interface StudentTrace {
  sitting: string;
  title: string;
  openedAt: number;
  isOpen: boolean;
  /** As they came in. */
  name: string;
  marks: number;
  /** What they said in the chat. */
  words: number;
}

/** Everything about somebody in one class. Times are ms since 1970-01-01 UTC. */
export interface StudentData {
  class: { title: string; openedAt: number; endedAt: number | null };
  name: string;
  joinedAt: number;
  marks: readonly Mark[];
  chat: readonly { words: string; at: number }[];
  answers: readonly { question: string; value: PollValue; at: number }[];
  /** Notes for which they voted. */
  votes: readonly string[];
}

export interface ForgetReply {
  /** How many classes they were taken out of. */
  classes: number;
}
