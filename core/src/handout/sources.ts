import type { WrittenInk } from './ink/packedInk.js';
import type { Loss } from './losses.js';
import type { Rect } from '../geometry/rect.js';
import type { Mark } from '../marks/mark.js';
import type { Face } from '../text/font.js';
import type { Page } from '../pages/page.js';
import type { PaintOf } from '../paint/items.js';

/** A page of a handout with the marks that go on it, lowest first. */
export interface HandoutPage {
  page: Page;
  marks: readonly Mark[];
  /** What marks are, in words, by id, for those who cannot see them. */
  alts?: Readonly<Record<string, string>>;
  /** Room that its sheet has below it, for marks that lie there; page units. */
  below?: number;
  /** What the speaker has beside it. */
  notes?: string;
}

/** A picture file. */
export interface PictureFile {
  bytes: Uint8Array;
  type: 'png' | 'jpeg';
}

/** A run of text in one line as a browser has laid it out, in page units. */
export interface LaidOutText extends Rect {
  text: string;
}

/** A place on a web page that leads to an address, or to a height of the same page. */
export type LaidOutLink = Rect & ({ address: string } | { to: number });

/** What can be read and followed on a web page. */
export interface WebLayout {
  texts: LaidOutText[];
  links: LaidOutLink[];
}

/** A PNG of some text with its size, and where its baseline is, in page units. */
export interface TextPicture {
  bytes: Uint8Array;
  width: number;
  height: number;
  baseline: number;
}

/** What a handout is made from; the caller knows where these are kept. */
export interface HandoutSources {
  /** The stored original. */
  pdf(material: string): Promise<Uint8Array>;
  /** A TrueType file. */
  font(face: Face): Promise<Uint8Array>;
  /** A stored picture as PNG or JPEG; undefined where it is no longer there. */
  picture(material: string): Promise<PictureFile | undefined>;
  /** A PNG of text whose characters the font lacks, its baseline at `baseline` units from its top. */
  textPicture(item: PaintOf<'text'>): Promise<TextPicture>;
  /** A part of a page as it looks, whose original cannot be taken over as it is. */
  pagePicture(page: Page, part: Rect): Promise<PictureFile>;
  /** Compresses as zlib does (RFC 1950), where there is something faster than what is here. */
  deflate?(bytes: Uint8Array): Promise<Uint8Array>;
  /** What fills strokes (`writeInk`), where there is another thread that works it out meanwhile. */
  ink?(packed: Float64Array<ArrayBuffer>): Promise<WrittenInk>;
  /** A web page as it is laid out. */
  webLayout(page: Page): Promise<WebLayout>;
}

export interface HandoutOptions {
  title: string;
  /** The language of its words, as a BCP 47 tag. */
  language?: string;
  /** What people are called, by id. */
  people?: Readonly<Record<string, string>>;
  /** Whether marks are part of the page, or annotations that other programs can change. */
  marksAs?: 'drawn' | 'annotations';
  /** Words at the foot of each page, such as the title and the date; `{page}` and `{pages}` stand for the numbers. */
  foot?: string;
  /** Told, once each, of what the originals have and the handout has not. */
  onLoss?(loss: Loss): void;
  /** Told after each page. */
  onProgress?(done: number, total: number): void;
}
