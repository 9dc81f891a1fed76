import type { Rect } from '../geometry/rect.js';
import type { Pane } from './panes.js';

/** Who shows their screen to the class, on which page; that page is of the view that is seen now. */
export interface ScreenState {
  presenter: string;
  page: string;
  /** Where the parts of that view are that have been scrolled since it was first seen, page units. */
  panes: readonly Pane[];
  /** The presenter's connection is gone, such as by a reload; what was seen last stays until it is shown again. */
  away?: true;
}

/** A rectangle of the screen whose content has moved within it, whole pixels. */
export interface ScreenMove extends Rect {
  dx: number;
  dy: number;
}

/** What comes along with a part of a shown screen, as JSON before its bytes. Volatile, never stored. */
export interface ScreenPart {
  sitting: string;
  page: string;
  /** A frame of a video, to be decoded in order from a key frame; or a picture of a rectangle. */
  kind: 'video' | 'picture';
  /** A whole frame that needs none before it. */
  key: boolean;
  /** A WebCodecs codec string; for video only. */
  codec?: string;
  /** Size of the screen, pixels. */
  width: number;
  height: number;
  /** Where a picture belongs on the screen, pixels. */
  x: number;
  y: number;
  /** What is there already is moved first: a scroll is told, and only what it uncovers is sent. */
  move?: ScreenMove;
  /** Where the parts of its view are that have been scrolled since it was first seen, page units. */
  panes: readonly Pane[];
  /** Whether it is known what the screen shows; the panes are the last known ones while it is not. */
  certain: boolean;
  /** Milliseconds since 1970-01-01 UTC, by the presenter's clock. */
  at: number;
}

/** Width of a page that shows a screen, page units; its height follows. */
export const SCREEN_PAGE_WIDTH = 1280;
/** What comes along with a piece of a screen's sound, as JSON before its bytes (Opus, RFC 6716). */
export interface SoundPart {
  sitting: string;
  /** Microseconds since the sound began. */
  at: number;
  /** Hertz. */
  rate: number;
  channels: number;
}

/** Largest piece of sound that is passed on, bytes. */
export const MAX_SOUND_PART = 20_000;
/** Largest part of a screen that is passed on, bytes. */
export const MAX_SCREEN_PART = 3_000_000;

/** Socket events of shown screens. */
export const SCREEN = {
  /** Begins to show, or goes on after a lost connection; answered with the page. */
  start: 'screen start',
  /** Asks for a page for a view that was not seen before; answered with the page. */
  view: 'screen view',
  /** Turns to a view that is known. */
  show: 'screen show',
  /** Puts pictures under a view that is put away. */
  keep: 'screen keep',
  stop: 'screen stop',
  /** A viewer needs a whole frame; passed on to the presenter. */
  whole: 'screen whole',
  /** A viewer cannot decode video, so pictures have to do; passed on to the presenter. */
  plain: 'screen plain',
  /** Lets a student present, or not. */
  allow: 'screen allow',
  part: 'screen part',
  sound: 'screen sound',
} as const;
