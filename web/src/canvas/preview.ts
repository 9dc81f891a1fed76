import type { InkStyle, Mark } from '@doodla/core';

/** Ink that is not a mark yet. */
export interface WetInk {
  points: readonly number[];
  style: InkStyle;
  /** How much of fading ink is still to be seen, 0 to 1. */
  left?: number;
  /** The part of a shown screen that it is drawn on. */
  pane?: number;
}

/** What a gesture shows while it lasts. */
export interface Preview {
  ink?: WetInk;
  /** Marks as they would become. */
  marks?: readonly Mark[];
  /** Marks that are left out meanwhile. */
  hidden?: ReadonlySet<string>;
  /** A lasso or band being drawn, flat x, y. */
  area?: readonly number[];
}
