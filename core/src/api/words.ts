import type { PlacedWord } from '../text/pageWords.js';
import type { ReadingLanguage } from '../text/readingLanguages.js';

export interface ReadWordsRequest {
  language: ReadingLanguage;
}

/** How far reading is: how many wait before, or a part from 0 to 1. */
export type ReadingProgress = { waiting: number } | { part: number };

/** The words of a page; null where it has not been read. */
export interface WordsReply {
  words: PlacedWord[] | null;
}
