import type { SnippetPart } from '@doodla/core';

/** The words of a page by which it is found. */
export interface FoundWords {
  title: string;
  typed: string;
  printed: string;
  notes: string;
}

/** A page that was found. */
export interface FoundRow {
  log: string;
  page: string;
  lesson: string;
  lessonTitle: string;
  sitting: string | null;
  sittingTitle: string | null;
  openedAt: number | null;
  snippet: SnippetPart[];
}

/** How much a hit counts in each. */
export const WEIGHTS: Record<keyof FoundWords, number> = { title: 8, typed: 4, printed: 1, notes: 2 };
/** Words of a text that are told of a hit. */
export const SNIPPET_WORDS = 14;

/** Finds pages by their words, in whatever way the database has for it. */
export abstract class WordIndex {
  /** Sets the words of a page, known by the key of its row in `found_page`. */
  abstract put(key: number, words: FoundWords): Promise<void>;

  /** Pages of a teacher's that have all of these words, or words that begin with them; the best first, at most so many. */
  abstract find(teacherId: string, words: readonly string[], most: number): Promise<FoundRow[]>;
}

/** What is told of a page that was found, and where to look for it. */
export const FOUND = `found_page.log, found_page.page, lesson.id AS lesson, lesson.title AS "lessonTitle",
  sitting.id AS sitting, sitting.title AS "sittingTitle", sitting.opened_at AS "openedAt"`;
export const FOUND_FROM = `found_words JOIN found_page ON found_page.key = found_words.rowid
  JOIN lesson ON lesson.id = found_page.lesson_id LEFT JOIN sitting ON sitting.id = found_page.sitting_id`;
