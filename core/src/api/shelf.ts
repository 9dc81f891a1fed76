import type { Mark } from '../marks/mark.js';
import type { Page } from '../pages/page.js';

/** Marks that are used together, or pages with what is on them. */
export type ShelfKind = 'marks' | 'pages';

/** Most letters of a thing's name, and of a folder's. */
export const SHELF_TITLE_LENGTH = 100;
/** Most marks, and most pages, of one thing. */
export const MOST_SHELF_MARKS = 2000;
export const MOST_SHELF_PAGES = 60;

/** Something on a shelf, as it is listed. */
export interface ShelfThing {
  id: string;
  kind: ShelfKind;
  title: string;
  /** The folder that it lies in; empty where it lies in none. */
  folder: string;
  /** How many marks or pages it is. */
  count: number;
  /** Whether all teachers of the school see it. */
  shared: boolean;
  /** Whose it is, where it is another teacher's. */
  owner: string | null;
  /** Whether a picture of it has come. */
  hasPicture: boolean;
  /** Milliseconds since 1970-01-01 UTC. */
  createdAt: number;
}

/** What is put on a shelf: marks of one page, or whole pages, of a lesson or of one class on it. */
export interface ShelfKeepRequest {
  lesson: string;
  sitting?: string | undefined;
  /** The pages; the one that the marks are on. */
  pages: readonly string[];
  /** The marks; all that the class sees of the pages where it is left out. */
  marks?: readonly string[] | undefined;
  /** What it is called; as its lesson where it is empty. */
  title: string;
  folder: string;
}

/** What is said of a thing; what is left out stays as it is. */
export interface ShelfChangeRequest {
  title?: string | undefined;
  folder?: string | undefined;
  shared?: boolean | undefined;
}

/** Where a thing goes: a lesson, or one class on it. */
export interface ShelfTakeRequest {
  lesson: string;
  sitting?: string | undefined;
}

/** What is on a thing: each page with its marks; marks alone have none. Lowest marks first. */
export interface ShelfContent {
  parts: readonly { page: Page | null; marks: readonly Mark[] }[];
}

/** Which things are listed. */
export interface ShelfQuestion {
  of: 'own' | 'school';
  /** Words that are looked for; all where it is empty. */
  words: string;
}
