/** Something that somebody has said to the whole class. */
export interface ChatMessage {
  id: string;
  author: string;
  /** What a student is called; empty where that is not to be seen, null of the teacher. */
  name: string | null;
  /** Empty once it is removed. */
  words: string;
  /** Server time, milliseconds since 1970-01-01 UTC. */
  at: number;
  /** Whether the teacher has taken it away. */
  removed: boolean;
}

export const CHAT_LIMITS = { words: 500, messages: 5000, atOnce: 200 } as const;

/** Says something to the class. What arrives twice under an id counts once. */
export interface SayMessage {
  sitting: string;
  id: string;
  words: string;
}

/** Takes a message away, or puts it back. */
export interface UnsayMessage {
  sitting: string;
  id: string;
  removed: boolean;
}

/** The last messages of a class, oldest first. */
export interface ChatReply {
  messages: ChatMessage[];
}

/** Tells of a message that is new or has changed. */
export interface SaidMessage {
  sitting: string;
  message: ChatMessage;
}

/** The notes of a class as they are. */
export interface NotesReply {
  version: number;
  doc: object;
}

/** Steps of writing in the class's notes, made on a version of them, by one browser. */
export interface NoteStepsMessage {
  sitting: string;
  version: number;
  steps: readonly object[];
  client: string;
}

/** Steps that lead on from a version; with none, nothing was missed. */
export interface NotedMessage {
  sitting: string;
  version: number;
  steps: readonly object[];
  clients: readonly string[];
}

/** What becomes of steps: they were taken, or others came first, which are told where they are still known. */
export type NoteStepsReply = { taken: true } | { taken: false; missed: NotedMessage | null };
