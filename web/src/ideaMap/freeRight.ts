type Box = Pick<DOMRect, 'bottom' | 'left' | 'right' | 'top'>;

/** Between a panel and what is beside it, pixels. */
export const EDGE = 8;

/** How far from the right edge of a window a panel lies that no bar lies over; at the edge where there is no such place. */
export function freeRight(panel: Box, bars: readonly Box[], width: number): number {
  const wide = panel.right - panel.left;
  const level = bars.filter(({ top, bottom }) => top < panel.bottom && bottom > panel.top);
  let right = EDGE;
  for (let tried = 0; tried <= level.length; tried++) {
    const [from, to] = [width - right - wide, width - right];
    const over = level.find((bar) => bar.left < to && bar.right > from);
    if (!over) return from >= 0 ? right : EDGE;
    right = width - over.left + EDGE;
  }
  return EDGE;
}
