import type { Mark } from '@doodla/core';

/** A PDF whose annotations are to become marks; what is left of it is written to `out`. */
export interface AnnotationsTask {
  path: string;
  out: string;
}

/** The marks of a page of the document, by its index; those who and where they are for is still to be said. */
export interface AnnotatedPage {
  index: number;
  marks: Mark[];
}
