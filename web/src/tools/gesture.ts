import type { WetInk } from '../page/pageCanvas';

/** A pointer's place on the page, in page units. */
export interface PenPoint {
  x: number;
  y: number;
  /** 0 to 1. */
  pressure: number;
  /** Milliseconds since the pointer went down. */
  time: number;
}

/** What one pointer does from when it goes down until it comes up. */
export interface Gesture {
  move(points: readonly PenPoint[]): void;
  end(): void;
  cancel(): void;
  /** Ink that this gesture is drawing. */
  readonly wet?: WetInk;
}
