import type { Pane } from '@doodla/core';
import { scaledPanes } from '@doodla/core';
import type { TabPlaces } from '../shared/messages';

/** The parts of a tab's page as they are in a frame of so many pixels; `first`: how wide the window was in the beginning. */
export function panesIn(
  { width, panes }: Pick<TabPlaces, 'width' | 'panes'>,
  pixels: number,
  first: number,
): Pane[] {
  return scaledPanes(panes, pixels / width).map((pane) => ({
    ...pane,
    place: { ...pane.place, scale: first / width },
  }));
}
