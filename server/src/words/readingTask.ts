import type { ReadingLanguage } from '@doodla/core';

/** What the reader of words is asked for: a page of a PDF, counted from 0, or a picture. */
export interface ReadingTask {
  path: string;
  page: number | null;
  language: ReadingLanguage;
}

/** A word and where it lies, as parts of the page's width and height. */
export interface ReadWord {
  text: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** How far it is, from 0 to 1. */
export interface ReadingProgress {
  part: number;
}
