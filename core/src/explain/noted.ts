import type { Pane } from '../live/panes.js';
import type { Focus, Playing } from '../live/scene.js';
import type { InkStyle } from '../marks/stroke/strokeMark.js';

/** Where somebody points; whoever it is goes by a number that means nothing elsewhere. */
export interface NotedPoint {
  who: number;
  colour: string;
  page: string;
  x: number;
  y: number;
}

/** Ink that fades, with all its points; the last one was drawn when it was noted. */
export interface NotedWisp {
  page: string;
  style: InkStyle;
  /** Flat x, y, pressure, milliseconds; see `STRIDE`. */
  points: number[];
  /** Milliseconds after which it is gone. */
  fade: number;
}

/** A page of which something moves under the marks, and where the parts of it are that have been scrolled. */
export interface NotedLive {
  page: string;
  panes: readonly Pane[];
}

/** What the log does not know of a take; `t` is the time since it began, milliseconds. */
export type Noted =
  | { t: number; do: 'page'; page: string }
  /** An operation of one's own, when it was done. */
  | { t: number; do: 'op'; op: string }
  | ({ t: number; do: 'point' } & NotedPoint)
  | { t: number; do: 'rest'; who: number }
  | ({ t: number; do: 'wisp' } & NotedWisp)
  | { t: number; do: 'focus'; focus: Focus | null }
  | { t: number; do: 'uncovered'; marks: readonly string[] }
  | { t: number; do: 'playing'; playing: Playing | null }
  | { t: number; do: 'live'; live: NotedLive | null }
  /** So many milliseconds of sound had come by then. */
  | { t: number; do: 'sound'; at: number }
  /** From then on so many milliseconds of sound are missing. */
  | { t: number; do: 'lost'; ms: number };

/** Lines of JSON, one for each thing. */
export function writeNoted(noted: readonly Noted[]): string {
  return noted.map((one) => `${JSON.stringify(one)}\n`).join('');
}

/** What was noted, in the order of its times. A line that was cut off, such as by a crash, is left out. */
export function readNoted(lines: string): Noted[] {
  const noted = lines.split('\n').flatMap((line): Noted[] => {
    try {
      return line === '' ? [] : [JSON.parse(line) as Noted];
    } catch {
      return [];
    }
  });
  return noted.sort((a, b) => a.t - b.t);
}
