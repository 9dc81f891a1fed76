import type { Mark } from '../marks/mark.js';
import type { Face } from '../text/font.js';
import type { Page } from '../pages/page.js';
import type { PaintOf } from '../paint/paint.js';

/** A page of a handout with the marks that go on it, lowest first. */
export interface HandoutPage {
  page: Page;
  marks: readonly Mark[];
}

/** A picture file with its size in page units. */
export interface Picture {
  bytes: Uint8Array;
  width: number;
  height: number;
}

/** What a handout is made from; the caller knows where these are kept. */
export interface HandoutSources {
  /** The stored original. */
  pdf(material: string): Promise<Uint8Array>;
  /** A TrueType file. */
  font(face: Face): Promise<Uint8Array>;
  /** A stored picture as PNG or JPEG; undefined where it is no longer there. */
  picture(material: string): Promise<{ bytes: Uint8Array; type: 'png' | 'jpeg' } | undefined>;
  /** A PNG of text whose characters the font lacks, its baseline at `baseline` units from its top. */
  textPicture(item: PaintOf<'text'>): Promise<Picture & { baseline: number }>;
  /** A PNG of a page whose original cannot be taken over as it is. */
  pagePicture(page: Page): Promise<Picture>;
}

export interface HandoutOptions {
  title: string;
  /** Told after each page. */
  onProgress?(done: number, total: number): void;
}
