import { outline } from '../../ink/outline.js';
import { textureLines } from '../../ink/texture.js';
import type { PaintItem } from '../../paint/items.js';
import { solid } from '../../paint/items.js';
import type { StrokeMark } from './strokeMark.js';

/** How ink is drawn while it is not a mark yet, or is one. */
export function paintStroke(ink: Pick<StrokeMark, 'points' | 'style'>, finished = true): PaintItem[] {
  const { nature, colour, opacity, width } = ink.style;
  if (nature === 'pencil' || nature === 'chalk') {
    return textureLines(ink.points, nature, width).map(({ path, dash, share }) => ({
      kind: 'line',
      path,
      colour,
      width: width * share,
      dash,
      opacity: opacity * (nature === 'pencil' ? 0.6 : 0.85),
    }));
  }
  const blend = nature === 'highlighter' ? 'multiply' : 'normal';
  return [{ ...solid(outline(ink, finished), colour), opacity, blend }];
}
