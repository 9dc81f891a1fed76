import type { Gauge } from '../marks/measures.js';

/** What lies under the marks of a page. */
export type Surface =
  /**
   * `spacing` is the distance of the ruling's lines in millimetres. A boundless page goes on in every
   * direction; its size is only where it starts.
   */
  | { kind: 'blank'; colour: string; ruling: Ruling; spacing: number; boundless?: true; line?: NumberLine }
  /** A stored copy of a web page, laid out at the page's width. */
  | { kind: 'web'; material: string }
  /** What a shown screen was like: pictures of it where it was scrolled to, page units. */
  | { kind: 'view'; pictures: readonly ViewPicture[] }
  /** A sound or video file, played in step for all. */
  | { kind: 'media'; material: string; form: MediaForm }
  /** A stored picture that fills the page. */
  | { kind: 'picture'; material: string }
  /** A page of a stored PDF; `index` counts from 0. */
  | { kind: 'pdf'; material: string; index: number };

export type MediaForm = 'sound' | 'video';

export const RULINGS = [
  'plain',
  'squared',
  'dotted',
  'lined',
  'handwriting',
  'music',
  'isometric',
  'axes',
  'polar',
  'numberLine',
] as const;
export type Ruling = (typeof RULINGS)[number];

/** The ends of a number line, and the distance of its marks. */
export interface NumberLine {
  from: number;
  to: number;
  step: number;
}

/** A picture of a view, put where its content lay on the page. */
export interface ViewPicture {
  material: string;
  x: number;
  y: number;
  /** Its size against the page's; 1 where it does not say. Another where the content was enlarged. */
  scale?: number;
}

/** Most pictures of one view. */
export const MAX_VIEW_PICTURES = 24;

/** One thing to mark up. Sizes are page units (CSS pixels at 100 %, 96 to the inch). */
export interface Page {
  id: string;
  /** Fractional index that sorts the pages of a lesson. */
  order: string;
  title: string;
  width: number;
  height: number;
  surface: Surface;
  /** How lengths are said on it; in centimetres where it does not say. */
  gauge?: Gauge | null;
  /** A removed page keeps its marks, so that bringing it back brings all of it back. */
  removed: boolean;
}

/** Size and paper of a blank page that is to be made. */
export type BlankSheet = Pick<Page, 'width' | 'height'> & { surface: Extract<Surface, { kind: 'blank' }> };

export type PagePatch = Partial<
  Pick<Page, 'order' | 'title' | 'width' | 'height' | 'surface' | 'removed' | 'gauge'>
>;

/** PDF points (1/72 inch) to page units (1/96 inch). */
export const UNITS_PER_POINT = 96 / 72;
export const UNITS_PER_MM = 96 / 25.4;

/** Largest side of a page, in page units (ISO 32000-1 annex C.2: 14,400 points). */
export const MAX_PAGE_SIDE = 14400 * UNITS_PER_POINT;

/** Page formats in page units, the longer side across: ISO 216 A4, ANSI A (Letter), and two screens. */
export const FORMATS = {
  wide: { width: 1280, height: 720 },
  classic: { width: 1024, height: 768 },
  a4: { width: 297 * UNITS_PER_MM, height: 210 * UNITS_PER_MM },
  letter: { width: 11 * 96, height: 8.5 * 96 },
} as const;
export type Format = keyof typeof FORMATS;

/** The pages that are there, in their order. */
export function orderedPages(pages: Iterable<Page>): Page[] {
  return [...pages].filter((page) => !page.removed).sort(byOrder);
}

/** Sorts by fractional index, ties by id, so that every client sorts alike. */
export function byOrder(a: { order: string; id: string }, b: { order: string; id: string }): number {
  if (a.order !== b.order) return a.order < b.order ? -1 : 1;
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}

/** Size and surface of a page to be made. */
export interface Sheet {
  width: number;
  height: number;
  surface: Extract<Surface, { kind: 'blank' | 'picture' }>;
}
