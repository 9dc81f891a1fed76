import type { Rect } from '@doodla/core';
import type { Room, Size } from '../canvas/view';
import { MARGIN } from '../canvas/view';

/** Part of the window's height that has to be free for a page to be as wide as that. */
const HIGH_ENOUGH = 0.5;

/**
 * The room that leaves a whole page largest with no bar on it; the whole window where there is no such room.
 * `margin` is left between the page and whatever lies over the window, CSS pixels.
 */
export function roomForPage(page: Size, stage: Size, bars: readonly Rect[], margin = MARGIN): Room {
  return best(stage, bars, margin, ({ width, height }) => Math.min(width / page.width, height / page.height));
}

/** The widest room in which a good part of a page can be seen at once. */
export function roomForWidth(stage: Size, bars: readonly Rect[], margin = MARGIN): Room {
  return best(stage, bars, margin, ({ width, height }) => (height >= HIGH_ENOUGH * stage.height ? width : 0));
}

/** Of all rectangles between the bars the one that is worth most; the larger one of equals. */
function best(stage: Size, bars: readonly Rect[], margin: number, worth: (free: Size) => number): Room {
  const inner = { x: margin, y: margin, right: stage.width - margin, bottom: stage.height - margin };
  const taken = bars.map(({ x, y, width, height }) => ({
    x: x - margin,
    y: y - margin,
    right: x + width + margin,
    bottom: y + height + margin,
  }));
  const between = (values: number[], low: number, high: number) =>
    [...new Set(values)].filter((value) => value >= low && value <= high);
  const lefts = between([inner.x, ...taken.map(({ right }) => right)], inner.x, inner.right);
  const rights = between([inner.right, ...taken.map(({ x }) => x)], inner.x, inner.right);
  const tops = between([inner.y, ...taken.map(({ bottom }) => bottom)], inner.y, inner.bottom);
  const bottoms = between([inner.bottom, ...taken.map(({ y }) => y)], inner.y, inner.bottom);
  let found = { x: 0, y: 0, right: stage.width, bottom: stage.height, worth: 0, area: 0 };
  for (const x of lefts)
    for (const right of rights)
      for (const y of tops)
        for (const bottom of bottoms) {
          const free = { width: right - x, height: bottom - y };
          if (free.width <= 0 || free.height <= 0) continue;
          const [value, area] = [worth(free), free.width * free.height];
          if (value < found.worth || (value === found.worth && area <= found.area)) continue;
          if (taken.some((bar) => bar.x < right && bar.right > x && bar.y < bottom && bar.bottom > y))
            continue;
          found = { x, y, right, bottom, worth: value, area };
        }
  return {
    left: found.x,
    right: stage.width - found.right,
    top: found.y,
    bottom: stage.height - found.bottom,
  };
}
