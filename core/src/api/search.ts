/** A part of a text; what was looked for stands out. */
export interface SnippetPart {
  words: string;
  hit: boolean;
}

/** A lesson that is found by its title or tags. */
export interface LessonHit {
  lesson: string;
  title: string;
}

/** A class that is found by its name, group or date, or by its notes. */
export interface ClassHit {
  sitting: string;
  lesson: string;
  title: string;
  lessonTitle: string;
  openedAt: number;
  /** Of its notes, where it is found by them. */
  snippet: readonly SnippetPart[];
}

/** A page that is found by what is on it. */
export interface PageHit {
  lesson: string;
  lessonTitle: string;
  /** The class whose page it is, where it is not the lesson's. */
  sitting: string | null;
  sittingTitle: string | null;
  page: string;
  /** Its number, from 1. */
  number: number;
  snippet: readonly SnippetPart[];
}

export interface SearchReply {
  lessons: readonly LessonHit[];
  classes: readonly ClassHit[];
  pages: readonly PageHit[];
}
