import type { Preview } from '../canvas/preview';

/** A pointer's place on the page, in page units. */
export interface PenPoint {
  x: number;
  y: number;
  /** 0 to 1. */
  pressure: number;
  /** Degrees from upright; 0 where the device does not say. */
  tilt?: number;
  /** Milliseconds since the pointer went down. */
  time: number;
  /** Held keys: one keeps angles and proportions, the other draws from the middle. */
  steady: boolean;
  centred: boolean;
  /** Moved by keys, which rest between presses. */
  byKeys?: true;
}

/** What one pointer does from when it goes down until it comes up. */
export interface Gesture {
  move(points: readonly PenPoint[]): void;
  end(): void;
  cancel(): void;
  readonly preview: Preview;
}

/** A gesture as whoever moves the pointer sees it. */
export type RunningGesture = Omit<Gesture, 'preview'>;
