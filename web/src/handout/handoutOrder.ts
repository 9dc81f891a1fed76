import type { MarkChoice, PerSheet, Whose } from '@doodla/core/handout';

/** What pages can be handed out as. */
export const FORMATS = [
  'pdf',
  'annotated',
  'print',
  'png',
  'webp',
  'svg',
  'slides',
  'webpage',
  'ink',
  'annotations',
  'archive',
  'link',
] as const;
export type Format = (typeof FORMATS)[number];
/** Those that are made here: an archive is the server's, and a link shows a web page. */
export type MadeFormat = Exclude<Format, 'archive' | 'link'>;

/** How large pictures are: pixels to a page unit. */
export const SCALES = [1, 2, 3] as const;
export type Scale = (typeof SCALES)[number];

/** Everything that is chosen of a handout but its pages. */
export interface HandoutChoice extends Omit<MarkChoice, 'whose'> {
  format: Format;
  /** `each`: every student's as a file of their own. */
  whose: Whose | 'each';
  /** Whether students are called by their initials. */
  initials: boolean;
  /** What stands at the foot of each page. */
  foot: { title: boolean; date: boolean; numbers: boolean };
  perSheet: 1 | PerSheet;
  scale: Scale;
}

export const USUAL: HandoutChoice = {
  format: 'pdf',
  whose: 'everybody',
  prepared: true,
  covered: false,
  initials: false,
  foot: { title: false, date: false, numbers: false },
  perSheet: 1,
  scale: 2,
};

/** What a handout is made by, and what whoever makes it shows the server to be let in. */
export interface HandoutOrder extends Pick<HandoutChoice, 'perSheet' | 'scale'> {
  format: MadeFormat;
  title: string;
  language: string;
  /** What people are called, by id. */
  people: Readonly<Record<string, string>>;
  foot?: string | undefined;
  headers: Record<string, string>;
}

/** The ending of the files of a format; of pictures one for each page. */
export const ENDINGS: Readonly<Record<MadeFormat, string>> = {
  pdf: 'pdf',
  annotated: 'pdf',
  print: 'html',
  png: 'png',
  webp: 'webp',
  svg: 'svg',
  slides: 'pptx',
  webpage: 'html',
  ink: 'inkml',
  annotations: 'jsonld',
};

/** Whether a format has a file for each page. */
export const isByPage = (format: Format) => format === 'png' || format === 'webp' || format === 'svg';
/** Whether a format can have several pages on a sheet. */
export const hasSheets = (format: Format) => format === 'pdf' || format === 'print';
/** Whether a format shows pages, so that there is a foot. */
export const hasFoot = (format: Format) => !['ink', 'annotations', 'slides', 'archive'].includes(format);
