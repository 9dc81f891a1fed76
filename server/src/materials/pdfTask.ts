/** What the PDF reader is asked for. Widths are pixels. */
export type PdfTask =
  /** Sizes of the pages that `pages` names (`pagesOfList`), `maxPages` at most. */
  | { kind: 'sizes'; path: string; pages: string; maxPages: number }
  /** How many pages there are. */
  | { kind: 'count'; path: string }
  /** The characters that the text of the first pages is written in. */
  | { kind: 'letters'; path: string; pages: number }
  /** What each page says. */
  | { kind: 'words'; path: string }
  /** A picture of a page, from 0. */
  | ({ kind: 'picture'; path: string } & PictureWish);

/** Which page, from 0, how wide, how often its width it may be high, and as what kind of picture. */
export interface PictureWish {
  index: number;
  width: number;
  tallest: number;
  type: 'png' | 'webp';
}

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
  | { kind: 'words'; pages: string[] }
  | { kind: 'picture'; bytes: Uint8Array };

/** Pages read so far. */
export interface PdfProgress {
  done: number;
  total: number;
}
