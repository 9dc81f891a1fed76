export interface SittingSummary {
  id: string;
  title: string;
  code: string;
  /** Milliseconds since 1970-01-01 UTC, as all times here. */
  openedAt: number;
  endedAt: number | null;
  /** When it was dropped; null while it is kept. */
  droppedAt: number | null;
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

/** Whether the door of a class is shut for those who have the code. */
export interface DoorRequest {
  locked: boolean;
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
}

/** The class of a code. */
export interface CodeReply {
  title: string;
}

/** A student's place in a class. */
export interface Seat {
  sitting: string;
  lesson: string;
  student: { id: string; name: string; colour: string };
  token: string;
}

/** Somebody of that name is in the class: the teacher is asked whether it is the same person. */
export interface Asking {
  ask: string;
}
