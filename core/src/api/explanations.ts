/**
 * What is recorded beside the log while somebody explains: `notes` are lines of JSON (`Noted`), `voice` is sound, `video` what
 * moved under the marks (a shown screen, a camera, a recording that was played), `face` the picture of whoever explains.
 */
export const TRACKS = ['notes', 'voice', 'video', 'face'] as const;
export type Track = (typeof TRACKS)[number];
export const MEDIA_TRACKS = ['voice', 'video', 'face'] as const satisfies readonly Track[];
export type MediaTrack = (typeof MEDIA_TRACKS)[number];
export const VIDEO_TRACKS = ['video', 'face'] as const satisfies readonly MediaTrack[];
export type VideoTrack = (typeof VIDEO_TRACKS)[number];

/** Something that was recorded without a break, with the media type (RFC 6838) of each track; null where there is none. */
export interface Take extends Record<MediaTrack, string | null> {
  id: string;
  /** When it began, by the server's clock; milliseconds since 1970-01-01 UTC. */
  startedAt: number;
  /** Milliseconds. */
  length: number;
}

/** A place in a take. */
export interface TakePlace {
  take: string;
  /** Milliseconds since it began. */
  from: number;
}

/** A stretch of a take that plays; what is heard meanwhile may come from elsewhere. */
export interface Part extends TakePlace {
  /** Milliseconds. */
  length: number;
  /** Where what is heard comes from, if not from the same place; null where nothing is. */
  voice?: TakePlace | null;
}

/** Where playing an explanation waits until whoever watches goes on. */
export interface ExplanationStop extends TakePlace {
  id: string;
  /** What is to be done meanwhile; may be empty. */
  text: string;
  /** How long there is for it; null where no time is counted. */
  seconds: number | null;
}

/** What the chapter is called that begins with the page turned to at a place. */
export interface ExplanationChapter extends TakePlace {
  name: string;
}

/** What is said from a place on, to be read. */
export interface Caption extends TakePlace {
  /** Milliseconds; 0 of one that has no time yet. */
  length: number;
  text: string;
}

/** What a teacher may say of an explanation. */
export interface ExplanationSettings {
  name: string;
  /** What of its takes plays, in which order; null where all of them do as they were recorded. */
  parts: Part[] | null;
  stops: ExplanationStop[];
  /** Those that are not called as their pages are. */
  chapters: ExplanationChapter[];
  captions: Caption[];
  /** Whether it is complete; nobody else sees one that is not. */
  finished: boolean;
}

/** A recorded explanation of a lesson's or class's pages. */
export interface Explanation extends ExplanationSettings {
  id: string;
  createdAt: number;
  /** In the order in which they were recorded. */
  takes: Take[];
}

export interface ExplanationsReply {
  /** The server's clock, milliseconds since 1970-01-01 UTC. */
  now: number;
  /** Bytes that the server has room for. */
  room: number;
  explanations: Explanation[];
}

export const MOST_EXPLANATIONS = 200;
export const MOST_TAKES = 500;
export const MOST_PARTS = 2000;
export const MOST_EXPLANATION_STOPS = 500;
export const MOST_EXPLANATION_CHAPTERS = 500;
export const MOST_CAPTIONS = 3000;
export const MOST_CAPTION_TEXT = 500;
export const MOST_EXPLANATION_NAME = 120;
/** Longest take, milliseconds: a school day. */
export const MOST_TAKE_MS = 12 * 3600 * 1000;
/** Largest piece of a track, bytes, and most of them; a piece is some seconds. */
export const MOST_PIECE_BYTES = 2_000_000;
export const MOST_PIECES = 20_000;
