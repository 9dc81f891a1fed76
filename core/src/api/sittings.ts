import type { Ask } from '../live/messages.js';
import type { PollState } from '../live/poll.js';
import type { ChatMessage } from '../live/talk.js';
import type { MarkName } from '../marks/kind.js';

export interface SittingSummary {
  id: string;
  title: string;
  code: string;
  /** Milliseconds since 1970-01-01 UTC, as all times here. */
  openedAt: number;
  endedAt: number | null;
  /** When it was dropped; null while it is kept. */
  droppedAt: number | null;
  /** When it will be cleared away; null while it has not ended. */
  goneAt: number | null;
}

/** For how many days more a class is to be kept. */
export interface KeepingRequest {
  days: number;
}

export interface KeepingReply {
  goneAt: number;
}

/** A class that has not ended. */
export interface OpenSitting {
  id: string;
  title: string;
  code: string;
  lessonId: string;
  lessonTitle: string;
  openedAt: number;
}

/** A class that has ended and is kept. */
export interface PastSitting {
  id: string;
  title: string;
  lessonId: string;
  lessonTitle: string;
  /** The group that was taught, if it was one of the teacher's. */
  groupTitle: string | null;
  openedAt: number;
}

export interface SittingDetail extends SittingSummary {
  lessonId: string;
  lessonTitle: string;
  joinUrl: string;
}

/** A class to be started, on its first page or a given one. */
export interface StartRequest {
  title: string;
  page?: string | undefined;
}

/** How a class ends: its marks are kept under a title, or dropped. */
export interface EndRequest {
  title?: string | undefined;
  drop: boolean;
}

/** Which marks of a class become prepared ones: all, those of a page, or chosen ones. */
export interface ToLessonRequest {
  page?: string | undefined;
  marks?: readonly string[] | undefined;
}

export interface MarksReply {
  marks: string[];
}

/** Pages of a class that its lesson keeps too. */
export interface KeepPagesRequest {
  pages: readonly string[];
}

/** Who is let in of those who have the code; what is left out stays as it is. */
export interface DoorRequest {
  /** Nobody else. */
  locked?: boolean | undefined;
  /** Only whom the teacher nods to. */
  nodding?: boolean | undefined;
  /** Who knows it; an empty one is none. */
  password?: string | undefined;
  /** The group that is taught; null for none. */
  group?: string | null | undefined;
}

export interface DoorReply {
  /** The join code, which a group may keep. */
  code: string;
}

/** Whether somebody is let in who asked. */
export interface NodRequest {
  grant: boolean;
}

export interface CountReply {
  count: number;
}

export interface JoinRequest {
  code: string;
  name: string;
  /** What this device was given when it was in the class before. */
  token?: string | undefined;
  password?: string | undefined;
}

/** The class of a code, as whoever wants to come in has to know it. */
export interface LookRequest {
  code: string;
  password?: string | undefined;
}

export interface CodeReply {
  title: string;
  /** Whether a password is wanted that was not given. */
  wantsPassword: boolean;
  /** Names to choose from, without those who are here; empty where any name will do. */
  names: readonly string[];
}

/** A student's place in a class. */
export interface Seat {
  sitting: string;
  lesson: string;
  student: { id: string; name: string; colour: string; dash: number };
  token: string;
}

/** The teacher is asked first. */
export interface Asking {
  ask: string;
  why: Ask['why'];
}

/** Something that was taken off the pages of a class. */
export interface Removal {
  /** The operation. */
  id: string;
  /** Milliseconds since 1970-01-01 UTC. */
  at: number;
  /** Who did it. */
  by: string;
  page: string;
  /** Whose marks, and how many of each sort. */
  marks: readonly { author: string; what: MarkName; count: number }[];
  /** How many of them could be put back now. */
  missing: number;
}

/** What a class has said, noted down and answered, to be read afterwards. */
export interface ClassWords {
  /** Oldest first, without what the teacher has taken away. */
  chat: readonly ChatMessage[];
  /** As ProseMirror has it (`core/notes`); null where nothing was noted down. */
  notes: object | null;
  /** Oldest first. */
  polls: readonly PollState[];
}
