import type { Pane } from '@doodla/core';
import { amongMain, mainPlace, paneAt } from '@doodla/core';

interface Point {
  x: number;
  y: number;
}

/** Which part of a shown screen a pointer has gone down on, for as long as it is down. */
export interface PaneHold {
  /** Undefined where nothing has moved yet. */
  pane: number | undefined;
  /** From where the main pane's content lies to where this one's does. */
  toOwn(point: Point): Point;
}

/** The hold of a pointer that goes down at a point of the page, in units of the main pane's content. */
export function holdOn(panes: readonly Pane[], at: Point): PaneHold {
  if (panes.length === 0) return { pane: undefined, toOwn: ({ x, y }) => ({ x, y }) };
  const main = mainPlace(panes);
  const pane = paneAt(panes, at.x * main.scale + main.x, at.y * main.scale + main.y);
  const { x, y, scale } = amongMain(panes, pane);
  return { pane, toOwn: (point) => ({ x: (point.x - x) / scale, y: (point.y - y) / scale }) };
}
