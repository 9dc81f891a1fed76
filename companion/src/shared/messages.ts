import type { Pane, TextStyle, WireMark } from '@doodla/core';

/** Where something is typed on a page, and what is there so far. */
export interface Typing {
  text: string;
  width: number;
  look: Pick<TextStyle, 'font' | 'size' | 'colour' | 'bold' | 'italic'>;
  label: string;
}

/** What pages and frames of the extension ask of its background; each is answered with what `Answers` says. */
export type Ask =
  | { ask: 'picture' }
  /** Something is to be typed; the frame that is typed in asks for it with `typing`. */
  | { ask: 'type'; typing: Typing }
  | { ask: 'typing' }
  | { ask: 'typed'; text: string; isDone: boolean }
  /** The page lets nothing lie over it; that is said at the extension's button. */
  | { ask: 'barred'; why: string }
  /** Opens the page of the extension from which this tab is brought into a class. */
  | { ask: 'class' }
  /** Opens a picture of the page in a tab of its own, which asks for it with `pictured`. */
  | { ask: 'show'; pictured: Pictured }
  | { ask: 'pictured'; id: string };

export interface Answers {
  /** What is in sight of the tab, as the address of its data. */
  picture: string;
  type: undefined;
  typing: Typing | undefined;
  typed: undefined;
  barred: undefined;
  class: undefined;
  show: undefined;
  pictured: Pictured | undefined;
}

/** A picture of a page: pieces from top to bottom, as addresses of their data, and the words that can be seen on it. */
export interface Pictured {
  title: string;
  address: string;
  /** CSS pixels. */
  width: number;
  pieces: readonly PicturePiece[];
}

export interface PicturePiece {
  data: string;
  height: number;
  words: readonly { text: string; x: number; y: number; width: number; height: number }[];
}

/** What a page in its tab is. */
export interface TabAbout {
  title: string;
  address: string;
  /** How wide it is laid out, CSS pixels. */
  width: number;
}

/** Where the parts of a page lie in its window, by whoever knows; CSS pixels of the window. */
export interface TabPlaces extends TabAbout {
  height: number;
  panes: readonly Pane[];
  /** Milliseconds since 1970-01-01 UTC. */
  at: number;
}

/** What the extension tells a page that is written on; some is answered. */
export type Tell =
  | { tell: 'toggle' }
  | { tell: 'typed'; text: string; isDone: boolean }
  | { tell: 'about' }
  | { tell: 'copy' }
  | { tell: 'marks' }
  | { tell: 'picture'; of: 'sight' | 'page' }
  /** A picture of what is in sight without anything that is written on it. */
  | { tell: 'plain' }
  /** Reports of where things are, and what is written, begin or end. */
  | { tell: 'report'; on: boolean }
  /** What a class has written on the page, by where it lies when nothing is scrolled, and what it has taken away. */
  | { tell: 'guests'; put: readonly WireMark[]; gone: readonly string[] }
  /** Ink of a class that is being drawn. */
  | { tell: 'guest ink'; ink: readonly GuestInk[] };

/** Ink that somebody in a class is drawing; points are flat x, y, pressure, time. */
export interface GuestInk {
  points: readonly number[];
  style: { nature: string; colour: string; width: number; opacity: number };
}

export interface Told {
  about: TabAbout;
  copy: string;
  marks: WireMark[];
  picture: Pictured | undefined;
  plain: string | undefined;
}

/** What a page that is shown to a class reports. */
export type Report =
  | { report: 'places'; places: TabPlaces }
  | { report: 'marks'; put: readonly WireMark[]; gone: readonly string[] };

/** An answer as it is sent: what was asked for, or why it could not be had. */
export type Reply<T> = { answer: T } | { problem: string };

/** Asks the background. Throws Error with its reason where it could not. */
export async function ask<Kind extends Ask['ask']>(
  message: Extract<Ask, { ask: Kind }>,
): Promise<Answers[Kind]> {
  const reply: Reply<Answers[Kind]> | undefined = await chrome.runtime.sendMessage(message);
  if (!reply) throw new Error('no answer');
  if ('problem' in reply) throw new Error(reply.problem);
  return reply.answer;
}
