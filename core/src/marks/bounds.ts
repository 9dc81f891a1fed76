import type { Rect } from '../geometry/rect.js';
import { growRect, rectFromCorners } from '../geometry/rect.js';
import { STRIDE } from '../ink/points.js';
import { layoutText } from '../text/layout.js';
import type { Mark } from './mark.js';

/** Smallest rectangle that holds all that is drawn of a mark, in page units. */
export function markBounds(mark: Mark): Rect {
  switch (mark.kind) {
    case 'stroke':
      return growRect(pointBounds(mark.points), mark.style.width);
    case 'text': {
      const { height } = layoutText(mark.text, mark.style.font, mark.style.size, mark.width);
      return { x: mark.x, y: mark.y, width: mark.width, height };
    }
  }
}

function pointBounds(points: readonly number[]): Rect {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += STRIDE) {
    x0 = Math.min(x0, points[i]!);
    x1 = Math.max(x1, points[i]!);
    y0 = Math.min(y0, points[i + 1]!);
    y1 = Math.max(y1, points[i + 1]!);
  }
  return rectFromCorners(x0, y0, x1, y1);
}
