import type { ProblemReply } from './problem.js';
import type { UndoEntry } from '../live/messages.js';
import type { BlankSheet } from '../pages/page.js';
import type { SittingSummary } from './sittings.js';

export interface LessonSummary {
  id: string;
  title: string;
  /** Milliseconds since 1970-01-01 UTC, as all times here. */
  usedAt: number;
  createdAt: number;
  /** The folder that it lies in; null where it lies in none. */
  folder: string | null;
  favourite: boolean;
  tags: readonly string[];
  archived: boolean;
  /** When it was put into the trash; null where it is not there. */
  deletedAt: number | null;
  /** Whose it is, where one works on a lesson of somebody else's. */
  owner: string | null;
}

/** What is said of a lesson; what is left out stays as it is. */
export interface LessonRequest {
  title?: string | undefined;
  folder?: string | null | undefined;
  favourite?: boolean | undefined;
  tags?: readonly string[] | undefined;
  archived?: boolean | undefined;
}

/** Most tags of a lesson, and letters of one. */
export const MOST_TAGS = 20;
export const TAG_LENGTH = 40;

/** Who works on a lesson, beside the teacher whose it is. */
export interface TeamRequest {
  teachers: readonly string[];
}

/** A folder of lessons, in another one or in none. */
export interface Folder {
  id: string;
  title: string;
  parent: string | null;
}

export interface FolderRequest {
  title: string;
  parent: string | null;
}

export interface LessonDetail extends LessonSummary {
  sittings: SittingSummary[];
}

export interface TitleRequest {
  title: string;
}

/** The first page of a new lesson; wide and plain where it is null. */
export interface BlankLessonRequest {
  sheet: BlankSheet | null;
}

/** Where pages go: after one, at the end if none is given; for one class alone if it is given. */
export interface PagePlaceRequest {
  after?: string | undefined;
  sitting?: string | undefined;
}

/** Pages of a document: those that `pages` names, such as `1-3,7`, or all. */
export interface DocumentPagesRequest extends PagePlaceRequest {
  pages?: string | undefined;
}

export interface WebPageRequest extends PagePlaceRequest {
  address: string;
  /** A page that gets the copy in the place of the one it has. */
  replace?: string | undefined;
}

/** The lesson that a page is copied to, and the class whose marks on it go along. */
export interface CopyPageRequest {
  to: string;
  sitting?: string | undefined;
}

/** The size of a recording's picture, pixels. */
export interface MediaRequest extends PagePlaceRequest {
  width?: number | undefined;
  height?: number | undefined;
}

export interface PageReply {
  page: string;
}

/** A copy of a web page, and how many of its pictures were not to be had. */
export interface WebPageReply extends PageReply {
  lost: number;
}

export interface PagesReply {
  pages: string[];
}

/** Annotations that became marks, and how that is undone. */
export interface AnnotationsReply {
  marks: number;
  step: UndoEntry;
}

/** What is to be known of a document that was turned into pages, each as a code and a sentence. */
export interface Remarked {
  remarks: ProblemReply[];
}

/** A document that became a lesson. */
export interface NewLessonReply extends Remarked {
  lesson: LessonSummary;
  /** The stored document. */
  material: string;
}

/** A document that is stored and on no page yet. */
export interface LookedAtReply extends Remarked {
  material: string;
  /** How many pages it has. */
  count: number;
}

/** How far a document is: how many wait before it, or its pages that are read. */
/** While an archive is made: pages that are written, of so many. */
export interface ArchiveProgress {
  done: number;
  total: number;
}

/** An archive that was made and can be fetched, once. */
export interface ArchiveReply {
  archive: string;
}

export type DocumentProgress = { waiting: number } | { done: number; total: number };
