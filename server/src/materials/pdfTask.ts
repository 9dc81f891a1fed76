/** What the PDF worker is asked for. Widths are pixels. */
export type PdfTask =
  { kind: 'sizes'; path: string; maxPages: number } | { kind: 'cover'; path: string; width: number };

export type PdfFault = 'password' | 'damaged' | 'empty' | 'too-many-pages' | 'too-slow';

export type PdfAnswer =
  /** Displayed sizes in page units. */
  { kind: 'sizes'; pages: { width: number; height: number }[] } | { kind: 'cover'; png: Uint8Array };

/** Pages read so far. */
export interface PdfProgress {
  done: number;
  total: number;
}
