import type { Ideas } from '../ideas/ideaRules.js';
import type { StudentTable, Ways } from '../live/copies.js';
import type { Poll, PollValue } from '../live/poll.js';
import type { Rules } from '../live/rules.js';
import type { Mark } from '../marks/mark.js';
import type { Page } from '../pages/page.js';

/** What a lesson archive says it is, and how it is laid out. */
export const ARCHIVE = { format: 'doodla-lesson', version: 1 } as const;

/** The file in an archive that says what is in it. */
export const HEAD_FILE = 'lesson.json';

/** A page with what is on it, in every space; a file of an archive. */
export interface ArchivedPage {
  page: Page;
  marks: readonly Mark[];
}

/** An original or picture, as a file of the archive. */
export interface ArchivedFile {
  id: string;
  kind: 'pdf' | 'web' | 'media' | 'picture';
  /** Where it lies in the archive. */
  path: string;
  sha256: string;
  name: string;
  /** Media type (RFC 6838). */
  type: string;
  pageCount: number;
  /** What the speaker has beside each page. */
  notes: readonly string[] | null;
  /** The class that alone has it; null where it is the lesson's. */
  class: string | null;
  /** Who put it on a page. */
  author: string | null;
  createdAt: number;
}

export interface ArchivedStudent {
  id: string;
  name: string;
  colour: string;
  seat: number;
  joinedAt: number;
}

export interface ArchivedSaying {
  author: string;
  /** What a student was called then; null of the teacher. */
  name: string | null;
  words: string;
  at: number;
}

export interface ArchivedPoll {
  poll: Poll;
  askedAt: number;
  closedAt: number | null;
  answers: readonly { student: string; value: PollValue; at: number }[];
}

export interface ArchivedVote {
  mark: string;
  page: string;
  student: string;
}

/** One teaching of the lesson, with everything that is left of it. Times are ms since 1970-01-01 UTC. */
export interface ArchivedClass {
  id: string;
  title: string;
  openedAt: number;
  endedAt: number | null;
  /** The page that the class was on. */
  page: string;
  rules: Rules | null;
  ways: Ways | null;
  tables: readonly StudentTable[] | null;
  ideas: Ideas | null;
  students: readonly ArchivedStudent[];
  chat: readonly ArchivedSaying[];
  /** As ProseMirror has it; null where nothing was noted down. */
  notes: object | null;
  polls: readonly ArchivedPoll[];
  votes: readonly ArchivedVote[];
  /** Files of its pages. */
  pages: readonly string[];
}

/** What is in an archive but pages and files. */
export interface ArchiveHead {
  format: (typeof ARCHIVE)['format'];
  version: (typeof ARCHIVE)['version'];
  madeAt: number;
  title: string;
  tags: readonly string[];
  /** The author of what the teacher made. */
  teacher: { id: string; name: string };
  /** Files of the lesson's own pages. */
  pages: readonly string[];
  classes: readonly ArchivedClass[];
  files: readonly ArchivedFile[];
}

/** Why an archive cannot be read: it is none, is of a later Doodla, or something in it is broken. */
export type ArchiveFault = 'none' | 'newer' | 'broken';

export class UnreadableArchive extends Error {
  override name = 'UnreadableArchive';

  constructor(readonly fault: ArchiveFault) {
    super(`This archive cannot be read: ${fault}`);
  }
}
