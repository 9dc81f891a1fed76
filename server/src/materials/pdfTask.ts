/** What the PDF reader is asked for. Widths are pixels. */
export type PdfTask =
  /** Sizes of the pages that `pages` names (`pagesOfList`), `maxPages` at most. */
  | { kind: 'sizes'; path: string; pages: string; maxPages: number }
  /** How many pages there are. */
  | { kind: 'count'; path: string }
  /** The characters that the text of the first pages is written in. */
  | { kind: 'letters'; path: string; pages: number }
  | { kind: 'cover'; path: string; width: number };

export type PdfFault =
  'password' | 'damaged' | 'empty' | 'too-many-pages' | 'no-such-pages' | 'huge-page' | 'too-slow';

/** Why a document cannot be used; `pages` is how many it has, where that is known. */
export interface PdfFailure {
  fault: PdfFault;
  pages?: number | undefined;
}

/** A page of a document, from 0, and its displayed size in page units. */
export interface ReadPage {
  index: number;
  width: number;
  height: number;
}

export type PdfAnswer =
  | { kind: 'sizes'; count: number; pages: ReadPage[] }
  | { kind: 'count'; count: number }
  | { kind: 'letters'; letters: string }
  | { kind: 'cover'; png: Uint8Array };

/** Pages read so far. */
export interface PdfProgress {
  done: number;
  total: number;
}
