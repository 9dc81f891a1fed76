import type { KeyboardEvent } from 'react';

/** How far an arrow key moves something, CSS pixels; with Shift, finely. */
const STEP = 20;
const FINE_STEP = 2;
const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Lets the arrow keys do what dragging does, on something that has the focus. */
export function byArrows(onStep: (dx: number, dy: number) => void) {
  return {
    // The keys of the page's tools leave these alone (`keys`).
    'data-arrows': '',
    onKeyDown(event: KeyboardEvent): void {
      const way = WAYS[event.key];
      if (!way) return;
      event.preventDefault();
      const step = event.shiftKey ? FINE_STEP : STEP;
      onStep(way[0] * step, way[1] * step);
    },
  };
}
